import { writeFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { PNG } from "pngjs";
import { generateIslands } from "../packages/islands/src/index.ts";
import { axeFindings } from "./support/axe.ts";
import { long } from "./support/long.ts";

/** Prices by town: dearer the further north; some are not known. */
function prices(): string {
  const towns = generateIslands().areas.filter(({ kind, country }) => kind === "town" && country !== "QY");
  const sorted = [...towns].sort((a, b) => a.at.lat - b.at.lat);
  const rows = sorted.map(({ names, country }, i) =>
    [names[0].name, country, i % 9 === 4 ? "" : `€ ${(300 + i * 25).toLocaleString("en")}`, i % 2 ? "let" : "sold"]
      .map((cell) => (cell.includes(",") ? `"${cell}"` : cell))
      .join(","),
  );
  return `town,country,price,how\n${rows.join("\n")}\n`;
}

test(
  "prices by town on one map: coloured by a column, with a legend, and back to how the rows stand",
  long(),
  async ({ page }, info) => {
    const path = info.outputPath("prices.csv");
    writeFileSync(path, prices());
    await page.goto("/batches");
    await page.getByRole("link", { name: "New batch" }).click();
    await page.getByLabel("File", { exact: true }).setInputFiles(path);
    await page.getByRole("button", { name: "Look up all rows" }).click();
    await expect(page.getByText("looked up in")).toBeVisible({ timeout: 60_000 });
    await page.getByText("All rows", { exact: true }).click();
    const map = page.locator("[data-bibliotope=map]");
    const legend = page.getByRole("list", { name: "Colour legend" });
    await expect(page.getByLabel("Colour by")).toHaveValue("");
    await expect(legend).toHaveCount(0);

    await page.getByLabel("Colour by").selectOption({ label: "price" });
    await expect(legend.getByRole("listitem")).toHaveCount(6);
    await expect(legend.getByRole("listitem").first()).toHaveText(/^300 to [\d,]+ \d+$/);
    await expect(legend.getByRole("listitem").last()).toHaveText(/^no value \d+$/);
    await expect(page.getByText(/^Mean [\d,.]+$/)).toBeVisible();
    await expect(map).toHaveAttribute("data-complete", "true");
    expect(await axeFindings(page)).toEqual([]);
    /** How many pixels of the map have a colour. */
    const pixels = async (colour: string) => {
      const { data } = PNG.sync.read(await map.screenshot());
      const [r, g, b] = [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));
      let found = 0;
      for (let i = 0; i < data.length; i += 4) if (data[i] === r && data[i + 1] === g && data[i + 2] === b) found++;
      return found;
    };
    await expect.poll(() => pixels("#5867b8")).toBeGreaterThan(20);
    await expect.poll(() => pixels("#e3bd5b")).toBeGreaterThan(20);
    await page.screenshot({ path: info.outputPath("prices.png") });

    await page.getByLabel("Colour by").selectOption({ label: "how" });
    await expect(legend.getByRole("listitem")).toHaveText([/^(let|sold) \d+$/, /^(let|sold) \d+$/]);
    await page.getByLabel("Colour by").selectOption({ label: "status" });
    await expect(legend).toHaveCount(0);
    await expect.poll(() => pixels("#5867b8")).toBe(0);
  },
);
