import { expect, type Locator, type Page } from "@playwright/test";
import { PNG } from "pngjs";
import { axeFindings } from "./support/axe.ts";
import { pictureOf, test } from "./support/kit-page.ts";
import { long } from "./support/long.ts";
import { Studio } from "./support/studio.ts";

const MARKERS = [
  {
    at: { lat: -35.174, lon: -21.6255 },
    label: "12 Harbour Row",
    card: { title: "12 Harbour Row, Tidewell", facts: [["Address", "12 Harbour Row, Tidewell"] as [string, string]] },
  },
];

/** Pixels from the left at which the first letter of a text is, within an element. */
function leftOf(element: Locator, text: string): Promise<number> {
  return element.evaluate((root, wanted) => {
    const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT);
    const letters: [Node, number][] = [];
    let whole = "";
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const words = node.textContent ?? "";
      for (let i = 0; i < words.length; i++) letters.push([node, i]);
      whole += words;
    }
    const [node, at] = letters[whole.indexOf(wanted)];
    const range = document.createRange();
    range.setStart(node, at);
    range.setEnd(node, at + 1);
    return range.getBoundingClientRect().left;
  }, text);
}

/** A form's own page, in a document that is written from right to left. */
async function fromRight(page: Page): Promise<Studio> {
  await page.route("**/f/become-a-reader", async (route) => {
    const response = await route.fetch();
    const html = (await response.text()).replace('<html lang="en">', '<html lang="ar" dir="rtl">');
    await route.fulfill({ response, body: html });
  });
  await page.goto("/f/become-a-reader");
  return new Studio(page);
}

test.describe("from right to left", () => {
  test(
    "an address reads as it is written, in the list, in the fields and in the words about it",
    long(),
    async ({ page }) => {
      const studio = await fromRight(page);
      await studio.search.pressSequentially("12 harb");
      const option = page.getByRole("option").filter({ hasText: "12 Harbour Row" }).first();
      await expect(option).toBeVisible();
      // the list as it stays
      await expect(studio.search).toHaveAttribute("aria-busy", "false");
      expect(await leftOf(option, "12")).toBeLessThan(await leftOf(option, "Harbour"));
      // what is beside it stands at the end of the row, as the page has it
      expect(await leftOf(option, "12")).toBeGreaterThan(await leftOf(option.locator(".bt-beside"), "Lorramere"));
      await option.click();
      const street = page.locator("[data-bt=filled]").first();
      await expect(street).toHaveValue("12 Harbour Row");
      expect(
        await street.evaluate((field) => {
          const { unicodeBidi, borderLeftWidth, borderRightWidth } = getComputedStyle(field);
          return { unicodeBidi, borderLeftWidth, borderRightWidth };
        }),
      ).toEqual({ unicodeBidi: "plaintext", borderLeftWidth: "1px", borderRightWidth: "4px" });
      expect(await axeFindings(page)).toEqual([]);
    },
  );

  test("the numbers of a street are reached by the arrow that points to them", async ({ page }) => {
    const studio = await fromRight(page);
    await studio.search.pressSequentially("harbour row tidewell");
    const street = page.getByRole("option").first();
    await expect(street).toContainText("›");
    await expect(studio.search).toHaveAttribute("aria-busy", "false");
    await page.keyboard.press("ArrowDown");
    await expect(street).toHaveAttribute("aria-selected", "true");
    await page.keyboard.press("ArrowLeft");
    await expect(studio.search).toHaveValue(/^ Harbour Row/);
  });

  test("a map is painted as it is from left to right, and its card reads as it is written", async ({ kit, page }) => {
    const options = { view: { at: MARKERS[0].at, zoom: 16 } };
    await kit.make(options, MARKERS);
    const before = await pictureOf(kit.map);
    await page.evaluate(() => {
      document.documentElement.dir = "rtl";
    });
    await kit.make(options, MARKERS);
    expect((await pictureOf(kit.map)).data.equals(before.data)).toBe(true);
    await kit.map.focus();
    await page.keyboard.press("Tab");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
    const card = page.getByRole("dialog", { name: "12 Harbour Row, Tidewell" });
    for (const part of [card.getByRole("heading"), card.locator("dd").first()])
      expect(await leftOf(part, "12")).toBeLessThan(await leftOf(part, "Tidewell"));
    // the button that closes it stands where a line ends
    const [close, title] = await Promise.all([card.locator(".bt-close").boundingBox(), card.boundingBox()]);
    expect(close!.x - title!.x).toBeLessThan(20);
  });
});

test.describe("with colours that the system sets", () => {
  test.use({ colorScheme: "dark", contextOptions: { forcedColors: "active" } });

  test("what is active can be told from what is not, and a button from words", async ({ page }) => {
    await page.goto("/f/become-a-reader");
    const studio = new Studio(page);
    await studio.search.pressSequentially("12 harb");
    await expect(studio.list.getByRole("option").first()).toBeVisible();
    await page.keyboard.press("ArrowDown");
    const outlines = () =>
      studio.list
        .getByRole("option")
        .evaluateAll((options) => options.map((one) => getComputedStyle(one).outlineStyle));
    // a later answer may put other options in their place
    await expect.poll(async () => (await outlines()).slice(0, 2)).toEqual(["solid", "none"]);
    await page.keyboard.press("Enter");
    const send = page.getByRole("button", { name: "Send" });
    expect(await send.evaluate((button) => getComputedStyle(button).borderTopWidth)).toBe("1px");
    expect(await send.evaluate((button) => getComputedStyle(button).borderTopStyle)).toBe("solid");
  });

  test("letters that were typed are seen in the list, in the workbench too", async ({ page }) => {
    const studio = new Studio(page);
    await studio.rehearse();
    await studio.search.pressSequentially("12 harb");
    await expect(studio.list.getByRole("option").nth(1)).toContainText("12 Harbour Street");
    await expect(studio.search).toHaveAttribute("aria-busy", "false");
    // above their underline there is more than the ground; a line may be made anew while it is looked at
    const typed = studio.list.getByRole("option").nth(1).locator("mark").last();
    let picture: Buffer = Buffer.alloc(0);
    await expect(async () => {
      picture = await typed.screenshot({ timeout: 2000 });
    }).toPass();
    const { width, height, data } = PNG.sync.read(picture);
    const above = data.subarray(0, 4 * width * Math.floor(height * 0.6));
    const brightness = Array.from({ length: above.length / 4 }, (_, i) => above[4 * i + 1]);
    expect(Math.max(...brightness) - Math.min(...brightness)).toBeGreaterThan(150);
  });

  test("the workbench shows which view and which choice is the current one", async ({ page }) => {
    await new Studio(page).rehearse();
    const groundOf = (element: Locator) => element.evaluate((one) => getComputedStyle(one).backgroundColor);
    const views = page.getByRole("navigation", { name: "Views of this form" });
    expect(await groundOf(views.getByRole("link", { name: "Rehearse" }))).not.toBe(
      await groundOf(views.getByRole("link", { name: "Compose" })),
    );
    expect(await groundOf(page.getByRole("button", { name: "Desk" }))).not.toBe(
      await groundOf(page.getByRole("button", { name: "Tablet" })),
    );
    const main = page.getByRole("navigation", { name: "Main" });
    expect(await groundOf(main.getByRole("link", { name: "Forms" }))).not.toBe(
      await groundOf(main.getByRole("link", { name: "Data" })),
    );
  });
});
