import { expect, type Page, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { baseUrl, ready } from "./support/house.ts";
import { long } from "./support/long.ts";
import { type OwnPages, servePages } from "./support/own-page.ts";

let pages: OwnPages | undefined;
test.afterEach(() => pages?.close());

/** What a server with a key is given for a place. */
async function linkFor(asked: string): Promise<{ url: string }> {
  const answer = await fetch(`${baseUrl()}/v1/links?${asked}`, {
    headers: { authorization: `Bearer ${ready().keys.srv}` },
  });
  expect(answer.status).toBe(200);
  return answer.json();
}

test("a mail shows a place by a link, in a browser that has no key and is signed in nowhere", async ({ browser }) => {
  const { url: picture } = await linkFor("of=qr-hgwrp5&shows=still&width=320&height=200&label=Here");
  const { url } = await linkFor("of=qr-hgwrp5");
  pages = await servePages({
    "/": `<!doctype html><title>A mail</title><p>We meet here:</p><a href="${url}"><img src="${picture}" alt="Map"></a>`,
  });
  const context = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const page = await context.newPage();
  const keys: string[] = [];
  page.on("request", (request) => {
    if (/bt_(web|srv|try)_/.test(request.url() + JSON.stringify(request.headers()))) keys.push(request.url());
  });
  await page.goto(pages.origin);
  const img = page.getByRole("img");
  await expect.poll(() => img.evaluate((element: HTMLImageElement) => element.naturalWidth)).toBe(320);
  await img.click();
  await expect(page.getByRole("heading", { name: "12 Harbour Row" })).toBeVisible();
  const map = page.getByRole("img", { name: "Map around 12 Harbour Row" });
  await expect.poll(() => map.evaluate((element: HTMLImageElement) => element.naturalWidth)).toBe(600);
  await expect(page.getByRole("link", { name: "Open in a map app" })).toHaveAttribute("href", /^geo:-35\./);
  expect(await axeFindings(page)).toEqual([]);
  await page.setViewportSize({ width: 320, height: 700 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  expect(keys).toEqual([]);
  await context.close();
});

/** A form with a picture of a reading room, chosen. */
async function withRoom(page: Page): Promise<void> {
  await page.goto("/f/reading-rooms");
  await page.getByLabel("Find a reading room").click();
  await page.keyboard.type("mill reading room tidewell");
  // the list follows the letters: what came for the first of them is another one
  await page.getByRole("option").filter({ hasText: "Mill Reading Room, Tidewell" }).first().click();
  await expect(page.locator(".bt-place img")).toBeVisible();
}

test(
  "a picture in a form opens its place, shows the way and copies the position, by pointer and by keyboard",
  long(),
  async ({ page, context }) => {
    await context.grantPermissions(["clipboard-read", "clipboard-write"]);
    await withRoom(page);
    const opens = async (act: () => Promise<void>) => {
      const [opened] = await Promise.all([context.waitForEvent("page"), act()]);
      await expect(opened.getByRole("heading", { level: 1 })).toContainText("Mill Reading Room");
      const address = opened.url();
      await opened.close();
      return address;
    };
    const picture = page.getByRole("button", { name: /^Map of Mill Reading Room/ });
    expect(await opens(() => picture.click())).toMatch(/\/p\/[\w.-]+$/);
    await picture.focus();
    expect(await opens(() => page.keyboard.press("Enter"))).toMatch(/\/p\//);

    const menu = page.getByRole("menu");
    await picture.click({ button: "right" });
    await expect(menu).toBeVisible();
    expect(await axeFindings(page)).toEqual([]);
    expect(await opens(() => page.getByRole("menuitem", { name: "Directions" }).click())).toMatch(/#way$/);

    await page.getByRole("button", { name: "Options for this place" }).focus();
    await page.keyboard.press("Shift+F10");
    await expect(page.getByRole("menuitem", { name: "Open the place" })).toBeFocused();
    await page.keyboard.press("ArrowUp");
    await expect(page.getByRole("menuitem", { name: "Copy coordinates" })).toBeFocused();
    await page.keyboard.press("Enter");
    await expect(menu).toBeHidden();
    await expect(page.getByText(/^Copied: -3\d\.\d+, -2\d\.\d+$/)).toBeVisible();
    expect(await page.evaluate(() => navigator.clipboard.readText())).toMatch(/^-3\d\.\d+, -2\d\.\d+$/);
    await page.keyboard.press("Shift+F10");
    await page.keyboard.press("Escape");
    await expect(menu).toBeHidden();
  },
);

test(
  "on a phone a picture hands its place to the device's own map application, and says where none answers",
  long(),
  async ({ browser }) => {
    const context = await browser.newContext({
      userAgent: "Mozilla/5.0 (Linux; Android 14) Mobile",
      viewport: { width: 360, height: 740 },
      hasTouch: true,
      isMobile: true,
    });
    const page = await context.newPage();
    await page.goto(`${baseUrl()}/f/reading-rooms`);
    await withRoom(page);
    const followed = await page.evaluateHandle(() => {
      const all: string[] = [];
      document.addEventListener("click", ({ target }) => {
        if (target instanceof HTMLAnchorElement) all.push(target.href);
      });
      // what is clicked without being in the page is not heard there
      const { click } = HTMLAnchorElement.prototype;
      HTMLAnchorElement.prototype.click = function () {
        all.push(this.href);
        click.call(this);
      };
      return all;
    });
    await page.getByRole("button", { name: /^Map of Mill Reading Room/ }).tap();
    await expect(page.getByText(/No map app opened|Coordinates: /)).toBeVisible();
    expect(await followed.jsonValue()).toEqual([expect.stringMatching(/^geo:-35\.\d+,-21\.\d+;name=Mill/)]);
    await context.close();
  },
);
