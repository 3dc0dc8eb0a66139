import { expect, test } from "@playwright/test";
import { ready } from "./support/house.ts";
import { servePages } from "./support/own-page.ts";

test("a page takes the search box alone, by version and integrity value, in little", async ({ page }) => {
  const { url, keys } = ready();
  const about = await (await fetch(`${url}/kit/v1/integrity.json`)).json();
  const { version, files } = about as { version: string; files: Record<string, string> };
  const script = `${url}/kit/${version}/search.js`;
  const pages = await servePages({
    "/": `<!doctype html><html lang="de"><title>Members</title>
<script type="module" src="${script}" integrity="${files["search.js"]}" crossorigin="anonymous"></script>
<form><bibliotope-search url="${url}" web-key="${keys.web}" name="find" label="Find your address" fills></bibliotope-search>
<label>Town <input name="town" autocomplete="address-level2"></label></form></html>`,
  });
  const scripts: string[] = [];
  page.on("request", (request) => {
    if (request.resourceType() === "script") scripts.push(new URL(request.url()).pathname);
  });
  await page.goto(pages.origin);
  await page.getByRole("combobox", { name: "Find your address" }).click();
  await page.keyboard.type("12 harb");
  await page.getByRole("option").filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
  await expect(page.getByLabel("Town")).toHaveValue("Tidewell");
  expect(scripts).toEqual([`/kit/${version}/search.js`, `/kit/${version}/words/de.js`]);
  pages.close();
});
