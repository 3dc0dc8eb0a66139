import { expect, test } from "@playwright/test";
import { ready } from "./support/house.ts";
import { Studio } from "./support/studio.ts";

// whoever fills the form is not signed in
test.use({ storageState: { cookies: [], origins: [] } });

test("the form's own page does the same, with a web key and without signing in", async ({ page }) => {
  const asked: string[] = [];
  page.on("request", (request) => asked.push(request.url()));
  await page.goto("/f/become-a-reader");
  const studio = new Studio(page);
  await expect(page.getByRole("heading", { name: "Become a reader" })).toBeVisible();
  await studio.search.click();
  await studio.search.pressSequentially("osterg 3", { delay: 40 });
  await expect(studio.list.getByRole("option").first()).toContainText("Østergränd 3");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(studio.field("Street and number")).toHaveValue("Østergränd 3");
  await expect(studio.field("Postcode")).toHaveValue(/^\d{4}$/);
  await expect(studio.field("Country")).toHaveValue("QV");
  await expect(studio.map).toContainText("There is a marker at Østergränd 3.");

  await studio.painted();
  const box = (await studio.map.boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2 + 170);
  await expect(studio.field("Street and number")).not.toHaveValue("Østergränd 3");

  const lookups = asked.filter((url) => new URL(url).pathname.startsWith("/v1/"));
  expect(lookups.length).toBeGreaterThan(3);
  for (const url of lookups) expect(new URL(url).searchParams.get("access_token")).toBe(ready().keys.web);
  expect(asked.some((url) => url.includes("/api/"))).toBe(false);
});

test("the page says so when its form cannot be fetched", async ({ page }) => {
  await page.route("**/v1/forms/*", (route) => route.abort());
  await page.goto("/f/become-a-reader");
  await expect(page.getByRole("alert")).toContainText("This form cannot be shown.");
});

test("a lookup that fails says so where the person looks, and the form can still be filled by hand", async ({
  page,
}) => {
  await page.goto("/f/become-a-reader");
  const studio = new Studio(page);
  await page.route("**/v1/suggest?*", (route) => route.abort());
  await studio.search.click();
  await studio.search.pressSequentially("12 harb");
  await expect(page.getByText("The address search cannot be reached.")).toBeVisible();
  await studio.field("Town").fill("Tidewell");
  await page.unroute("**/v1/suggest?*");
  await studio.search.press("End");
  await studio.search.pressSequentially("o");
  await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row");
  await expect(studio.field("Town")).toHaveValue("Tidewell");
});

test("names from the data are shown as text, never as markup", async ({ page }) => {
  await page.route("**/v1/suggest?*", async (route) => {
    const evil = {
      ref: "qr-000000",
      kind: "address",
      line: `<img src=x onerror="document.title='caught'">`,
      within: "<b>x</b>",
      marks: [[0, 4]],
      at: { lat: 0, lon: 0 },
      more: 0,
    };
    await route.fulfill({ json: { q: "x", outcome: "matched", advice: [], source: [], suggestions: [evil] } });
  });
  await page.goto("/f/become-a-reader");
  const studio = new Studio(page);
  await studio.search.click();
  await studio.search.pressSequentially("x");
  await expect(studio.list.getByRole("option")).toContainText("<img src=x");
  expect(await studio.list.locator("img, b").count()).toBe(0);
  await expect(page).toHaveTitle("Become a reader");
});
