import { expect, type Page, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { long } from "./support/long.ts";

const tried = (page: Page) => page.getByRole("region", { name: "Try it" });
const suggestions = (page: Page) => page.getByRole("listbox", { name: "Suggestions" }).getByRole("option");

test("every piece of the kit can be tried, and its code copied", long(), async ({ page, context }) => {
  await context.grantPermissions(["geolocation", "clipboard-read", "clipboard-write"]);
  await context.setGeolocation({ latitude: -35.184, longitude: -21.6253, accuracy: 20 });
  await page.goto("/forms/become-a-reader/take-away");
  await page.getByRole("link", { name: "All pieces of the kit" }).click();
  const pieces = page.getByRole("navigation", { name: "Pieces of the kit" });

  await expect(page.getByRole("heading", { name: "Search box" })).toBeVisible();
  await tried(page).getByRole("combobox", { name: "Find your address" }).click();
  await page.keyboard.type("12 harb");
  await suggestions(page).filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
  await expect(tried(page).getByLabel("Town")).toHaveValue("Tidewell");

  await pieces.getByRole("link", { name: "Existing form, by autofill tokens" }).click();
  await tried(page).getByRole("combobox", { name: "Street" }).click();
  await page.keyboard.type("12 harb");
  await suggestions(page).filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
  await expect(tried(page).getByRole("status").filter({ hasText: "qr-" })).toContainText("-35.");

  await pieces.getByRole("link", { name: "Map" }).click();
  await expect(tried(page).locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
  await tried(page)
    .locator("[data-bibliotope=map]")
    .click({ position: { x: 120, y: 160 } });
  await expect(tried(page).getByText(/^-35\.\d+, -21\.\d+$/)).toBeVisible();

  await pieces.getByRole("link", { name: "Picker" }).click();
  const opener = tried(page).getByRole("button", { name: "Find it on the map" });
  const picker = page.getByRole("dialog", { name: "Where is it?" });
  await opener.click();
  await expect(picker.locator(".bt-picked")).toContainText("Harbour Row, Tidewell");
  await picker.getByRole("button", { name: "Cancel" }).click();
  await expect(picker).toBeHidden();
  await expect(opener).toBeFocused();
  await expect(tried(page).getByLabel("Town")).toHaveValue("");
  await page.keyboard.press("Enter");
  await picker.getByLabel("Search").click();
  await page.keyboard.type("12 harbour row tidewell");
  await picker.getByRole("option").filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
  await expect(picker.locator(".bt-picked")).toContainText("12 Harbour Row, Tidewell");
  expect(await axeFindings(page)).toEqual([]);
  await picker.getByRole("button", { name: "Done" }).click();
  await expect(tried(page).getByLabel("Street")).toHaveValue("12 Harbour Row");
  const sent = await tried(page)
    .locator("form")
    .evaluate((form: HTMLFormElement) => Object.fromEntries(new FormData(form)));
  expect(sent).toMatchObject({ "place-ref": "qr-hgwrp5", "place-lat": expect.stringMatching(/^-35\./) });

  await pieces.getByRole("link", { name: "Picture" }).click();
  const img = tried(page).getByRole("img", { name: "Map around the house" });
  await expect.poll(() => img.evaluate((element: HTMLImageElement) => element.naturalWidth)).toBe(300);

  await pieces.getByRole("link", { name: "Report" }).click();
  await tried(page).getByRole("combobox", { name: "Address" }).click();
  await page.keyboard.type("12 harb");
  await suggestions(page).filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
  const reporter = tried(page).getByRole("button", { name: "Report a mistake in this address" });
  await reporter.click();
  await expect(tried(page).getByLabel("What is wrong?")).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(reporter).toBeFocused();
  await page.keyboard.press("Enter");
  const words = `The door is round the corner, <b>${Date.now()}</b>`;
  await page.keyboard.type(words);
  await page.keyboard.press("Tab");
  await page.keyboard.press("Enter");
  await expect(tried(page).getByText("Thank you. Your report will be reviewed.")).toBeVisible();
  await page.goto("/data/corrections");
  await expect(page.getByText(words)).toBeVisible();
  await page.goto("/pieces");

  await pieces.getByRole("link", { name: "Client" }).click();
  await tried(page).getByRole("button", { name: "Look up" }).click();
  await expect(tried(page).getByRole("status")).toContainText("12 Harbour Row, Tidewell");

  await pieces.getByRole("link", { name: "The device's position" }).click();
  await tried(page).getByRole("button", { name: "Where am I?" }).click();
  await expect(tried(page).getByRole("status")).toContainText("within 20 m");

  await pieces.getByRole("link", { name: "React" }).click();
  await tried(page).getByRole("combobox", { name: "Find your address" }).click();
  await page.keyboard.type("12 harb");
  await suggestions(page).filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
  await expect(tried(page).getByText(/^12 Harbour Row, Tidewell, /)).toBeVisible();
  await page.getByRole("button", { name: "Copy" }).click();
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  expect(copied).toContain("<SearchField");
  expect(copied).toContain(new URL(page.url()).origin);
  expect(copied).not.toMatch(/bt_web_/);

  await pieces.getByRole("link", { name: "Server" }).click();
  await expect(page.getByRole("region", { name: "Code" })).toContainText("placeOf(client");
  for (const width of [1280, 360]) {
    await page.setViewportSize({ width, height: 800 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
    expect(await axeFindings(page)).toEqual([]);
  }
});
