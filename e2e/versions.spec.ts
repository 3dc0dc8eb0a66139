import { expect, test } from "@playwright/test";
import { long } from "./support/long.ts";
import { makeForm, Studio } from "./support/studio.ts";

test(
  "what the draft changes since a version is told, and the version can be brought back",
  long(),
  async ({ page }) => {
    const studio = new Studio(page);
    await studio.compose(await makeForm(page, "Versioned"));
    await page.getByRole("button", { name: "Versions" }).click();
    await expect(page.getByText("Not published yet.")).toBeVisible();
    await page.getByRole("button", { name: "Close" }).click();
    await page.getByRole("button", { name: "Publish" }).click();
    await expect(page.getByRole("button", { name: "Version 1 is live" })).toBeVisible();
    await page.getByRole("button", { name: "Show Note" }).click();
    await page.getByLabel("Label").fill("Remark");
    await page.getByRole("button", { name: "Show Town" }).click();
    await page.getByRole("button", { name: "Remove Town" }).click();
    await expect(page.getByText(/draft \d+ · saved/)).toBeVisible();

    await page.getByRole("button", { name: "Versions" }).click();
    const changes = page.getByRole("region", { name: "What the draft changes" });
    await expect(changes).toContainText("2 changes from version 1 to the draft");
    await expect(changes.getByRole("row", { name: /note/ })).toContainText("Note → Remark");
    await expect(changes.getByRole("row", { name: /town/ })).toContainText("removed");
    await page.getByRole("button", { name: "Restore version 1" }).click();
    await expect(page.locator('[data-field="town"]')).toBeVisible();
    await expect(page.getByRole("button", { name: "Show Note" })).toBeVisible();
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(page.getByRole("button", { name: "Show Remark" })).toBeVisible();
  },
);

test("a form goes out as JSON and comes in again; what is wrong in it is said, and nothing is lost", async ({
  page,
}) => {
  const studio = new Studio(page);
  await studio.compose(await makeForm(page, "As JSON"));
  await page.getByRole("button", { name: "Definition" }).click();
  const text = page.getByLabel(/The form as a JSON document/);
  const before = await text.inputValue();
  const definition = JSON.parse(before);
  expect(definition.title).toBe("As JSON");
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as a file" }).click();
  expect((await download).suggestedFilename()).toMatch(/^form-.+\.json$/);
  for (const [wrong, words] of [
    ["{", "This is not valid JSON"],
    ["{}", "title: "],
    [
      JSON.stringify({ ...definition, fields: [definition.fields[0], definition.fields[0]] }),
      "two fields are named “find”",
    ],
  ]) {
    await text.fill(wrong);
    await page.getByRole("button", { name: "Use this definition" }).click();
    await expect(page.getByRole("dialog").getByRole("alert")).toContainText(words);
  }
  const more = { name: "shoe", kind: "text", label: "Shoe" };
  await text.fill(JSON.stringify({ ...definition, fields: [...definition.fields, more] }));
  await page.getByRole("button", { name: "Use this definition" }).click();
  await expect(page.locator('[data-field="shoe"]')).toBeVisible();
  await expect(page.getByText(/draft \d+ · saved/)).toBeVisible();
});
