import { expect, type Page, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { baseUrl, ready } from "./support/house.ts";
import { long } from "./support/long.ts";

const dialog = (page: Page) => page.getByRole("dialog");
const row = (page: Page, name: string) => page.getByRole("row").filter({ has: page.getByRole("rowheader", { name }) });

/** Asks as a page of an origin does. */
async function ask(call: string, key: string, origin: string): Promise<number> {
  const response = await fetch(`${baseUrl()}/v1/${call}?q=12+harb&access_token=${key}`, { headers: { origin } });
  return response.status;
}

async function shownKey(page: Page): Promise<string> {
  await expect(dialog(page)).toContainText("You will not see it again");
  const key = await dialog(page).locator("code").textContent();
  await dialog(page).getByRole("button", { name: "I have copied it" }).click();
  await expect(dialog(page)).toBeHidden();
  return key!;
}

test("a key is made, kept to what it is for, changed, replaced and withdrawn", long(), async ({ page }) => {
  const name = `Members ${test.info().retry}`;
  const origin = "https://eu.members.example";
  await page.goto("/keys");
  await expect(row(page, "Demo, servers")).toContainText("servers");
  await page.getByRole("button", { name: "New key" }).click();
  await dialog(page).getByLabel("servers").check();
  await expect(dialog(page)).toContainText("is refused in browsers");
  await expect(dialog(page).getByLabel("Origins, one per line")).toHaveCount(0);
  await dialog(page).getByLabel("pages", { exact: true }).check();
  await dialog(page).getByLabel("Name").fill(name);
  await dialog(page).getByLabel("Origins, one per line").fill("members.example");
  await dialog(page).getByRole("button", { name: "Create key" }).click();
  await expect(dialog(page).getByRole("alert")).toContainText("an origin is scheme, host and port");
  await dialog(page).getByLabel("Origins, one per line").fill("https://*.members.example");
  await dialog(page).getByLabel("suggestions").check();
  expect(await axeFindings(page)).toEqual([]);
  await dialog(page).getByRole("button", { name: "Create key" }).click();
  const key = await shownKey(page);
  expect(key).toMatch(/^bt_web_/);
  await expect(page.locator("body")).not.toContainText(key);
  await expect(row(page, name)).toContainText("https://*.members.example");
  await expect(row(page, name)).toContainText("never");
  expect(await ask("suggest", key, origin)).toBe(200);
  expect(await ask("suggest", key, "https://elsewhere.example")).toBe(403);
  expect(await ask("forward", key, origin)).toBe(403);

  await page.getByRole("button", { name: `Change ${name}` }).click();
  await dialog(page).getByLabel("forward").check();
  await dialog(page).getByLabel("Country codes").fill("qv");
  await dialog(page).getByRole("button", { name: "Save" }).click();
  await expect(dialog(page)).toBeHidden();
  await expect(row(page, name)).toContainText("suggestions, forward");
  await expect(row(page, name)).toContainText("QV");
  await expect(row(page, name)).toContainText("a moment ago");
  expect(await ask("forward", key, origin)).toBe(200);

  await page.getByRole("button", { name: `Replace ${name}` }).click();
  await dialog(page)
    .getByLabel(/How long/)
    .selectOption({ label: "one day" });
  await dialog(page).getByRole("button", { name: "Replace key" }).click();
  const next = await shownKey(page);
  expect(next).not.toBe(key);
  for (const one of [key, next]) expect(await ask("forward", one, origin)).toBe(200);
  await expect(row(page, name)).toHaveCount(2);
  await expect(row(page, name).first()).toContainText(/tomorrow|in \d+ hours/);
  expect(await axeFindings(page)).toEqual([]);

  await page
    .getByRole("button", { name: `Revoke ${name}` })
    .first()
    .click();
  await expect(dialog(page)).toContainText("This cannot be undone");
  await dialog(page).getByRole("button", { name: "Revoke key" }).click();
  await expect(row(page, name)).toHaveCount(1);
  expect(await ask("suggest", key, origin)).toBe(401);
  expect(await ask("suggest", next, origin)).toBe(200);
});

test("links without a key are signed with another key, and those that were sent go on", long(), async ({ page }) => {
  const made = await fetch(`${baseUrl()}/v1/links?of=qr-hgwrp5`, {
    headers: { authorization: `Bearer ${ready().keys.srv}` },
  });
  const { url } = await made.json();
  await page.goto("/keys");
  const section = page.getByRole("region", { name: "Signed links" });
  await expect(section).toContainText("This server signs links with a key created");
  await section.getByRole("button", { name: "Replace signing key" }).click();
  expect(await axeFindings(page)).toEqual([]);
  await dialog(page).getByRole("button", { name: "New key, keep existing links" }).click();
  await expect(dialog(page)).toBeHidden();
  await expect(section).toContainText(/links signed with \d+ earlier keys? still work/);
  expect((await fetch(url)).status).toBe(200);
});

test("a key that has ended is told as ended", async ({ page }) => {
  await page.goto("/keys");
  await page.getByRole("button", { name: "New key" }).click();
  await dialog(page).getByLabel("tests").check();
  await dialog(page).getByLabel("Name").fill("Long over");
  await dialog(page).getByLabel("Expiry date").fill("2020-01-31");
  await dialog(page).getByRole("button", { name: "Create key" }).click();
  const key = await shownKey(page);
  await expect(row(page, "Long over").first()).toContainText(/expired [\d,]+ days ago/);
  expect(await ask("suggest", key, baseUrl())).toBe(401);
});

test("how a key was used is shown in figures, charts and a table, and taken along as CSV", long(), async ({ page }) => {
  const { csrf } = await (await page.request.get("/api/session")).json();
  const name = `Used ${Date.now()}`;
  const made = await page.request.post("/api/keys", {
    headers: { "x-csrf-token": csrf },
    data: { kind: "try", name, perMinute: 6 },
  });
  const { key } = await made.json();
  const ask = (path: string) => page.request.get(`/v1/${path}`, { headers: { authorization: `Bearer ${key}` } });
  const { suggestions } = await (await ask("suggest?q=12+harb")).json();
  await ask(`records/${suggestions[0].ref}?typed=7`);
  await ask("forward?q=zzzzzzzzz");
  for (let i = 0; i < 5; i++) await ask("distance?from=-35,-21&to=-36,-22");

  await page.goto("/keys");
  const use = page.getByRole("region", { name: "Usage" });
  await use.getByLabel("Key").focus();
  await page.keyboard.type(name);
  await expect(use.getByText("Letters typed per choice")).toBeVisible();
  const figure = (label: string) => use.locator("dl > div").filter({ hasText: label }).locator("dd");
  await expect(figure("Lookups")).toHaveText("8");
  await expect(figure("Letters typed per choice")).toHaveText("7");
  await expect(figure("Not found")).toHaveText("16.7 %");
  await expect(use.getByRole("row", { name: /^distances/ })).toHaveText(/^distances302$/);
  await expect(use.getByRole("img")).toHaveCount(2);
  await use.getByRole("button", { name: "Year" }).click();
  await expect(figure("Lookups")).toHaveText("8");
  const [download] = await Promise.all([page.waitForEvent("download"), use.getByRole("link", { name: "CSV" }).click()]);
  const csv = await (await import("node:fs/promises")).readFile(await download.path(), "utf8");
  expect(csv).toContain(`,${name},distance,matched,3`);
  expect(await axeFindings(page)).toEqual([]);
});
