import { readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { ready } from "./support/house.ts";
import { long } from "./support/long.ts";

const clean = async (page: Page) => expect(await axeFindings(page)).toEqual([]);
const file = (name: string, lines: readonly string[]) => ({
  name,
  mimeType: "text/csv",
  buffer: Buffer.from(`${lines.join("\n")}\n`),
});

/** A head of its own: what columns were taken for is remembered by their heads. */
const NOTE = `Anmerkung ${Date.now()}`;
const HEAD = `Straße;Hausnr;Ort;Land;Breite;Länge;${NOTE}`;
const houses = (count: number, from = 1) =>
  Array.from({ length: count }, (_, i) => `Osier Net;${from + i};Netherwick;QR;-35,${18_000 + i * 20};-21,62;x`);

const found = async (q: string) => {
  const response = await fetch(`${ready().url}/v1/forward?q=${encodeURIComponent(q)}`, {
    headers: { authorization: `Bearer ${ready().keys.srv}` },
  });
  return ((await response.json()) as { features: { properties: { line: string } }[] }).features[0]?.properties.line;
};

async function bring(page: Page, lines: readonly string[], dataSet: string): Promise<void> {
  await page.goto("/data");
  await page.getByRole("link", { name: "Import a file" }).click();
  await page.getByLabel("File", { exact: true }).setInputFiles(file("houses.csv", lines));
  await expect(page.getByRole("heading", { name: "Columns" })).toBeVisible();
  await page.getByLabel("Data set").fill(dataSet);
  await page.getByLabel("Licence").fill("CC0-1.0");
  await page.getByLabel("Source").fill("The reeds' office");
}

test("a file is brought, looked at, loaded, compared, published and gone back from", long(), async ({ page }) => {
  const name = `Houses of the reeds ${test.info().retry} ${Date.now()}`;
  await bring(page, [HEAD, ...houses(40), "Osier Net;99;Netherwick;QR;0;0;x"], name);
  await expect(page.getByLabel("Meaning of Straße", { exact: true })).toHaveValue("street");
  await expect(page.getByRole("row", { name: /Breite/ })).toContainText("named “Breite”");
  await expect(page.getByRole("region", { name: "First rows" })).toContainText("1 of them would be rejected");
  await expect(page.getByRole("region", { name: "First rows" })).toContainText("1 Osier Net, Netherwick");

  // a column taken for something else, and back
  await page.getByLabel(`Meaning of ${NOTE}`, { exact: true }).selectOption("Town");
  await expect(page.getByLabel("Meaning of Ort", { exact: true })).toHaveValue("");
  await page.getByLabel("Meaning of Ort", { exact: true }).selectOption("Town");
  await expect(page.getByLabel(`Meaning of ${NOTE}`, { exact: true })).toHaveValue("");
  await expect(page.getByRole("region", { name: "First rows" })).toContainText("1 Osier Net, Netherwick");
  await clean(page);
  await page.getByRole("button", { name: "Import as a draft" }).click();

  const set = page.getByRole("region", { name, exact: true });
  await expect(set).toContainText("40 addresses, 1 street");
  await expect(set).toContainText("draft");
  expect(await found("12 Osier Net, Netherwick")).not.toBe("12 Osier Net, Netherwick");
  await clean(page);

  await set.getByRole("button", { name: "Publish" }).click();
  await expect(page.getByRole("dialog")).toContainText("The islands");
  await clean(page);
  await page.getByRole("dialog").getByRole("button", { name: "Publish", exact: true }).click();
  await expect(set.getByText("live", { exact: true })).toBeVisible({ timeout: 60_000 });
  expect(await found("12 Osier Net, Netherwick")).toBe("12 Osier Net, Netherwick");

  await bring(page, [HEAD, ...houses(30, 5), "Reed Net;1;Netherwick;QR;-35,18;-21,62;x"], name);
  await expect(page.getByRole("row", { name: /Breite/ })).toContainText("as last time");
  await page.getByRole("button", { name: "Import as a draft" }).click();
  await set.getByRole("link", { name: "2" }).click();
  const changes = page.getByRole("region", { name: "What it changes" });
  await expect(changes.getByRole("row", { name: /Addresses/ })).toHaveText(/Addresses110300\d*|Addresses1\D*10/);
  await expect(changes.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
  await clean(page);

  const takeOut = page.getByRole("region", { name: "Export" });
  await takeOut.getByLabel("only within").fill("Nowhere");
  await expect(takeOut).toContainText("There is no area with that name in this version.");
  await expect(takeOut.getByRole("link")).toHaveCount(0);
  await takeOut.getByLabel("only within").fill("netherwick");
  await expect(takeOut).toContainText("Export Netherwick as");
  await takeOut.getByLabel("including corrections made by hand").uncheck();
  await expect(takeOut.getByRole("link", { name: "GPX" })).toHaveAttribute("href", /inside=qr-\w+&corrected=no$/);
  await clean(page);
  const [csv] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "CSV", exact: true }).click(),
  ]);
  expect(readFileSync(await csv.path(), "utf8").split("\r\n")[0]).toContain("id,street,house");

  await page.goto("/data");
  await page
    .getByRole("region", { name: "Publication history" })
    .getByRole("button", { name: "Restore" })
    .first()
    .click();
  await page.getByRole("dialog").getByRole("button", { name: "Publish", exact: true }).click();
  await expect(set.getByText("was live")).toBeVisible({ timeout: 60_000 });
  expect(await found("12 Osier Net, Netherwick")).not.toBe("12 Osier Net, Netherwick");
});

test(
  "metres that may be read in two ways are asked about, and shown on a map before anything is loaded",
  long(),
  async ({ page }) => {
    const rows = Array.from(
      { length: 30 },
      (_, i) => `ulica Lipowa;${i + 1};10-629;Czarnowola;${249_981 + i * 20};${470_961 + i * 9};x`,
    );
    await bring(page, [`ulica;numer;kod_pocztowy;miejscowosc;x;y;${NOTE}`, ...rows], "Punkty");
    const first = page.getByRole("region", { name: "First rows" });
    await expect(first).toContainText("30 of them would be rejected");
    const readings = page.getByRole("list", { name: "Possible coordinate systems" });
    await expect(readings.getByRole("listitem")).toHaveCount(2);
    await expect(page.getByRole("region", { name: "Preview on the map" })).toContainText("No row has a position yet");
    await clean(page);
    await readings
      .getByRole("listitem")
      .filter({ hasText: "swapped" })
      .getByRole("button", { name: "Use this" })
      .click();
    await expect(first).toContainText("all valid");
    await expect(page.getByLabel("Meaning of x", { exact: true })).toHaveValue("north");
    await expect(readings.getByRole("listitem").filter({ hasText: "selected" })).toHaveText(/^PL-1992.*selected$/);
    await expect(page.getByRole("region", { name: "Preview on the map" })).toContainText("The first 30 rows");
    await expect(first).toContainText("50.11636, 18.59370");
    await clean(page);
  },
);

test("a file that is no table is refused, and nothing is changed", async ({ page }) => {
  await page.goto("/data/import");
  const choose = page.getByLabel("File", { exact: true });
  await choose.setInputFiles({
    name: "picture.csv",
    mimeType: "text/csv",
    buffer: Buffer.from([0x89, 0x50, 0, 0, 0, 0, 0, 1]),
  });
  await expect(page.getByRole("alert")).toContainText("NUL bytes");
  await page.getByRole("button", { name: "Choose another file" }).click();
  await choose.setInputFiles(file("empty.csv", [HEAD]));
  await expect(page.getByRole("alert")).toContainText("no rows below");
});

test("for how long things are kept is shown, and changed by whoever manages", long(), async ({ page }, info) => {
  await page.goto("/data");
  const section = page.getByRole("region", { name: "Retention" });
  const days = section.getByLabel("Uploaded files, days");
  const before = await days.inputValue();
  await days.fill("0");
  await expect(section.getByRole("button", { name: "Set" }).last()).toBeDisabled();
  await days.fill("21");
  // the button is disabled while it is saved, too
  const saved = page.waitForResponse((response) => response.url().includes("/api/retention/"));
  await section.getByRole("button", { name: "Set" }).last().click();
  expect((await saved).ok()).toBe(true);
  await expect(section.getByRole("button", { name: "Set" }).last()).toBeDisabled();
  await page.reload();
  await expect(days).toHaveValue("21");
  await section.scrollIntoViewIfNeeded();
  await page.screenshot({ path: info.outputPath("kept.png") });
  await clean(page);
  await days.fill(before);
  await section.getByRole("button", { name: "Set" }).last().click();
  await expect(section.getByRole("button", { name: "Set" }).last()).toBeDisabled();
});
