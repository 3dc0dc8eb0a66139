import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { expect, type Page, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { ready } from "./support/house.ts";
import { askedBy, pass } from "./support/rest.ts";

/** A form of another origin with the kit from ours; `dir` and language as asked. */
function page(dir: string): string {
  return `<!doctype html><html lang="${dir === "rtl" ? "ar" : "en"}" dir="${dir}"><meta charset="utf-8">
<meta name="viewport" content="width=device-width"><title>Members</title><main><h1>Members</h1>
<form><p><label>Street <input name="street" autocomplete="address-line1"></label></p>
<p><label>Town <input name="town" autocomplete="address-level2"></label></p>
<p><label>Postcode <input name="code" autocomplete="postal-code"></label></p></form></main>
<style>input { font: inherit; width: 100%; box-sizing: border-box }</style><script type="module" src="/page.js"></script></html>`;
}

const script = () => `import { bindTokens, Client } from "${ready().url}/kit/v1/bibliotope.js";
bindTokens(document.querySelector("form"), { client: new Client({ key: "${ready().keys.web}", url: "${ready().url}" }) });`;

let server: Server;
let origin: string;
test.beforeAll(async () => {
  server = createServer((request, response) => {
    const { pathname, searchParams } = new URL(request.url ?? "/", "http://x");
    if (pathname === "/page.js") return void response.setHeader("content-type", "text/javascript").end(script());
    response.setHeader("content-type", "text/html").end(page(searchParams.get("dir") ?? "ltr"));
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
test.afterAll(() => void server.close());

class Box {
  readonly input;
  readonly list;
  readonly options;

  constructor(readonly page: Page) {
    this.input = page.getByRole("combobox", { name: "Street" });
    this.list = page.locator("[data-bibliotope=suggestions]");
    this.options = this.list.getByRole("option");
  }

  async open(text = "12 harb", dir = "ltr") {
    await this.page.goto(`${origin}/?dir=${dir}`);
    await expect(this.input).toHaveAttribute("aria-expanded", "false");
    await this.input.click();
    // lines for fewer letters may be there before those for all of them
    const answered = this.page.waitForResponse((response) => askedBy(response.url()) === text);
    await this.page.keyboard.type(text);
    await answered;
    await expect(this.options.first()).toContainText("Harbour");
    await expect(this.input).toHaveAttribute("aria-busy", "false");
  }

  /** Place of the line that assistive technology is on; -1 for the text itself. */
  async active(): Promise<number> {
    const id = await this.input.getAttribute("aria-activedescendant");
    if (!id) return -1;
    const ids = await this.options.evaluateAll((options) => options.map((option) => option.id));
    const selected = await this.options.evaluateAll((options) =>
      options.findIndex((option) => option.getAttribute("aria-selected") === "true"),
    );
    expect(selected).toBe(ids.indexOf(id));
    return selected;
  }

  readonly caret = () => this.input.evaluate((input: HTMLInputElement) => input.selectionStart);
}

test.describe("the keys of the combobox pattern", () => {
  test("Down and Up go into the list, along it and round its ends; the focus stays in the field", async ({ page }) => {
    const box = new Box(page);
    await box.open();
    const count = await box.options.count();
    expect(await box.active()).toBe(-1);
    await page.keyboard.press("ArrowDown");
    expect(await box.active()).toBe(0);
    await page.keyboard.press("ArrowDown");
    expect(await box.active()).toBe(1);
    await page.keyboard.press("ArrowUp");
    await page.keyboard.press("ArrowUp");
    expect(await box.active()).toBe(-1);
    await page.keyboard.press("ArrowUp");
    expect(await box.active()).toBe(count - 1);
    await page.keyboard.press("ArrowDown");
    expect(await box.active()).toBe(-1);
    await expect(box.input).toBeFocused();
    await expect(box.input).toHaveValue("12 harb");
  });

  test("Enter goes to the first line where none is sure; once more takes it, and the list closes", async ({ page }) => {
    const box = new Box(page);
    await box.open();
    await expect(box.list.locator("[data-sure]")).toHaveCount(0);
    await page.keyboard.press("Enter");
    expect(await box.active()).toBe(0);
    await expect(box.input).toHaveValue("12 harb");
    await page.keyboard.press("Enter");
    await expect(box.input).toHaveValue("12 Harbour Row");
    await expect(page.getByLabel("Town")).toHaveValue("Tidewell");
    await expect(box.input).toHaveAttribute("aria-expanded", "false");
    await expect(box.list).toBeHidden();
    expect(page.url()).toBe(`${origin}/?dir=ltr`);
  });

  test("Enter takes the line that is meant without a doubt, which shows it", async ({ page }) => {
    const box = new Box(page);
    await box.open("12 harbour row tidewell");
    await expect(box.options.and(page.locator("[data-sure]"))).toHaveText([/12 Harbour Row, Tidewell/]);
    await page.keyboard.press("Enter");
    await expect(page.getByLabel("Town")).toHaveValue("Tidewell");
    await expect(box.list).toBeHidden();
  });

  test("Enter takes nothing where nothing that was typed is known", async ({ page }) => {
    const box = new Box(page);
    await page.goto(`${origin}/?dir=ltr`);
    await box.input.click();
    await page.keyboard.type("qqqzx 12");
    await expect(page.getByText(/^Nothing found/)).toBeVisible();
    await page.keyboard.press("Enter");
    await expect(box.input).toHaveValue("qqqzx 12");
    await expect(page.getByLabel("Town")).toHaveValue("");
  });

  test("Escape closes the list and keeps the text; Alt+Down opens it without going in, Alt+Up closes it", async ({
    page,
  }) => {
    const box = new Box(page);
    await box.open();
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Escape");
    await expect(box.list).toBeHidden();
    await expect(box.input).toHaveValue("12 harb");
    await page.keyboard.press("Alt+ArrowDown");
    await expect(box.options.first()).toBeVisible();
    expect(await box.active()).toBe(-1);
    await page.keyboard.press("Alt+ArrowUp");
    await expect(box.list).toBeHidden();
    await page.keyboard.press("ArrowDown");
    await expect(box.options.first()).toBeVisible();
    await expect(box.input).toHaveValue("12 harb");
  });

  test("Home, End and Left move the caret, and take the hand off the list; letters and Backspace edit", async ({
    page,
  }) => {
    const box = new Box(page);
    await box.open();
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Home");
    expect([await box.caret(), await box.active()]).toEqual([0, -1]);
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("End");
    expect([await box.caret(), await box.active()]).toEqual([7, -1]);
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("ArrowLeft");
    expect([await box.caret(), await box.active()]).toEqual([6, -1]);
    await page.keyboard.press("ArrowRight");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.type("o");
    await expect(box.input).toHaveValue("12 harbo");
    await page.keyboard.press("Backspace");
    await page.keyboard.press("Delete");
    await expect(box.input).toHaveValue("12 harb");
  });

  test("Right on a street goes on to its numbers, which letters narrow", async ({ page }) => {
    const box = new Box(page);
    await box.open("harbour row tidewell");
    await expect(box.options.first()).toContainText(/Harbour Row, Tidewell.*›/);
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("ArrowRight");
    await expect(box.options.first()).toContainText("1 Harbour Row, Tidewell");
    expect(await box.caret()).toBe(0);
    await page.keyboard.type("12");
    await expect(box.options.first()).toContainText("12 Harbour Row, Tidewell");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
    await expect(box.input).toHaveValue("12 Harbour Row");
  });

  test("Tab leaves with the text as it is, and the list closes", async ({ page }) => {
    const box = new Box(page);
    await box.open();
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Tab");
    await expect(box.list).toBeHidden();
    await expect(page.getByLabel("Town")).toBeFocused();
    await expect(box.input).toHaveValue("12 harb");
  });
});

test("a screen reader hears how many lines there are, and when there are none", async ({ page }) => {
  const box = new Box(page);
  await box.open();
  const status = page.locator("[data-bibliotope=search] [role=status]");
  await expect(status).toHaveText(`${await box.options.count()} suggestions.`);
  expect(await axeFindings(page)).toEqual([]);
  await box.input.fill("zzzzzzzzz");
  await expect(status).toHaveText("No suggestions.");
  await expect(page.getByText(/^Nothing found\. Check the spelling/)).toBeVisible();
});

test("nothing is requested in the middle of a composed character, and its keys are the composer's", async ({
  page,
}) => {
  const box = new Box(page);
  const asked: string[] = [];
  page.on("request", (request) => {
    const url = new URL(request.url());
    if (url.pathname === "/v1/suggest") asked.push(url.searchParams.get("q")!);
  });
  await page.clock.install();
  await page.goto(origin);
  await box.input.click();
  await page.keyboard.type("12 ");
  await expect.poll(() => asked.at(-1)).toBe("12 ");
  const before = asked.length;
  const session = await page.context().newCDPSession(page);
  for (const text of ["Λ", "Λι", "Λιμ"]) {
    await session.send("Input.imeSetComposition", { text, selectionStart: text.length, selectionEnd: text.length });
    await pass(page, 500);
  }
  expect(asked).toHaveLength(before);
  await expect(box.input).toHaveValue("12 Λιμ");
  await session.send("Input.insertText", { text: "Λιμάνι" });
  await expect(box.input).toHaveValue("12 Λιμάνι");
  await expect.poll(() => asked.at(-1)).toBe("12 Λιμάνι");
  expect(asked).toHaveLength(before + 1);
});

test.describe("by touch, at 360 px", () => {
  test.use({ hasTouch: true, viewport: { width: 360, height: 640 }, isMobile: true });

  test("a line is tapped, a street's numbers are gone on to, and nothing sticks out", async ({ page }) => {
    const box = new Box(page);
    await page.goto(origin);
    await box.input.tap();
    await page.keyboard.type("harbour row tidewell");
    await expect(box.options.first()).toContainText("Harbour Row, Tidewell");
    const { width } = (await box.list.boundingBox())!;
    expect(width).toBeLessThanOrEqual(360);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
    await box.options.first().locator(".bt-more").tap();
    await expect(box.options.first()).toContainText("1 Harbour Row, Tidewell");
    await box.options.nth(2).tap();
    await expect(box.input).toHaveValue("3 Harbour Row");
    await expect(box.list).toBeHidden();
  });
});

test("from right to left the list stands under its field, and what is beside a line at its left", async ({ page }) => {
  const box = new Box(page);
  await box.open("harbour row", "rtl");
  const [field, list] = [(await box.input.boundingBox())!, (await box.list.boundingBox())!];
  expect(Math.abs(list.x - field.x)).toBeLessThan(1);
  expect(Math.abs(list.width - field.width)).toBeLessThan(1);
  const first = box.options.first();
  const [line, beside, more] = await Promise.all(
    ["[data-bibliotope=line]", ".bt-beside", ".bt-more"].map(
      async (part) => (await first.locator(part).boundingBox())!,
    ),
  );
  expect(line.x).toBeGreaterThan(beside.x);
  expect(beside.x).toBeGreaterThan(more.x);
  expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
  // in the language of the page
  await expect(page.locator("[data-bibliotope=search] [role=status]")).toHaveText(/^\d+ اقتراح/);
  await expect(box.options.first()).toContainText("شارع");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Town")).toHaveValue("Tidewell");
});
