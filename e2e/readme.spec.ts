import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { ready } from "./support/house.ts";
import { servePages } from "./support/own-page.ts";

test.setTimeout(60_000);

/** The pages that the README prints, with this server's address and its key for pages in place of those printed. */
const PRINTED = [
  ...readFileSync(join(import.meta.dirname, "../README.md"), "utf8").matchAll(/```html\n(.*?)```/gs),
].map(([, html]) => html.replaceAll("http://localhost:4870", ready().url).replaceAll("bt_web_…", ready().keys.web));

const FORM = `<form>
  <label>Street <input name="street" autocomplete="address-line1"></label>
  <label>Town <input name="town" autocomplete="address-level2"></label>
  <label>Postcode <input name="postcode" autocomplete="postal-code"></label>
</form>`;

test("what the README prints for a page of one's own runs there as it is printed", async ({ page }) => {
  expect(PRINTED).toHaveLength(2);
  const [binds, map] = PRINTED;
  const pages = await servePages({
    "/form": `<!doctype html><html lang="en"><title>Form</title>${FORM}${binds}`,
    "/map": `<!doctype html><html lang="en"><title>Map</title>${map}`,
  });
  const heard: string[] = [];
  page.on("pageerror", (error) => heard.push(error.message));
  page.on("console", (message) => ["error", "warning"].includes(message.type()) && heard.push(message.text()));

  await page.goto(`${pages.origin}/form`);
  await page.getByLabel("Street").pressSequentially("12 harb");
  await page.getByRole("option", { name: /^12 Harbour Row, Tidewell/ }).click();
  await expect(page.getByLabel("Town")).toHaveValue("Tidewell");
  await expect(page.getByLabel("Postcode")).toHaveValue("HT0 10");

  await page.goto(`${pages.origin}/map`);
  await expect(page.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
  await expect(page.getByRole("button", { name: /relief/i })).toBeVisible();
  pages.close();
  expect(heard.filter((words) => !words.includes("favicon"))).toEqual([]);
});
