import { readFileSync, writeFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { PNG } from "pngjs";
import { generateIslands } from "../packages/islands/src/index.ts";
import { axeFindings } from "./support/axe.ts";
import { long } from "./support/long.ts";

test.setTimeout(60_000);

const DARK = "#5867b8";
const LIGHT = "#e3bd5b";

/** Towns with a price, a number of sales and whether most are let or sold; `times` as many, around each town. */
function prices(times = 1): string {
  const towns = generateIslands().areas.filter(({ kind }) => kind === "town");
  const sorted = towns.toSorted((a, b) => a.at.lat - b.at.lat);
  const rows = sorted.flatMap(({ names, at }, i) =>
    Array.from({ length: times }, (_, j) => {
      const [lat, lon] = [at.lat + (j % 37) / 900, at.lon + Math.floor(j / 37) / 900];
      const price = i % 9 === 4 ? "" : `"€ ${(300 + i * 25).toLocaleString("en")}"`;
      return [names[0].name, lat.toFixed(5), lon.toFixed(5), price, (i * 7) % 40, i % 2 ? "let" : "sold"].join(",");
    }),
  );
  return `town,lat,lon,price,sales,how\n${rows.join("\n")}\n`;
}

const pixelsIn = (png: Buffer, colour: string) => {
  const { data } = PNG.sync.read(png);
  const [r, g, b] = [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));
  let found = 0;
  for (let i = 0; i < data.length; i += 4) if (data[i] === r && data[i + 1] === g && data[i + 2] === b) found++;
  return found;
};

/** Drops a file on the map, as a person does. */
async function dropFile(page: Page, name: string, text: string): Promise<void> {
  const data = await page.evaluateHandle(
    ([called, holds]) => {
      const transfer = new DataTransfer();
      transfer.items.add(new File([holds], called, { type: "text/csv" }));
      return transfer;
    },
    [name, text],
  );
  await page.locator("[data-bibliotope=map]").dispatchEvent("drop", { dataTransfer: data });
}

test(
  "a CSV dropped on the map: its columns are colours, sizes and labels; out as a picture and as GeoJSON",
  long(),
  async ({ page }, info) => {
    await page.goto("/batches");
    await page.getByRole("link", { name: "Values on a map" }).click();
    await expect(page.getByText("Drop a file on the map")).toBeVisible();
    const map = page.locator("[data-bibliotope=map]");
    await expect(map).toHaveAttribute("data-complete", "true");
    expect(await axeFindings(page)).toEqual([]);
    const asked: string[] = [];
    page.on("request", (request) => request.method() === "POST" && asked.push(request.url()));
    await dropFile(page, "prices.csv", prices());
    await expect(page.getByText(/^prices\.csv: (\d+) of \1 rows have a position$/)).toBeVisible();

    await page.getByLabel("Colour by").selectOption({ label: "price" });
    const colours = page.getByRole("list", { name: "Colour legend" });
    await expect(colours.getByRole("listitem")).toHaveCount(6);
    await page.getByLabel("Size by").selectOption({ label: "sales" });
    await expect(page.getByRole("list", { name: "Size legend" }).getByRole("listitem")).toHaveText(["0", "39"]);
    await page.getByLabel("Label by").selectOption({ label: "town" });
    await expect.poll(async () => pixelsIn(await map.screenshot(), DARK)).toBeGreaterThan(20);
    await expect(map).toHaveAttribute("data-complete", "true");
    expect(await axeFindings(page)).toEqual([]);
    await page.screenshot({ path: info.outputPath("values.png") });

    await page.getByLabel("Groups show").selectOption({ label: "their mean" });
    await expect(map).toHaveAttribute("data-complete", "true");
    await page.screenshot({ path: info.outputPath("means.png") });

    const png = page.waitForEvent("download");
    await page.getByRole("button", { name: "Save as PNG" }).click();
    const picture = readFileSync(await (await png).path());
    writeFileSync(info.outputPath("saved.png"), picture);
    expect((await png).suggestedFilename()).toBe("prices.png");
    const box = (await map.boundingBox())!;
    const { width, height } = PNG.sync.read(picture);
    expect(width).toBe(Math.round(box.width));
    expect(height).toBeGreaterThan(box.height + 30);
    // the legend below the map has a patch of each colour
    const legend = PNG.sync.read(picture);
    const below = new PNG({ width, height: height - Math.round(box.height) });
    PNG.bitblt(legend, below, 0, Math.round(box.height), width, below.height, 0, 0);
    for (const colour of [DARK, LIGHT]) expect(pixelsIn(PNG.sync.write(below), colour)).toBeGreaterThan(80);

    const geo = page.waitForEvent("download");
    await page.getByRole("button", { name: "Save as GeoJSON" }).click();
    const text = readFileSync(await (await geo).path(), "utf8");
    const { features } = JSON.parse(text);
    expect(features[0]).toMatchObject({ type: "Feature", geometry: { type: "Point" }, properties: { sales: "0" } });
    // what went out comes in again
    await dropFile(page, "again.geojson", text);
    await expect(page.getByText(`again.geojson: ${features.length} of ${features.length} rows`)).toBeVisible();
    expect(asked).toEqual([]);
  },
);

test("files that cannot be shown are refused in words, and what was shown stays", long(), async ({ page }) => {
  await page.goto("/values");
  await dropFile(page, "prices.csv", prices());
  await expect(page.getByText(/^prices\.csv:/)).toBeVisible();
  await dropFile(page, "towns.csv", "town,price\nTidewell,3\n");
  await expect(page.getByRole("alert")).toHaveText(/^No row has a position\. To look up addresses, use/);
  await expect(page.getByText(/^prices\.csv:/)).toBeVisible();
  expect(await axeFindings(page)).toEqual([]);
  await dropFile(page, "hard.csv", 'lat,lon,<b>x</b>\n-35.18,-21.62,"<img src=x onerror=alert(1)>"\n');
  await page.getByLabel("Label by").selectOption({ index: 3 });
  await page.locator("[data-bibliotope=map]").focus();
  await expect(page.locator("[data-bibliotope=map] img")).toHaveCount(0);
});

test(
  "ten thousand coloured rows stand in groups that have the colour of their mean",
  long(),
  async ({ page }, info) => {
    await page.goto("/values");
    await dropFile(page, "many.csv", prices(160));
    await expect(page.getByText(/^many\.csv: [\d,]+ of [\d,]+ rows have a position$/)).toBeVisible();
    await page.getByLabel("Colour by").selectOption({ label: "price" });
    await page.getByLabel("Groups show").selectOption({ label: "their mean" });
    const map = page.locator("[data-bibliotope=map]");
    await expect(map).toHaveAttribute("data-complete", "true");
    // dear in the north, cheap in the south
    const [dark, light] = [DARK, LIGHT];
    await expect.poll(async () => pixelsIn(await map.screenshot(), dark)).toBeGreaterThan(100);
    expect(pixelsIn(await map.screenshot(), light)).toBeGreaterThan(100);
    await page.screenshot({ path: info.outputPath("many.png") });
  },
);
