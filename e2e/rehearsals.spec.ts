import { execFile } from "node:child_process";
import { mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { HEADLESS } from "../bench/browser.ts";
import { axeFindings } from "./support/axe.ts";
import { ready, testHome } from "./support/house.ts";
import { long } from "./support/long.ts";
import { changeForm, makeForm, publish } from "./support/studio.ts";

const panel = (page: Page) => page.getByRole("complementary", { name: "Rehearsals" });
const state = (page: Page, name: string, words: string) =>
  expect(panel(page).getByRole("listitem").filter({ hasText: name }).getByText(words, { exact: true })).toBeVisible();

async function keepAs(page: Page, name: string): Promise<void> {
  await panel(page).getByLabel("Save the steps and current values as").fill(name);
  await panel(page).getByRole("button", { name: "Save", exact: true }).click();
  await expect(panel(page).getByRole("button", { name, exact: true })).toBeVisible();
}

/** Goes through a form by hand, and keeps the steps. */
async function rehearse(page: Page, ref: string): Promise<void> {
  await page.goto(`/forms/${ref}/rehearse`);
  await page.getByRole("button", { name: "Rehearsals" }).click();
  await expect(panel(page)).toContainText("Your steps appear here");
  await page.getByLabel("Find your address").click();
  await page.keyboard.type("12 harb");
  await page.getByRole("option").filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
  await expect(page.getByLabel("Town", { exact: true })).toHaveValue("Tidewell");
  await page.getByLabel("Note", { exact: true }).click();
  await page.keyboard.type("ring twice");
  await page.keyboard.press("Tab");
  for (const words of ["Type “12 harb” into Find your address", "Type “ring twice” into Note", "Leave Note"])
    await expect(panel(page)).toContainText(words);
  await keepAs(page, "A reader in Tidewell");
}

/** Runs a test file as a developer would. @returns whether it passed, and what it said */
function runPlaywright(folder: string): Promise<{ passed: boolean; said: string }> {
  const program = join(import.meta.dirname, "../node_modules/.bin/playwright");
  const env = { ...process.env, BIBLIOTOPE_TRY_KEY: ready().keys.try, FORCE_COLOR: "0", CI: "" };
  return new Promise((resolve) =>
    execFile(program, ["test", "--config", folder], { env, timeout: 120_000 }, (error, stdout, stderr) =>
      resolve({ passed: error === null, said: `${stdout}${stderr}` }),
    ),
  );
}

test(
  "a person's steps are kept, run again, and run as a Playwright test until a binding breaks",
  long(),
  async ({ page }) => {
    const ref = await makeForm(page, "Rehearsed and taken away");
    await publish(page, ref);
    await rehearse(page, ref);

    await panel(page).getByRole("button", { name: "Run all" }).click();
    await state(page, "A reader in Tidewell", "passed");
    await expect(panel(page).getByText("all 1 passed")).toBeVisible();
    const kept = await (await page.request.get(`/api/forms/${ref}/rehearsals`)).json();
    expect(kept.rehearsals).toMatchObject([{ states: { "": "chosen" } }]);
    await expect(page.getByLabel("Note", { exact: true })).toHaveValue("ring twice");

    const folder = join(testHome(), "taken-away", ref);
    mkdirSync(folder, { recursive: true });
    const download = page.waitForEvent("download");
    await panel(page).getByRole("button", { name: "Save as a Playwright test" }).click();
    const file = await download;
    expect(file.suggestedFilename()).toBe(`${ref}.spec.ts`);
    await file.saveAs(join(folder, file.suggestedFilename()));
    // which browser to use is all that a developer's own settings say
    const settings = { testDir: folder, timeout: 60_000, reporter: "line", use: { launchOptions: HEADLESS } };
    writeFileSync(join(folder, "playwright.config.mjs"), `export default ${JSON.stringify(settings)};`);
    const green = await runPlaywright(folder);
    expect(green.said).toContain("1 passed");
    expect(green.passed).toBe(true);

    await changeForm(page, ref, (definition) => {
      definition.fields.find(({ name }: { name: string }) => name === "town").binding = "{postcode}";
    });
    await publish(page, ref);
    const red = await runPlaywright(folder);
    expect(red.passed).toBe(false);
    expect(red.said).toMatch(/Expected:\s+"Tidewell"/);

    await page.goto(`/forms/${ref}/rehearse`);
    await page.getByRole("button", { name: "Rehearsals (1)" }).click();
    await panel(page).getByRole("button", { name: "Run A reader in Tidewell" }).click();
    await state(page, "A reader in Tidewell", "changed");
    await expect(panel(page).getByRole("row", { name: /Town Tidewell/ })).toBeVisible();
    const violations = await axeFindings(page);
    expect(violations).toEqual([]);
    const listed = page.waitForResponse(
      (response) => response.url().endsWith("/rehearsals") && response.request().method() === "GET",
    );
    await panel(page).getByRole("button", { name: "Accept the new values" }).click();
    await listed;
    await panel(page).getByRole("button", { name: "Run all" }).click();
    await state(page, "A reader in Tidewell", "passed");
  },
);

test("a step that cannot be done is named; runs are stopped, dropped and brought back", long(), async ({ page }) => {
  const ref = await makeForm(page, "Rehearsed otherwise");
  await rehearse(page, ref);
  await changeForm(page, ref, (definition) => {
    definition.addresses = [{ name: "", countries: ["TH"] }];
  });
  await page.goto(`/forms/${ref}/rehearse`);
  await page.getByRole("button", { name: "Rehearsals (1)" }).click();
  await panel(page).getByRole("button", { name: "Run all" }).click();
  await expect(panel(page).getByText(/^step 2 of \d$/)).toBeVisible();
  await state(page, "A reader in Tidewell", "changed");
  await expect(panel(page)).toContainText(
    "Step 2 could not be done: “12 Harbour Row, Tidewell” did not appear in the list.",
  );
  await panel(page).getByRole("button", { name: "Run all" }).click();
  await panel(page).getByRole("button", { name: "Stop" }).click();
  await expect(panel(page).getByRole("button", { name: "Run all" })).toBeVisible();
  await panel(page).getByRole("button", { name: "A reader in Tidewell", exact: true }).click();
  await panel(page).getByRole("button", { name: "Delete A reader in Tidewell" }).click();
  await expect(panel(page).getByText("“A reader in Tidewell” was deleted.")).toBeVisible();
  await panel(page).getByRole("button", { name: "Undo" }).click();
  await expect(panel(page).getByRole("button", { name: "A reader in Tidewell", exact: true })).toBeVisible();
});

test("choosing among several, the map and a played situation are rehearsed too", long(), async ({ page }) => {
  await page.goto("/forms/offer-a-house/rehearse");
  await page.getByRole("button", { name: /^Rehearsals/ }).click();
  await page.getByLabel("Situation").selectOption({ label: "several match" });
  for (const [label, text] of [
    ["Street", "Harbour Row"],
    ["House", "12"],
    ["Town", "Tidewell"],
  ]) {
    await page.getByLabel(label, { exact: true }).click();
    await page.keyboard.type(text);
    await page.keyboard.press("Tab");
  }
  await page.locator("[data-bibliotope=match]").nth(1).click();
  await expect(panel(page)).toContainText(/Choose “.+” from the matches/);
  await page.locator("[data-bibliotope=map]").click({ position: { x: 120, y: 160 } });
  await expect(panel(page)).toContainText(/Click -\d/);
  await expect(page.locator("[data-bibliotope=form] [name=plot]")).toHaveValue(/^\d-\d+$/);
  await keepAs(page, "Several");
  await panel(page).getByRole("button", { name: "Run Several" }).click();
  await state(page, "Several", "passed");
  await page.getByRole("button", { name: "Start over" }).click();
  await expect(page.getByLabel("Town", { exact: true })).toHaveValue("");
});

test("what happened is kept with the form, with the rule that wrote each value", long(), async ({ page }) => {
  const ref = await makeForm(page, "Traced");
  await rehearse(page, ref);
  await panel(page).getByRole("button", { name: "Run all" }).click();
  await state(page, "A reader in Tidewell", "passed");
  const trace = page.getByRole("region", { name: "Timeline" });
  await page.reload();
  const runs = trace.getByLabel("Run");
  await expect(runs.getByRole("option")).toHaveText(["now", /^A reader in Tidewell, /, /^by hand, /]);
  await runs.selectOption({ index: 1 });
  await expect(trace).toContainText("7 keys");
  await trace.getByRole("listbox", { name: "fields" }).getByRole("option").first().click();
  const opened = page.getByRole("dialog", { name: "Chosen from the list: 12 Harbour Row, Tidewell" });
  await expect(opened.getByRole("row", { name: "Town Tidewell {town}" })).toBeVisible();
  await expect(opened.getByRole("row", { name: "Street and number 12 Harbour Row address-line1" })).toBeVisible();
  const violations = await axeFindings(page);
  expect(violations).toEqual([]);
});
