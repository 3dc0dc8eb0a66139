import { expect, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { long } from "./support/long.ts";
import { Studio } from "./support/studio.ts";

test(
  "the first steps lead through the workbench, are done by doing them, and are remembered",
  long(),
  async ({ page, context }) => {
    await context.grantPermissions(["clipboard-read", "clipboard-write"]);
    const studio = new Studio(page);
    await studio.rehearse();
    const steps = page.getByRole("button", { name: /^First steps/ });
    const list = page.getByRole("dialog", { name: "First steps" });
    await expect(steps).toHaveText("First steps 0/4");

    await studio.search.pressSequentially("12 harb");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
    await expect(steps).toHaveText("First steps 1/4");

    await steps.click();
    await expect(list.getByRole("link", { name: /^Try a form ?, done$/ })).toBeVisible();
    expect(await axeFindings(page)).toEqual([]);
    await list.getByRole("link", { name: /Put it into your page/ }).click();
    await expect(page).toHaveURL(/become-a-reader\/take-away$/);
    await expect(list).toBeHidden();
    await page.getByRole("button", { name: "Copy", exact: true }).click();
    await expect(steps).toHaveText("First steps 2/4");

    await page.reload();
    await expect(steps).toHaveText("First steps 2/4");
    await steps.click();
    await list.getByRole("link", { name: /Import your data/ }).click();
    await expect(page).toHaveURL(/\/data\/import$/);
    await steps.click();
    await list.getByRole("button", { name: "Do not show again" }).click();
    await expect(steps).toBeHidden();
    await page.reload();
    await expect(page.getByRole("link", { name: "Forms" })).toBeVisible();
    await expect(steps).toBeHidden();
  },
);
