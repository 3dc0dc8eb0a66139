import { expect, test } from "@playwright/test";
import { makeForm, Studio } from "./support/studio.ts";

test("a part is bound by dragging it to a field; after a reload it is still there", async ({ page }) => {
  const studio = new Studio(page);
  const ref = await makeForm(page, "Bound by hand");
  await studio.compose(ref);
  await page.getByRole("button", { name: "Pick county" }).dragTo(page.locator('[data-field="note"]'));
  await expect(page.locator('[data-field="note"]')).toContainText("county");
  await expect(studio.wire("county", "note")).toHaveCount(1);
  await expect(page.getByText(/draft 2 · saved/)).toBeVisible();
  await page.reload();
  await expect(studio.wire("county", "note")).toHaveCount(1);

  await page.getByRole("link", { name: "Rehearse" }).click();
  await studio.search.pressSequentially("12 harbour row tidewell", { delay: 10 });
  await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row, Tidewell");
  await page.keyboard.press("Enter");
  await expect(studio.field("Note")).toHaveValue("Sallow");
  await expect(studio.wire("county", "note")).toHaveAttribute("data-lit", "true");
});

test("a part is bound and unbound by keyboard alone", async ({ page }) => {
  const studio = new Studio(page);
  await studio.compose(await makeForm(page, "Bound by keys"));
  await page.getByRole("button", { name: "Pick region" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText("“region” is picked: now pick the field that it fills.")).toBeVisible();
  await page.getByRole("button", { name: "Bind region to Note" }).focus();
  await page.keyboard.press("Enter");
  await expect(studio.wire("region", "note")).toHaveCount(1);
  await page.getByRole("button", { name: "Unbind region from Note" }).focus();
  await page.keyboard.press("Delete");
  await expect(studio.wire("region", "note")).toHaveCount(0);
  await expect(page.getByText(/draft \d · saved/)).toBeVisible();
});

test("what was done is undone and done again", async ({ page }) => {
  const studio = new Studio(page);
  await studio.compose(await makeForm(page, "Undone"));
  await page.getByRole("button", { name: "Unbind town from Town" }).click();
  await expect(studio.wire("town", "town")).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(studio.wire("town", "town")).toHaveCount(1);
  await page.locator("body").press("Control+Shift+Z");
  await expect(studio.wire("town", "town")).toHaveCount(0);
  await page.locator("body").press("Control+z");
  await expect(studio.wire("town", "town")).toHaveCount(1);
});

test("a pattern shows what it gives in each country while it is typed, and what is wrong in it", async ({ page }) => {
  const studio = new Studio(page);
  await studio.compose(await makeForm(page, "Patterns"));
  await page.getByRole("button", { name: "Show Note" }).click();
  const pattern = page.getByLabel("What it is filled with");
  await pattern.fill("{street or block}, {house or building}[ ({unit})]");
  const table = page.getByRole("table");
  await expect(table.getByRole("row", { name: /Lorramere/ })).toContainText("Harbour Row, 12");
  await expect(table.getByRole("row", { name: /Ovarde/ })).toContainText("Østergränd, 3");
  await expect(table.getByRole("row", { name: /Thalmyra/ })).toContainText(/Τετράγωνο \d+, 4/);
  await expect(page.getByText(/draft \d · saved/)).toBeVisible();

  await pattern.fill("{street} {village}");
  await expect(page.getByText("no part or fact is named “village” (not saved yet)")).toBeVisible();
  await expect(pattern).toHaveAttribute("aria-invalid", "true");
  await page.reload();
  await page.getByRole("button", { name: "Show Note" }).click();
  await expect(pattern).toHaveValue("{street or block}, {house or building}[ ({unit})]");
});

test("a form is published, and its page shows what was published, not the draft", async ({ page }) => {
  const studio = new Studio(page);
  const ref = await makeForm(page, "Published");
  await studio.compose(ref);
  await page.getByRole("button", { name: "Publish" }).click();
  await expect(page.getByRole("button", { name: "Version 1 is live" })).toBeDisabled();
  await page.getByRole("button", { name: "Show Note" }).click();
  await page.getByLabel("Label").fill("Remark");
  await expect(page.getByText(/draft 2 · saved/)).toBeVisible();
  await page.goto(`/f/${ref}`);
  await expect(page.getByLabel("Note")).toBeVisible();
  await page.goto(`/forms/${ref}/compose`);
  await page.getByRole("button", { name: "Publish" }).click();
  await expect(page.getByRole("button", { name: "Version 2 is live" })).toBeVisible();
  await page.goto(`/f/${ref}`);
  await expect(page.getByLabel("Remark")).toBeVisible();
});

test("a change made elsewhere meanwhile is not overwritten", async ({ page, context }) => {
  const studio = new Studio(page);
  const ref = await makeForm(page, "Two windows");
  await studio.compose(ref);
  const other = new Studio(await context.newPage());
  await other.compose(ref);
  await other.page.getByRole("button", { name: "Unbind town from Town" }).click();
  await expect(other.page.getByText(/draft 2 · saved/)).toBeVisible();
  await page.getByRole("button", { name: "Show Note" }).click();
  await page.getByLabel("Label").fill("Mine");
  await expect(page.getByText(/saved elsewhere meanwhile/)).toBeVisible();
  await page.getByRole("button", { name: "Load the newest" }).click();
  await expect(studio.wire("town", "town")).toHaveCount(0);
  await expect(page.getByText(/draft 2 · saved/)).toBeVisible();
});

test("a new form is made from the list, with something to try at once", async ({ page }) => {
  await page.goto("/forms");
  await expect(page.getByRole("link", { name: /Become a reader/ })).toBeVisible();
  await page.getByRole("button", { name: "New form" }).click();
  await expect(page).toHaveURL(/\/forms\/form-[0-9a-f]+\/compose$/);
  await page.getByRole("link", { name: "Rehearse" }).click();
  const studio = new Studio(page);
  await studio.search.pressSequentially("12 harb");
  await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row");
});
