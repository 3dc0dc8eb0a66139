import { expect, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { long } from "./support/long.ts";

/** Every view of the workbench, and forms' own pages. */
const VIEWS = [
  "/forms",
  "/forms/become-a-reader/rehearse",
  "/forms/become-a-reader/compose",
  "/forms/become-a-reader/take-away",
  "/lookups/forward?q=12+harbour+row",
  "/data",
  "/data/import",
  "/data/corrections",
  "/data/versions/1",
  "/batches",
  "/batches/new",
  "/values",
  "/services",
  "/services/register",
  "/keys",
  "/pieces",
  "/nothing-here",
  "/f/become-a-reader",
  "/f/books-abroad",
];

/** Forms' own pages, which are also read from right to left. */
const FORMS = VIEWS.filter((view) => view.startsWith("/f/"));

interface Setting {
  width: number;
  colorScheme: "light" | "dark";
  forcedColors: "none" | "active";
}
const setting = (
  width: number,
  colorScheme: Setting["colorScheme"],
  forcedColors: Setting["forcedColors"] = "none",
) => ({
  width,
  colorScheme,
  forcedColors,
});
/** What is left of 1280 pixels at 400 % (WCAG 2.2, 1.4.10). */
const ENLARGED = 320;
/** All of them by `npm run test:long`; what is likeliest to break each time. */
const SETTINGS: readonly Setting[] = process.env.BIBLIOTOPE_LONG
  ? [1280, 1920, 360, ENLARGED].flatMap((width) => [
      setting(width, "light"),
      setting(width, "dark"),
      setting(width, "light", "active"),
    ])
  : [setting(360, "dark"), setting(1280, "light", "active")];

for (const { width, colorScheme, forcedColors } of SETTINGS)
  test(
    `every view at ${width} px, ${colorScheme}, ${forcedColors === "active" ? "in the system's colours" : "in its own colours"}: nothing that axe finds, no complaint, nothing cut off sideways`,
    long(),
    async ({ page }) => {
      test.setTimeout(300_000);
      await page.setViewportSize({ width, height: 800 });
      await page.emulateMedia({ colorScheme, forcedColors });
      const heard: string[] = [];
      page.on("pageerror", (error) => heard.push(error.message));
      page.on("console", (message) => ["error", "warning"].includes(message.type()) && heard.push(message.text()));
      for (const view of VIEWS) {
        await page.goto(view);
        await expect(page.getByRole("heading").first()).toBeVisible();
        await expect(page.getByText(/^(Loading|Opening)/)).toHaveCount(0);
        // by the system's colours axe reads the page's own, which nobody sees
        const found = (await axeFindings(page)).filter(
          (finding) => forcedColors === "none" || !finding.startsWith("color-contrast"),
        );
        expect(found, view).toEqual([]);
        const beyond = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
        expect(beyond, `${view} scrolls sideways`).toBeLessThanOrEqual(0);
      }
      expect(heard.filter((words) => !words.includes("404 (Not Found)"))).toEqual([]);
    },
  );

for (const width of process.env.BIBLIOTOPE_LONG ? [1280, 1920, 360, ENLARGED] : [ENLARGED])
  test(
    `forms' own pages at ${width} px, from right to left: nothing that axe finds, nothing cut off sideways`,
    long(),
    async ({ page }) => {
      test.setTimeout(120_000);
      await page.setViewportSize({ width, height: 800 });
      await page.route("**/f/*", async (route) => {
        const response = await route.fetch();
        const html = (await response.text()).replace('<html lang="en">', '<html lang="ar" dir="rtl">');
        await route.fulfill({ response, body: html });
      });
      for (const view of FORMS) {
        await page.goto(view);
        await expect(page.locator("html[dir=rtl] form")).toBeVisible();
        expect(await axeFindings(page), view).toEqual([]);
        // what goes beyond the left edge cannot be scrolled to in all browsers
        const [beyond, before] = await page.evaluate(() => [
          document.documentElement.scrollWidth - innerWidth,
          Math.min(
            ...[...document.querySelectorAll("label, input, button")].map((one) => one.getBoundingClientRect().left),
          ),
        ]);
        expect(beyond, `${view} scrolls sideways`).toBeLessThanOrEqual(0);
        expect(before, `${view} goes beyond the left edge`).toBeGreaterThanOrEqual(0);
      }
    },
  );
