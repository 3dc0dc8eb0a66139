import { expect, type Page, test } from "@playwright/test";
import { type FormUse, usesOf } from "../packages/core/src/form/index.ts";
import { toScreen } from "../packages/core/src/map/index.ts";
import { SAMPLE_FORMS } from "../packages/islands/src/forms/index.ts";
import { CALLS, type Call } from "../packages/wire/src/index.ts";
import { axeFindings } from "./support/axe.ts";
import { long } from "./support/long.ts";
import { askedBy, pass } from "./support/rest.ts";

const MAP = "[data-bibliotope=map]";
/** Requests of lookups since the page came. */
const lookupsOf = (page: Page) => {
  const asked: string[] = [];
  page.on("request", (request) => {
    const { pathname, searchParams } = new URL(request.url());
    if (/^\/v1\/(suggest|forward|reverse|records)/.test(pathname)) {
      searchParams.delete("access_token");
      asked.push(`${pathname.slice(4)} ${searchParams}`);
    }
  });
  return asked;
};
/** What was requested of the wire by forms since the test began, by form. */
const askedOf = new Map<string, Set<string>>();
test.beforeEach(({ page }) => {
  askedOf.clear();
  page.on("request", (request) => {
    const { pathname } = new URL(request.url());
    const call = (Object.values(CALLS) as Call[]).find(({ path }) =>
      new RegExp(`^${path.replace(/\{\w+\}/g, "[^/]+")}$`).test(pathname),
    );
    const ref = /\/f\/([\w-]+)/.exec(page.url())?.[1];
    if (!ref || !call || call.key.always) return;
    askedOf.set(ref, (askedOf.get(ref) ?? new Set()).add(call.key.as));
  });
});
// whatever a test does with a form: a key of just what its definition says it uses would have been enough
test.afterEach(() => {
  for (const [ref, asked] of askedOf) {
    const { definition } = SAMPLE_FORMS.find((form) => form.ref === ref)!;
    // the page asks for the form itself
    expect(
      [...asked].filter((one) => one !== "forms" && !usesOf(definition).includes(one as FormUse)),
      ref,
    ).toEqual([]);
  }
});
const open = async (page: Page, ref: string) => {
  await page.goto(`/f/${ref}`);
  await expect(page.locator("[data-bibliotope=form]")).toBeVisible();
};
const type = async (page: Page, label: string, text: string) => {
  await page.getByLabel(label, { exact: true }).click();
  await page.keyboard.type(text);
  await page.keyboard.press("Tab");
};

test.describe("Offer a house for an evening", () => {
  test("is looked up when house, street and town are complete, and again when one of them changes", async ({
    page,
  }) => {
    const asked = lookupsOf(page);
    await open(page, "offer-a-house");
    await type(page, "Street", "harbor row");
    await type(page, "House", "12");
    expect(asked).toEqual([]);
    await type(page, "Town", "tidewell");
    await expect(page.getByLabel("Postcode")).toHaveValue("HT0 10");
    await expect(page.getByLabel("Street", { exact: true })).toHaveValue("Harbour Row");
    await expect(page.locator("[name=exactness]")).toHaveValue("surveyed");
    await expect(page.locator("[name=confirmed]")).toHaveValue("yes");
    await expect(page.locator(MAP)).toContainText("There is a marker at 12 Harbour Row.");
    expect(asked).toHaveLength(1);
    // leaving a field unchanged asks nothing
    await page.getByLabel("House").focus();
    await page.keyboard.press("Tab");
    await page.getByLabel("Chairs").fill("30");
    await page.getByLabel("Chairs").blur();
    expect(asked).toHaveLength(1);
    await page.getByLabel("House").fill("14");
    await page.getByLabel("House").blur();
    await expect(page.locator(MAP)).toContainText("There is a marker at 14 Harbour Row.");
    expect(asked).toHaveLength(2);
  });

  test("with nothing found nothing is filled, and what was typed can be used", async ({ page }) => {
    await open(page, "offer-a-house");
    await type(page, "House", "7");
    await type(page, "Street", "Zyxwvut");
    await type(page, "Town", "Quuxby");
    await expect(page.getByText("We could not find that house.")).toBeVisible();
    await expect(page.getByLabel("Postcode")).toHaveValue("");
    await page.getByRole("button", { name: "Use what I typed" }).click();
    await expect(page.locator("[name=confirmed]")).toHaveValue("no");
    await expect(page.getByLabel("Street", { exact: true })).toHaveValue("Zyxwvut");
    await expect(page.getByText("We could not find that house.")).toBeHidden();
  });

  test("clearing one of the fields that start it clears what they filled, and no more", async ({ page }) => {
    await open(page, "offer-a-house");
    await type(page, "Street", "Harbour Row");
    await type(page, "House", "12");
    await type(page, "Town", "Tidewell");
    await expect(page.getByLabel("Postcode")).toHaveValue("HT0 10");
    await page.getByLabel("Flat").fill("Flat 9");
    await page.getByLabel("House").fill("");
    await expect(page.getByLabel("Postcode")).toHaveValue("");
    await expect(page.locator("[name=position]")).toHaveValue("");
    await expect(page.getByLabel("Flat")).toHaveValue("Flat 9");
    await expect(page.getByLabel("Town", { exact: true })).toHaveValue("Tidewell");
  });

  test("what scripts, a reset and the browser do starts nothing", async ({ page }) => {
    const asked = lookupsOf(page);
    await page.clock.install();
    await open(page, "offer-a-house");
    await page.evaluate(() => {
      for (const [name, value] of Object.entries({ house: "12", street: "Harbour Row", town: "Tidewell" })) {
        const input = document.querySelector<HTMLInputElement>(`[name=${name}]`)!;
        input.value = value;
        input.dispatchEvent(new Event("input", { bubbles: true }));
        input.dispatchEvent(new Event("change", { bubbles: true }));
      }
    });
    await page.evaluate(() => document.querySelector("form")!.reset());
    await pass(page, 3000);
    expect(asked).toEqual([]);
    await expect(page.getByLabel("House")).toHaveValue("");
    await expect(page.locator("[data-bt]")).toHaveCount(0);
  });
});

test.describe("Books abroad", () => {
  test("asks for the country first, which decides labels, order and the postcode's shape", async ({ page }) => {
    await open(page, "books-abroad");
    await expect(page.getByLabel("Street")).toBeHidden();
    const order = () =>
      page
        .locator(".bt-field:visible input:not([type=hidden])")
        .evaluateAll((inputs) => inputs.map((input) => (input as HTMLInputElement).name));
    await page.getByLabel("Country").selectOption("QR");
    await expect(page.getByLabel("Street")).toBeVisible();
    expect(await order()).toEqual(["person", "building", "house", "street", "town", "postcode"]);
    const examples = await page.getByLabel("Postcode").getAttribute("placeholder");
    expect(examples).toMatch(/^[A-Z]{2}\d \d\d, [A-Z]{2}\d \d\d$/);
    await type(page, "Postcode", "1234");
    await expect(page.getByText(`Postcode looks like ${examples}.`)).toBeVisible();
    await page.getByLabel("Country").selectOption("QY");
    await expect(page.getByLabel("House")).toBeHidden();
    expect((await order()).slice(0, 2)).toEqual(["person", "region"]);
  });

  test("its button waits until there is something to ask, and looks it up in that country only", async ({ page }) => {
    const asked = lookupsOf(page);
    await open(page, "books-abroad");
    const button = page.getByRole("button", { name: "Look up" });
    await expect(button).toBeDisabled();
    await page.getByLabel("Country").selectOption("QR");
    await type(page, "House number", "12");
    await type(page, "Street", "Harbour Row");
    await type(page, "Town", "Tidewell");
    await expect(button).toBeEnabled();
    expect(asked).toEqual([]);
    await button.click();
    await expect(page.getByLabel("On the envelope")).toHaveText(/^12 Harbour Row[\s\S]*Tidewell/);
    expect(asked).toHaveLength(1);
    expect(asked[0]).toContain("countries=QR");
    // another country: what was found in the first one goes
    await page.getByLabel("Country").focus();
    await page.keyboard.type("Ovarde");
    await page.keyboard.press("Tab");
    await expect(page.getByLabel("On the envelope")).toHaveText("");
    await expect(page.getByLabel("Country")).toHaveValue("QV");
  });

  test("postcodes of the country are offered while one is typed, and none once it is whole", async ({ page }) => {
    await open(page, "books-abroad");
    await page.getByLabel("Country").focus();
    await page.keyboard.type("Ovarde");
    await page.keyboard.press("Tab");
    const box = page.locator("[name=postcode]");
    await box.click();
    await page.keyboard.type("200");
    const lines = page.getByRole("listbox", { name: "Suggestions" }).getByRole("option");
    await expect(lines).toHaveText([/2000/, /2001/, /2002/, /2003/]);
    await expect(lines.first()).toContainText("Vårhamn, Ovarde");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
    await expect(box).toHaveValue("2001");
    await expect(lines).toHaveCount(0);
    // typed whole, or not known: nothing is in the way of the button
    for (const code of ["2000", "9999"]) {
      await box.fill("");
      const answered = page.waitForResponse((response) => askedBy(response.url()) === code);
      await page.keyboard.type(code);
      await answered;
      await expect(box).toHaveAttribute("aria-busy", "false");
      await expect(lines).toHaveCount(0);
    }
    await expect(page.getByText("Nothing found")).toHaveCount(0);
    await box.fill("2000");
    await page.getByRole("button", { name: "Look up" }).click();
    await expect(page.getByLabel("On the envelope")).toHaveText(/Vårhamn/i);
  });

  test("of several that fit the person chooses, by keyboard too", async ({ page }) => {
    await open(page, "books-abroad");
    await page.getByLabel("Country").selectOption("QR");
    await type(page, "Street", "Mill Lane");
    await page.getByRole("button", { name: "Look up" }).click();
    const choices = page.locator("[data-bibliotope=match]");
    await expect(page.getByText(/\d addresses match\. Which one is it\?/)).toBeVisible();
    expect(await choices.count()).toBeGreaterThan(1);
    // what sets them apart is marked: the town, not the street
    const marks = await choices.first().locator("mark").allTextContents();
    expect(marks.length).toBeGreaterThan(0);
    expect(marks).not.toContain("Mill Lane");
    await expect(page.getByLabel("Town", { exact: true })).toHaveValue("");
    await choices.first().focus();
    await page.keyboard.press("ArrowDown");
    await expect(choices.nth(1)).toBeFocused();
    const line = await choices.nth(1).locator(":scope > :last-child").textContent();
    await page.keyboard.press("Enter");
    await expect(page.getByLabel("Town", { exact: true })).not.toHaveValue("");
    expect(line).toContain(await page.getByLabel("Town", { exact: true }).inputValue());
    await expect(choices).toHaveCount(0);
  });
});

test("Lend to another branch: two linked searches, the line and the distance", async ({ page }) => {
  await open(page, "lend-to-a-branch");
  const choose = async (label: string, text: string) => {
    const box = page.getByRole("combobox", { name: label, exact: true });
    await box.click();
    await page.keyboard.type(text);
    const list = page.locator("[data-bibliotope=search]").filter({ has: box }).getByRole("option").first();
    await expect(list).toBeVisible();
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
  };
  await choose("From", "reading room tidewell");
  await expect(page.locator("[name=from-position]")).not.toHaveValue("");
  await expect(page.locator("[name=to-position]")).toHaveValue("");
  const from = await page.locator("[name=from-position]").inputValue();
  await choose("To", "reading room sandmouth");
  await expect(page.locator("[name=to-position]")).not.toHaveValue("");
  // the other end stays as it was
  await expect(page.locator("[name=from-position]")).toHaveValue(from);
  await expect(page.locator(MAP)).toContainText(/There is a marker at .+ Reading Room, .+ Reading Room\./);
  await page.getByRole("combobox", { name: "To", exact: true }).fill("");
  await expect(page.locator("[name=to-position]")).toHaveValue("");
  await expect(page.locator("[name=from-position]")).toHaveValue(from);
});

test("Suggest a stop for the van: a press on the map, what lies beside it and how high", long(), async ({ page }) => {
  await open(page, "suggest-a-stop");
  const map = page.locator(MAP);
  await expect(map).toHaveAttribute("data-complete", "true");
  // what lies under the pointer stays there while the wheel brings it nearer
  const house = { lat: -35.173987, lon: -21.630896 };
  const box = (await map.boundingBox())!;
  const spot = async (at: { lat: number; lon: number }) => {
    const [lat, lon, zoom] = (await map.getAttribute("data-view"))!.split(",").map(Number);
    const { x, y } = toScreen({ at: { lat, lon }, zoom }, box, at);
    return { x: box.x + x, y: box.y + y, zoom };
  };
  for (let i = 0; i < 60 && (await spot(house)).zoom < 16; i++) {
    const { x, y } = await spot(house);
    await page.mouse.move(x, y);
    const before = await map.getAttribute("data-view");
    await page.mouse.wheel(0, -300);
    await expect(map).not.toHaveAttribute("data-view", before!);
  }
  const there = await spot(house);
  await page.mouse.click(there.x, there.y);
  await expect(page.getByLabel("Address", { exact: true })).toHaveText(/Tidewell/);
  await expect(page.getByLabel("Height")).toHaveText(/^\d+ m above the sea$/);
  await expect(page.getByLabel("Position")).toHaveValue(/^-35\.17\d+,-21\.63\d+$/);
  await expect(page.getByLabel("Nearest reading room")).toHaveText(/ Reading Room, \d+ m away$/);
  // out at sea too: the position is what counts
  const before = await page.getByLabel("Position").inputValue();
  await page.mouse.click(box.x + 60, box.y + 300);
  await expect(page.getByLabel("Position")).not.toHaveValue(before);
  await expect(page.getByLabel("Position")).toHaveValue(/^-35\.1\d+,-21\.6\d+$/);
});

test("Reading rooms near you: a card with picture and hours", async ({ page }) => {
  await open(page, "reading-rooms");
  const box = page.getByRole("combobox", { name: "Find a reading room" });
  await box.click();
  await page.keyboard.type("reading room tidewell");
  await expect(page.getByRole("option").first()).toBeVisible();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Open")).toHaveText(/Monday–Friday \d\d:\d\d–\d\d:\d\d/);
  const picture = page.getByRole("img", { name: /^Map of / });
  await expect.poll(() => picture.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(300);
});

for (const ref of ["suggest-a-stop", "lend-to-a-branch", "reading-rooms", "offer-a-house", "books-abroad"])
  test(`${ref} is accessible`, long(ref !== "suggest-a-stop"), async ({ page }) => {
    await open(page, ref);
    const violations = await axeFindings(page);
    expect(violations).toEqual([]);
  });
