import { expect, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { long } from "./support/long.ts";
import { standsStill } from "./support/rest.ts";
import { Studio } from "./support/studio.ts";

for (const scheme of ["light", "dark"] as const) {
  test.describe(`axe finds nothing, ${scheme === "light" ? "by day" : "by night"}`, () => {
    test.use({ colorScheme: scheme });

    test("in the list of forms", long(scheme === "dark"), async ({ page }) => {
      await page.goto("/forms");
      await expect(page.getByRole("link", { name: /Become a reader/ })).toBeVisible();
      expect(await axeFindings(page)).toEqual([]);
    });

    test("in a rehearsal, empty, with its list open, and filled", long(), async ({ page }) => {
      const studio = new Studio(page);
      await studio.rehearse();
      expect(await axeFindings(page)).toEqual([]);
      await studio.search.pressSequentially("12 harb");
      await expect(studio.list.getByRole("option").first()).toBeVisible();
      await page.keyboard.press("ArrowDown");
      expect(await axeFindings(page)).toEqual([]);
      await page.keyboard.press("Enter");
      await expect(studio.field("Town")).toHaveValue("Tidewell");
      expect(await axeFindings(page)).toEqual([]);
    });

    test("in Compose, with a field in hand", long(), async ({ page }) => {
      await new Studio(page).compose("become-a-reader");
      await page.getByRole("button", { name: "Show Town" }).click();
      expect(await axeFindings(page)).toEqual([]);
      await page.getByRole("button", { name: "Pick county" }).click();
      expect(await axeFindings(page)).toEqual([]);
    });

    test("in Lookups: empty, with candidates, with nothing found, with two settings", long(), async ({ page }) => {
      for (const path of [
        "/lookups",
        "/lookups/forward?q=12+harbor+rw+tidewell+HT9+29&gloss=1",
        "/lookups/forward?q=14b+Vuxxel+Street&gloss=1",
        "/lookups/suggest?q=12+harb&beside=suggest%3Fq%3D12%2Bharb%26limit%3D3",
      ]) {
        await page.goto(path);
        await expect(page.getByRole("application")).toHaveAttribute("data-complete", "true");
        expect(await axeFindings(page), path).toEqual([]);
      }
    });

    test("in Services: the list, one that was tried, hosts and secrets", long(), async ({ page }) => {
      await page.goto("/services");
      await expect(page.getByRole("link", { name: "Land register of Lorramere" })).toBeVisible();
      expect(await axeFindings(page)).toEqual([]);
      await page.getByRole("link", { name: "Land register of Lorramere" }).click();
      await page.getByRole("button", { name: "Try it with these values" }).click();
      await page.getByRole("treeitem").filter({ hasText: "@number" }).click();
      expect(await axeFindings(page)).toEqual([]);
      for (const dialog of ["Allowed hosts", "Secrets"]) {
        await page.getByRole("button", { name: dialog }).click();
        await expect(page.getByRole("dialog", { name: dialog })).toBeVisible();
        expect(await axeFindings(page), dialog).toEqual([]);
        await page.keyboard.press("Escape");
      }
    });

    test("in the keys", long(scheme === "dark"), async ({ page }) => {
      await page.goto("/forms");
      await expect(page.getByRole("link", { name: /Become a reader/ })).toBeVisible();
      await page.locator("body").press("?");
      await expect(page.getByRole("dialog", { name: "Keyboard" })).toBeVisible();
      expect(await axeFindings(page)).toEqual([]);
    });

    test("on a form's own page", long(scheme === "dark"), async ({ page }) => {
      await page.goto("/f/become-a-reader");
      await expect(page.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
      expect(await axeFindings(page)).toEqual([]);
    });
  });
}

test("the search box follows the combobox pattern", async ({ page }) => {
  const studio = new Studio(page);
  await studio.rehearse();
  await expect(studio.search).toHaveAttribute("aria-expanded", "false");
  await expect(studio.search).toHaveAttribute("aria-autocomplete", "list");
  await studio.search.pressSequentially("12 harb");
  await expect(studio.search).toHaveAttribute("aria-expanded", "true");
  await expect(page.getByRole("status").filter({ hasText: "7 suggestions." })).toHaveCount(1);
  await page.keyboard.press("ArrowUp");
  await expect(studio.list.getByRole("option").last()).toHaveAttribute("aria-selected", "true");
  await page.keyboard.press("Escape");
  await expect(studio.list).toBeHidden();
  await expect(studio.search).toHaveValue("12 harb");
  await expect(studio.search).not.toHaveAttribute("aria-activedescendant");
  await page.keyboard.press("ArrowDown");
  await expect(studio.list).toBeVisible();
});

test("Enter before the answer is there takes the line that is meant when it comes", async ({ page }) => {
  const studio = new Studio(page);
  await studio.rehearse();
  await page.route("**/v1/suggest?*", async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 700));
    await route.continue();
  });
  await studio.search.pressSequentially("12 harbour row tidewell");
  await page.keyboard.press("Enter");
  await expect(studio.list).toBeHidden();
  await expect(studio.field("Street and number")).toHaveValue("12 Harbour Row");
});

test("nothing found is said, and is no error", async ({ page }) => {
  const studio = new Studio(page);
  await studio.rehearse();
  await studio.search.pressSequentially("qqxxzz vvww");
  await expect(page.getByText("Nothing found. Check the spelling, or type the address by hand.")).toBeVisible();
  await expect(studio.list).toBeHidden();
});

test("? lists the keys of the view, but stays a letter in a text field", async ({ page }) => {
  const studio = new Studio(page);
  await studio.rehearse();
  await studio.search.press("?");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await studio.map.focus();
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keyboard" })).toContainText("Move through the suggestions");
});

test("a wrong address says so on a page like the others, with a way on", long(), async ({ page }) => {
  for (const path of ["/nothing-here", "/forms/no-such-form/rehearse", "/problems/busy"]) {
    await page.goto(path);
    await expect(page.getByRole("main")).toBeVisible();
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    expect(await axeFindings(page), path).toEqual([]);
  }
  await page.getByRole("link", { name: "Go to the workbench" }).click();
  await expect(page).toHaveURL(/rehearse$/);
});

for (const width of [360, 640]) {
  test(`at ${width} px nothing is cut off sideways`, long(), async ({ page }) => {
    await page.setViewportSize({ width, height: 800 });
    for (const path of [
      "/forms",
      "/forms/become-a-reader/rehearse",
      "/forms/become-a-reader/compose",
      "/forms/become-a-reader/take-away",
      "/lookups/forward?q=12+harbor+rw+tidewell+HT9+29&gloss=1",
      "/keys",
      "/services",
      "/services/register",
      "/f/become-a-reader",
      "/f/lend-to-a-branch",
    ]) {
      await page.goto(path);
      await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
      await standsStill(page);
      const beyond = await page.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      );
      expect(beyond, path).toBeLessThanOrEqual(0);
    }
  });
}

test.describe("without a session", () => {
  test.use({ storageState: { cookies: [], origins: [] } });

  test("the workbench says how to sign in", long(), async ({ page }) => {
    await page.goto("/");
    await expect(page.getByRole("heading", { name: "You are not signed in" })).toBeVisible();
    await page.goto("/sign-in?token=used-before");
    await expect(page.getByRole("heading", { name: "This link has already been used" })).toBeVisible();
    expect(await axeFindings(page)).toEqual([]);
  });
});

test("no page breaks its own policy or writes an error into the console", async ({ page }) => {
  const said: string[] = [];
  page.on("console", (message) => message.type() === "error" && said.push(message.text()));
  page.on("pageerror", (error) => said.push(error.message));
  const studio = new Studio(page);
  await studio.rehearse();
  await studio.search.pressSequentially("12 harbour row tidewell");
  await page.keyboard.press("Enter");
  await studio.compose("become-a-reader");
  await page.locator("body").press("?");
  await page.keyboard.press("Escape");
  await page.goto("/forms");
  await page.goto("/f/become-a-reader");
  await expect(page.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
  expect(said).toEqual([]);
});
