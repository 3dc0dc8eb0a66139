import { SAMPLE_FORMS } from "@bibliotope/islands";
import { expect, type Page, test } from "@playwright/test";
import { FormPage } from "../packages/kit/src/playwright/index.ts";
import { long } from "./support/long.ts";

const option = (page: Page) => page.getByRole("listbox", { name: "Suggestions" }).getByRole("option");
const hidden = (page: Page, name: string) => page.locator(`[name="${name}"]`);
const said = (page: Page) => page.locator("[data-bibliotope=form] [data-address]").first();

async function open(page: Page, form: string): Promise<void> {
  await page.goto(`/f/${form}`);
  await expect(page.locator("form")).toBeVisible();
}

async function write(page: Page, label: string, text: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await field.click();
  await field.fill("");
  await page.keyboard.type(text);
  await page.keyboard.press("Tab");
}

test(
  "fields that are changed after a choice are no longer that place, until they are again",
  long(),
  async ({ page }) => {
    await open(page, "become-a-reader");
    await page.getByLabel("Find your address").click();
    await page.keyboard.type("12 harb");
    await option(page).filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
    await expect(page.getByLabel("Street and number")).toHaveValue("12 Harbour Row");
    const position = await hidden(page, "position").inputValue();
    expect(position).toMatch(/^-\d+\.\d{1,6},-\d+\.\d{1,6}$/);
    await expect(hidden(page, "confirmed")).toHaveValue("yes");
    // the same place in other letters, and a flat of it
    await write(page, "Street and number", "12 HARBOUR ROW, flat 3");
    await expect(hidden(page, "position")).toHaveValue(position);
    // another place
    await write(page, "Street and number", "99 Elsewhere Lane");
    await write(page, "Town", "Sandmouth");
    await write(page, "Postcode", "ZZ9 99");
    for (const name of ["position", "exactness"]) await expect(hidden(page, name)).toHaveValue("");
    await expect(hidden(page, "confirmed")).toHaveValue("no");
    await expect(said(page)).toContainText("This is no longer 12 Harbour Row.");
    await page.getByRole("button", { name: "Look this up" }).click();
    await expect(said(page)).toContainText("Nothing was found.");
    await expect(page.getByLabel("Street and number")).toHaveValue("99 Elsewhere Lane");
    await write(page, "Town", "Sandmouth again");
    // and back
    await page.reload();
    await page.getByLabel("Find your address").click();
    await page.keyboard.type("12 harb");
    await option(page).filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
    await expect(hidden(page, "position")).toHaveValue(position);
    await write(page, "Town", "Sandmouth");
    await expect(hidden(page, "position")).toHaveValue("");
    await page.getByRole("button", { name: "Back to 12 Harbour Row" }).click();
    await expect(page.getByLabel("Town", { exact: true })).toHaveValue("Tidewell");
    await expect(hidden(page, "position")).toHaveValue(position);
    await expect(hidden(page, "confirmed")).toHaveValue("yes");
  },
);

test("a number that does not exist is shown with the one that does, and fills nothing before the person agrees", async ({
  page,
}) => {
  await open(page, "offer-a-house");
  await write(page, "Street", "Harbour Row");
  await write(page, "House", "12b");
  await write(page, "Town", "Tidewell");
  await expect(said(page)).toContainText("“12b” is not known here, but “12” is. Is it this address?");
  await expect(page.getByLabel("House", { exact: true })).toHaveValue("12b");
  await expect(hidden(page, "exactness")).toHaveValue("");
  await said(page)
    .getByRole("button", { name: /12 Harbour Row, Tidewell/ })
    .click();
  await expect(page.getByLabel("House", { exact: true })).toHaveValue("12");
  await expect(hidden(page, "exactness")).toHaveValue("surveyed");
});

test("a press on a place's own marker opens its card, and looks nothing up", async ({ page }) => {
  await open(page, "reading-rooms");
  await page.getByLabel("Find a reading room").click();
  await page.keyboard.type("tidewell branch");
  await option(page).filter({ hasText: "Tidewell Branch Library" }).first().click();
  const map = page.getByRole("application");
  await expect(map).toContainText("There is a marker at Tidewell Branch Library");
  await expect(map).toHaveAttribute("data-complete", "true");
  const ref = await hidden(page, "ref").inputValue();
  const asked: string[] = [];
  page.on("request", (request) => {
    if (/\/v1\/(reverse|forward|records)/.test(request.url())) asked.push(request.url());
  });
  await expect(async () => {
    const box = await map.boundingBox();
    await page.mouse.click((box?.x ?? 0) + (box?.width ?? 0) / 2, (box?.y ?? 0) + (box?.height ?? 0) / 2 - 4);
    await expect(page.getByRole("dialog", { name: "Tidewell Branch Library" })).toBeVisible({ timeout: 2000 });
  }).toPass();
  const card = page.getByRole("dialog", { name: "Tidewell Branch Library" });
  await expect(card.getByRole("link", { name: /^\+990/ })).toHaveAttribute("href", /^tel:\+990/);
  await expect(card).toContainText("Opening hours");
  // the rest is there on request, with a picture of where it stands
  const picture = card.getByRole("img", { name: "Map of Tidewell Branch Library" });
  await expect(picture).toBeHidden();
  await expect(card.getByText("Languages")).toBeHidden();
  await card.getByText("More about this place").focus();
  await page.keyboard.press("Enter");
  await expect(card.getByText("Languages")).toBeVisible();
  await expect.poll(() => picture.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(520);
  const [inner, outer] = [(await card.boundingBox())!, (await map.boundingBox())!];
  expect(inner.y).toBeGreaterThanOrEqual(outer.y);
  expect(inner.y + inner.height).toBeLessThanOrEqual(outer.y + outer.height);
  expect(asked).toEqual([]);
  await expect(hidden(page, "ref")).toHaveValue(ref);
});

test("a position that was pressed has six decimals, which are a decimetre", async ({ page }) => {
  await open(page, "suggest-a-stop");
  await expect(page.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
  await new FormPage(page).pointAt({ lat: -35.18408712345678, lon: -21.62529198765432 });
  await expect(hidden(page, "position")).toHaveValue("-35.184087,-21.625292");
});

test("what is not known of a place leaves no label behind", long(), async ({ page }) => {
  const { definition } = SAMPLE_FORMS.find(({ ref }) => ref === "reading-rooms")!;
  const shown = definition.fields.filter(({ kind }) => kind === "shown");
  await open(page, "reading-rooms");
  const labels = () => page.locator(".bt-field:visible .bt-label, .bt-field:visible label").allTextContents();
  let missing = 0;
  for (const name of ["tidewell branch", "book boat landing", "mill reading room"]) {
    await page.getByLabel("Find a reading room").click();
    await page.getByLabel("Find a reading room").fill("");
    await page.keyboard.type(name);
    await option(page).first().click();
    await expect(hidden(page, "ref")).not.toHaveValue("");
    for (const { name: field, label } of shown) {
      const value = await hidden(page, field).evaluate((one: HTMLOutputElement) => one.value);
      expect((await labels()).includes(label), `${label} of ${name}: “${value}”`).toBe(value !== "");
      if (!value) missing++;
    }
  }
  // without one there would be nothing to see
  expect(missing).toBeGreaterThan(0);
});

test.describe("the country first", () => {
  const look = (page: Page) => page.getByRole("button", { name: "Look up", exact: true });

  test("a lookup that begins again asks only with what was written since", async ({ page }) => {
    await open(page, "books-abroad");
    const asked: URLSearchParams[] = [];
    page.on("request", (request) => {
      const { pathname, searchParams } = new URL(request.url());
      if (pathname === "/v1/forward") asked.push(searchParams);
    });
    await page.getByLabel("Country").selectOption("QV");
    const code = page.locator("[name=postcode]");
    const [first, second] = (await code.getAttribute("placeholder"))?.split(", ") ?? [];
    const town = page.locator("[name=town]");
    await code.fill(first);
    await look(page).click();
    await expect(town).not.toHaveValue("");
    const before = await town.inputValue();
    await code.fill(second);
    await look(page).click();
    await expect(town).not.toHaveValue(before);
    await expect(code).toHaveValue(second);
    const parts = asked.map((words) => [words.get("postcode"), words.get("town"), words.get("region")]);
    expect(parts).toEqual([
      [first, null, null],
      [second, null, null],
    ]);
    // another country takes out what belonged to the one before, and it can be brought back
    await page.getByLabel("Country").focus();
    await page.keyboard.type("Lorramere");
    await page.keyboard.press("Tab");
    await expect(code).toHaveValue("");
    await expect(said(page)).toContainText("The country changed, so this field was cleared.");
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(page.getByLabel("Country")).toHaveValue("QV");
    await expect(code).toHaveValue(second);
  });

  test("a note that comes when a field loses focus does not push the pressed button away", async ({ page }) => {
    await open(page, "books-abroad");
    await page.getByLabel("Country").selectOption("QR");
    await page.locator("[name=postcode]").click();
    await page.keyboard.type("HT010");
    const answered = page.waitForResponse((response) => response.url().includes("/v1/forward"));
    await look(page).click();
    await answered;
    await expect(said(page)).not.toBeEmpty();
  });
});
