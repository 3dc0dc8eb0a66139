import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { copyWithFramework, installKit, runIn, serveFolder, startExample } from "./support/examples.ts";
import { complaints, suggestions } from "./support/heard.ts";
import { ready } from "./support/house.ts";
import { long } from "./support/long.ts";

/** Frameworks that bring a compiler and a server of their own; the smaller ones are in examples.spec.ts. */
let kit: string;
test.beforeAll(async () => {
  test.setTimeout(240_000);
  kit = await installKit();
});
test.setTimeout(400_000);

async function chooseHarbourRow(page: Page): Promise<void> {
  await page.getByRole("combobox", { name: "Find your address" }).click();
  await page.keyboard.type("12 harb");
  await suggestions(page).filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
  await expect(page.getByLabel("Street")).toHaveValue("12 Harbour Row");
  await expect(page.getByLabel("Town")).toHaveValue("Tidewell");
  await expect(page.getByLabel("Postcode")).toHaveValue(/^HT/);
}

test(
  "Angular: the search element fills a reactive form, a lookup is a resource, the map element has a marker",
  long(),
  async ({ page }) => {
    const heard = complaints(page);
    const folder = await copyWithFramework("angular", kit);
    const defined = { BIBLIOTOPE_URL: ready().url, BIBLIOTOPE_WEB_KEY: ready().keys.web };
    const defines = Object.entries(defined).flatMap(([name, value]) => ["--define", `${name}='${value}'`]);
    await runIn(folder, "ng", ["build", ...defines], { NG_CLI_ANALYTICS: "false" });
    const { url, server } = await serveFolder(join(folder, "dist"));
    try {
      await page.goto(url);
      await expect(page.getByRole("status").filter({ hasText: "No place yet" })).toBeVisible();
      await chooseHarbourRow(page);
      await expect(page.getByRole("status").filter({ hasText: "Chosen: 12 Harbour Row, Tidewell" })).toBeVisible();
      // the form of the framework has what was filled, too
      await expect(page.getByText("In the form: Tidewell")).toBeVisible();
      await expect(page.getByText(/^\d+ m above the sea$/)).toBeVisible();
      await expect(page.locator("[data-bibliotope=map]")).toContainText("There is a marker at 12 Harbour Row");
      expect(await axeFindings(page)).toEqual([]);
      expect(heard).toEqual([]);
    } finally {
      server.close();
    }
  },
);

test(
  "Next: the kit's components in a page that the server renders, hooks, and a server action that stores the place",
  long(),
  async ({ page, request }) => {
    const heard = complaints(page);
    const folder = await copyWithFramework("next", kit);
    await runIn(folder, "next", ["build"], { NEXT_TELEMETRY_DISABLED: "1" });
    const env = {
      BIBLIOTOPE_URL: ready().url,
      BIBLIOTOPE_WEB_KEY: ready().keys.web,
      BIBLIOTOPE_SERVER_KEY: ready().keys.srv,
      NEXT_TELEMETRY_DISABLED: "1",
    };
    const { url, stop } = await startExample(folder, "node_modules/next/dist/bin/next", env, ["start"]);
    try {
      // the page comes from the server with its heading and fields
      const html = await (await request.get(url)).text();
      expect(html).toContain("Members");
      expect(html).toContain('name="postcode"');
      expect(html).not.toContain(ready().keys.srv);
      await page.goto(url);
      await chooseHarbourRow(page);
      await page.getByRole("button", { name: "Store" }).click();
      await expect(page.getByText(/^Stored: 12 Harbour Row, Tidewell.* \(-35\.\d+, -21\.\d+\)\.$/)).toBeVisible();
      await page.getByLabel("Street").fill("77 qqqqzzzz");
      await page.getByRole("button", { name: "Store" }).click();
      await expect(page.getByText(/^Not stored\. /)).toBeVisible();
      await page.getByLabel("A place by name").fill("12 Harbour Row, Tidewell");
      await page.getByRole("button", { name: "Look up" }).click();
      await expect(page.getByText(/^\d+ m above the sea$/)).toBeVisible();
      await expect(page.locator("[data-bibliotope=map]")).toContainText("There is a marker at 12 Harbour Row");
      expect(await axeFindings(page)).toEqual([]);
      expect(heard).toEqual([]);
    } finally {
      stop();
    }
  },
);
