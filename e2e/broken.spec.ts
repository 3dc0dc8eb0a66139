import { expect, test } from "@playwright/test";
import { long } from "./support/long.ts";

test.setTimeout(60_000);

test("a view that fails says so, leaves the rest of the workbench, and comes back", long(), async ({ page }) => {
  await page.route("**/api/keys", (route) => route.fulfill({ json: { keys: [null] } }));
  await page.goto("/keys");
  const broken = page.getByRole("heading", { name: "This page stopped working" });
  await expect(broken).toBeVisible();
  await page.getByText("Error message").click();
  await expect(page.locator("pre")).not.toBeEmpty();
  await page.getByRole("link", { name: "Lookups" }).click();
  await expect(page.getByRole("searchbox").or(page.getByRole("combobox")).first()).toBeVisible();
  await page.goto("/keys");
  await expect(broken).toBeVisible();
  await page.unroute("**/api/keys");
  await page.getByRole("button", { name: "Reload" }).click();
  await expect(page.getByRole("heading", { name: "Keys", exact: true })).toBeVisible();
});

test("a view whose script does not come says so, and is loaded again", long(), async ({ page }) => {
  await page.goto("/keys");
  await expect(page.getByRole("heading", { name: "Keys", exact: true })).toBeVisible();
  await page.route(/BatchesView.*\.js/, (route) => route.abort());
  await page.getByRole("link", { name: "Batches" }).click();
  await expect(page.getByRole("heading", { name: "This page could not be loaded" })).toBeVisible();
  await expect(page.getByRole("alert")).toContainText("try again in a moment");
  await page.unroute(/BatchesView.*\.js/);
  await page.getByRole("button", { name: "Reload" }).click();
  await expect(page.getByRole("heading", { name: "Batches", exact: true })).toBeVisible();
});
