import { expect, test } from "@playwright/test";
import { PASTED } from "./pasted/forms.ts";
import { long } from "./support/long.ts";
import { makeForm, Studio } from "./support/studio.ts";

test(
  "forms of different making are read: bindings with a reason, nothing run, nothing fetched",
  long(),
  async ({ page }) => {
    const studio = new Studio(page);
    await studio.compose(await makeForm(page, "Pasted"));
    const elsewhere: string[] = [];
    page.on("request", (request) => {
      if (new URL(request.url()).origin !== new URL(page.url()).origin) elsewhere.push(request.url());
    });
    let [right, all] = [0, 0];
    const wrong: string[] = [];
    for (const { name, html, bound, left } of PASTED) {
      await page.getByRole("button", { name: "Paste a form" }).click();
      await page.getByLabel(/HTML of a page/).fill(html);
      await page.getByRole("button", { name: "Replace the form" }).click();
      await expect(page.getByRole("dialog")).toBeHidden();
      await expect(page.getByText(/draft \d+ · saved/)).toBeVisible();
      const { definition } = await (await page.request.get(`/api/forms/${page.url().split("/")[4]}`)).json();
      const fieldOf = (wanted: string) =>
        definition.fields.find((field: { name: string }) => field.name === wanted) as
          | { binding?: string; autofill?: string }
          | undefined;
      for (const [field, expected] of Object.entries(bound)) {
        all++;
        const held = fieldOf(field);
        const got = held?.binding ?? held?.autofill?.split(" ").at(-1) ?? "nothing";
        if (got === expected) right++;
        else wrong.push(`${name}: ${field} is ${got}, not ${expected}`);
      }
      for (const field of left)
        if (!fieldOf(field) || fieldOf(field)?.binding) wrong.push(`${name}: ${field} should be left alone`);
    }
    test.info().annotations.push({ type: "bound rightly", description: `${right} of ${all}` });
    expect(wrong.filter((words) => words.endsWith("alone"))).toEqual([]);
    expect(right / all, wrong.join("\n")).toBeGreaterThanOrEqual(0.9);
    expect(elsewhere).toEqual([]);
    expect(await page.evaluate(() => (window as unknown as { hacked?: number }).hacked)).toBeUndefined();
  },
);

test("a proposal can be refused or changed, fields can be added to those there, and all of it undone", async ({
  page,
}) => {
  const studio = new Studio(page);
  await studio.compose(await makeForm(page, "Added to"));
  await page.getByRole("button", { name: "Paste a form" }).click();
  const text = page.getByLabel(/HTML of a page/);
  await text.fill("Street, town");
  await expect(page.getByRole("alert")).toContainText("There is no input, select or textarea in this text.");
  await text.fill(`<label>Town <input name="town"></label><label>Region <input name="region"></label>`);
  await expect(page.getByText("2 fields, 2 bound.")).toBeVisible();
  await expect(page.getByRole("row", { name: /Region/ })).toContainText("label contains “region”");
  await page.getByLabel("Region is bound to").fill("");
  await expect(page.getByText("2 fields, 1 bound.")).toBeVisible();
  await page.getByRole("button", { name: "Add to the form" }).click();
  await expect(page.locator('[data-field="town-2"]')).toContainText("town");
  await expect(page.locator('[data-field="region"]')).toContainText("filled by hand");
  await expect(page.locator('[data-field="street"]')).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  // a name that every object has is a name like any other
  await page.getByRole("button", { name: "Paste a form" }).click();
  await text.fill(`<label>Town <input name="constructor"></label><label>Region <input name="valueOf"></label>`);
  await expect(page.getByText("2 fields, 2 bound.")).toBeVisible();
  await expect(page.getByRole("row", { name: /Town/ })).not.toContainText("yours");
  await page.keyboard.press("Escape");
  await expect(page.locator('[data-field="town-2"]')).toHaveCount(0);

  await page.getByRole("button", { name: "Paste a form" }).click();
  await text.fill(`<label>Where <input name="where"></label><label>Town <input name="town"></label>`);
  await page.getByLabel("Where is bound to").fill("{street");
  await expect(page.getByRole("row", { name: /Where/ })).toContainText(/column \d+/);
  await expect(page.getByRole("button", { name: "Replace the form" })).toBeDisabled();
  await page.getByLabel("Where is bound to").fill("searches");
  await page.getByLabel("Town is bound to").fill("{county}");
  await expect(page.getByRole("row", { name: /Town/ })).toContainText("yours");
  await page.getByRole("button", { name: "Replace the form" }).click();
  await expect(page.locator('[data-field="town"]')).toContainText("county");
  await expect(page.locator('[data-field="where"]')).toContainText("search");
});
