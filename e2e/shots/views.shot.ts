import { fileURLToPath } from "node:url";
import { expect, type Page, test } from "@playwright/test";
import { FormPage } from "../../packages/kit/src/playwright/index.ts";
import { PASTED } from "../pasted/forms.ts";
import { members } from "../support/members.ts";
import { standsStill } from "../support/rest.ts";
import { Studio } from "../support/studio.ts";

const folder = fileURLToPath(new URL("../../docs/screenshots/", import.meta.url));
async function take(page: Page, name: string): Promise<void> {
  for (const map of await page.locator("[data-bibliotope=map]:visible").all())
    await expect(map).toHaveAttribute("data-complete", "true");
  await standsStill(page);
  await page.screenshot({ path: `${folder}${name}.png` });
}

/** The sample form, filled from the first suggestion for what is typed. */
async function filled(page: Page, text: string): Promise<Studio> {
  const studio = new Studio(page);
  await studio.rehearse();
  await studio.search.pressSequentially(text, { delay: 70 });
  await expect(studio.list.getByRole("option").first()).toBeVisible();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(studio.field("Town")).not.toHaveValue("");
  await studio.painted();
  return studio;
}

test("rehearse", async ({ page }) => {
  await filled(page, "12 harb");
  await take(page, "rehearse");
});

test("rehearsals", async ({ page }) => {
  await page.goto("/forms/suggest-a-stop/rehearse");
  await page.locator('[data-bibliotope=map][data-complete="true"]').waitFor();
  const panel = page.getByRole("complementary", { name: "Rehearsals" });
  await page.getByRole("button", { name: /^Rehearsals/ }).click();
  const form = new FormPage(page);
  for (const [name, lat, lon] of [
    ["By the green", -35.1797, -21.6239],
    ["At the harbour", -35.1841, -21.6253],
  ] as const) {
    await form.pointAt({ lat, lon });
    await expect(page.locator("[name=height]")).toContainText("m above");
    await panel.getByLabel(/Save the steps and current values/).fill(name);
    await panel.getByRole("button", { name: "Save", exact: true }).click();
    await expect(panel.getByRole("button", { name, exact: true })).toBeVisible();
    await page.getByRole("button", { name: "Start over" }).click();
  }
  await panel.getByRole("button", { name: "Run all" }).click();
  await expect(panel.getByText("all 2 passed")).toBeVisible();
  await panel.getByRole("button", { name: "At the harbour", exact: true }).click();
  await take(page, "rehearsals");
});

test("take-away", async ({ page }) => {
  await page.goto("/forms/become-a-reader/take-away");
  await expect(page.getByRole("region", { name: "Code" })).toContainText("renderForm");
  await take(page, "take-away");
});

test("keys", async ({ page }) => {
  await page.goto("/keys");
  await expect(page.getByRole("rowheader", { name: "Demo, servers" })).toBeVisible();
  await expect(page.getByRole("img", { name: /^Lookups over time/ })).toBeVisible();
  await take(page, "keys");
});

test("kit", async ({ page }) => {
  await page.goto("/pieces/search");
  await page.getByRole("combobox", { name: "Find your address" }).click();
  await page.keyboard.type("harbour ro");
  await expect(page.locator("[data-bibliotope=suggestions]").getByRole("option").first()).toContainText("Harbour Row");
  await take(page, "kit");
});

test("linked", async ({ page }) => {
  await page.goto("/f/lend-to-a-branch");
  for (const [label, text] of [
    ["From", "mill reading room tidewell"],
    ["To", "thrift reading room tidewell"],
  ]) {
    await page.getByRole("combobox", { name: label, exact: true }).click();
    await page.keyboard.type(text);
    const list = page.getByRole("listbox", { name: "Suggestions" });
    await list.getByRole("option").filter({ hasText: "Reading Room" }).first().click();
  }
  await expect(page.getByLabel("Straight-line distance")).toContainText("km");
  await take(page, "linked");
});

test("suggestions", async ({ page }) => {
  const studio = new Studio(page);
  await studio.rehearse();
  await studio.search.pressSequentially("12 harbor st tidew", { delay: 60 });
  await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Street, Tidewell");
  await page.keyboard.press("ArrowDown");
  await studio.painted();
  await take(page, "suggestions");
});

test("night", async ({ page }) => {
  await page.emulateMedia({ colorScheme: "dark" });
  await filled(page, "τετραγωνο 7 4 πελανια");
  await take(page, "night");
});

test("compose", async ({ page }) => {
  const studio = new Studio(page);
  await studio.compose("become-a-reader");
  await page.getByRole("button", { name: "Show Postcode" }).click();
  await expect(page.getByRole("table")).toContainText("HT");
  await take(page, "compose");
});

test("services", async ({ page }) => {
  await page.goto("/services/register");
  await page.getByRole("button", { name: "Try it with these values" }).click();
  await page.getByRole("treeitem").filter({ hasText: "@number" }).click();
  await expect(page.getByRole("button", { name: "Use in forms" })).toBeVisible();
  await page.getByRole("heading", { name: "Request" }).scrollIntoViewIfNeeded();
  await take(page, "services");
});

test("form page", async ({ page }) => {
  await page.goto("/f/become-a-reader");
  const studio = new Studio(page);
  await studio.search.click();
  await studio.search.pressSequentially("ostergrand 3 vårhamn", { delay: 30 });
  await expect(studio.list.getByRole("option").first()).toContainText("Østergränd 3");
  await page.keyboard.press("Enter");
  await expect(studio.field("Town")).toHaveValue("Vårhamn");
  await studio.painted();
  await take(page, "form-page");
});

test("lookups", async ({ page }) => {
  await page.goto("/lookups/forward?q=12b+the+harbor+rw+tidewel+HT9+29&gloss=1&countries=QR&limit=5");
  await expect(page.getByRole("application")).toHaveAttribute("data-complete", "true");
  await page.getByRole("treeitem", { name: /outcome/ }).click();
  await page.getByRole("list", { name: "Candidates" }).locator("> li").first().hover();
  await take(page, "lookups");
});

test("nothing found", async ({ page }) => {
  await page.goto("/lookups/forward?q=14b+Vuxxel+Street,+Qworthamm&gloss=1");
  await expect(page.getByRole("application")).toHaveAttribute("data-complete", "true");
  await take(page, "nothing-found");
});

test("paste", async ({ page }) => {
  await page.goto("/forms/offer-a-house/compose");
  await page.getByRole("button", { name: "Paste a form" }).click();
  await page.getByLabel(/HTML of a page/).fill(PASTED.find(({ name }) => name.includes("labels in a table"))!.html);
  await expect(page.getByText(/\d fields, \d bound/)).toBeVisible();
  await take(page, "paste");
});

test("live data", async ({ page }) => {
  await page.goto("/data");
  const live = page.getByRole("region", { name: "Live now" });
  await expect(live.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
  await take(page, "live");
});

test("forms", async ({ page }) => {
  await page.goto("/forms");
  await expect(page.getByRole("link", { name: /^Become a reader/ })).toBeVisible();
  await take(page, "forms");
});

test("data", async ({ page }) => {
  // odd in the ways in which files are: no position, one of a house number's, one far off, a name written twice
  const houses = members(4000).flatMap((line, i) => {
    const [, address, town, postcode] = line.split(",");
    const [house, ...street] = address.split(" ");
    if (!/^\d/.test(house) || line.includes('"')) return [];
    const at = [-35.18 - (i % 60) / 4000, i % 97 ? -21.62 - (i % 40) / 4000 : i % 2 ? "" : 0];
    const name = i % 61 ? street.join(" ") : street.join(" ").toUpperCase();
    return [
      [name, house, postcode && i % 43 ? postcode : "HT", town || "Tidewell", "QR", i % 97 ? at[0] : 0, at[1]].join(
        ",",
      ),
    ];
  });
  const buffer = Buffer.from(`street,house,postcode,town,country,lat,lon\n${houses.join("\n")}\n`);
  await page.goto("/data/import");
  await page
    .getByLabel("File", { exact: true })
    .setInputFiles({ name: "county-register.csv", mimeType: "text/csv", buffer });
  await page.getByLabel("Data set").fill("County register");
  await page.getByLabel("Licence").fill("CC-BY-4.0");
  await page.getByRole("button", { name: "Import as a draft" }).click();
  const set = page.getByRole("region", { name: "County register" });
  await set.getByRole("link", { name: "1" }).click();
  await page.getByRole("button", { name: /Postcode format/ }).click();
  await take(page, "data");
});

test("batches", async ({ page }) => {
  const buffer = Buffer.from(`member,address,town,postcode\n${members(3000).join("\n")}\n`);
  await page.goto("/batches/new");
  await page
    .getByLabel("File", { exact: true })
    .setInputFiles({ name: "members-autumn.csv", mimeType: "text/csv", buffer });
  await page.getByRole("button", { name: "Look up all rows" }).click();
  await expect(page.getByText("looked up in")).toBeVisible();
  const rows = page.getByRole("region", { name: "Rows", exact: true });
  await rows
    .getByRole("button", { name: /0\.5\d$/ })
    .first()
    .click();
  await take(page, "batches");
});

test("relief", async ({ page }) => {
  await page.goto("/lookups/forward?q=12+harbour+street+tidewell&gloss=1");
  await expect(page.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
  await page.getByRole("button", { name: "Show relief" }).click();
  const relief = page.locator(".bt-relief");
  await expect(relief).toHaveAttribute("data-complete", "true");
  for (let i = 0; i < 7; i++) await page.keyboard.press("ArrowUp");
  for (let i = 0; i < 3; i++) await page.keyboard.press("ArrowRight");
  await take(page, "relief");
});
