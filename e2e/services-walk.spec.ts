import { type ChildProcess, spawn } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { SAMPLE_FORMS } from "@bibliotope/islands";
import { expect, test } from "@playwright/test";
import { testHome } from "./support/house.ts";
import { long } from "./support/long.ts";
import { saveForm } from "./support/studio.ts";

const root = join(import.meta.dirname, "..");
const page = readFileSync(join(root, "docs/services.md"), "utf8");
/** A block of code of the page, by its language; none is left out. */
const blocks = (language: string) =>
  [...page.matchAll(new RegExp(`\`\`\`${language}\\n([\\s\\S]*?)\`\`\``, "g"))].map(([, code]) => code);

test(
  "docs/services.md is walked as it stands, from nothing to a filled field, and on without the service",
  long(),
  async ({ page: browser }) => {
    // within the repository, so that Express is found
    const file = join(testHome(), "days.mjs");
    writeFileSync(file, blocks("js")[0]);
    const service: ChildProcess = spawn(process.execPath, [file], { stdio: "inherit" });
    try {
      const [days, rule] = blocks("json").map((code) => JSON.parse(code));
      const sample = SAMPLE_FORMS.find(({ ref }) => ref === "offer-a-house")!.definition;
      const definition = {
        ...sample,
        title: "Walked",
        fields: [...sample.fields, days],
        services: [...sample.services!, rule],
      };
      await browser.goto("/services");
      await browser.getByRole("button", { name: "Allowed hosts" }).click();
      await browser.getByLabel("Scheme, host and port").fill("http://127.0.0.1:4800");
      await browser.getByLabel("internal network").check();
      await browser.getByRole("button", { name: "Allow" }).click();
      await expect(browser.getByRole("dialog")).toContainText("http://127.0.0.1:4800");
      await browser.keyboard.press("Escape");
      await browser.getByRole("link", { name: "New service" }).click();
      await browser.getByLabel("Title").fill("Van days");
      await browser.getByLabel("Name for forms").fill("van");
      await browser.getByLabel("Address", { exact: true }).fill("http://127.0.0.1:4800/days{?town}");
      await browser.getByRole("button", { name: "Try it with these values" }).click();
      const name = async (row: RegExp) => {
        await browser.getByRole("treeitem").filter({ hasText: row }).first().click();
        await browser.getByRole("button", { name: "Use in forms" }).click();
      };
      await name(/0 "Tuesday"/);
      await name(/before/);
      await browser.getByRole("button", { name: "Save", exact: true }).click();
      await expect(browser).toHaveURL(/services\/van$/);
      const ref = await saveForm(browser, definition);
      await browser.goto(`/forms/${ref}/rehearse`);
      const write = async (house: string) => {
        for (const [field, text] of Object.entries({ street: "harbour row", house, town: "tidewell" })) {
          await browser.locator(`[data-bibliotope=form] [name="${field}"]`).fill("");
          await browser.locator(`[data-bibliotope=form] [name="${field}"]`).click();
          await browser.keyboard.type(text);
          await browser.keyboard.press("Tab");
        }
      };
      await write("12");
      const comes = browser.locator('[data-bibliotope=form] [name="days"]');
      await expect(comes).toHaveText("Tuesday\nFriday\nbefore 10:00");
      service.kill();
      await write("14");
      const said = page.match(/\*(The van is not responding[^*]*)\*/)![1].replace(/\s+/g, " ");
      await expect(browser.locator('.bt-service[data-service="van"]')).toHaveText(said);
      await expect(comes).toBeHidden();
    } finally {
      service.kill();
    }
  },
);
