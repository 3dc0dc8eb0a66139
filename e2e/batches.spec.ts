import { readFileSync, writeFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { sized } from "../packages/server/testing/sizes.ts";
import { axeFindings } from "./support/axe.ts";
import { long } from "./support/long.ts";
import { members } from "./support/members.ts";

const clean = async (page: Page) => expect(await axeFindings(page)).toEqual([]);
const ROWS = sized(4000, 100_000);
const COUNT = ROWS.toLocaleString("en");

test(
  "a large batch with a fifth of it damaged is reviewed by keyboard, written out and read back",
  long(),
  async ({ page }, info) => {
    test.setTimeout(400_000);
    const path = info.outputPath("members.csv");
    writeFileSync(path, `member,address,town,postcode\n${members(ROWS).join("\n")}\n`);
    await page.goto("/batches");
    await page.getByRole("link", { name: "New batch" }).click();
    await clean(page);
    await page.getByLabel("File", { exact: true }).setInputFiles(path);
    await expect(page.getByLabel("Meaning of address", { exact: true })).toHaveValue("line");
    await clean(page);
    await page.getByRole("button", { name: "Look up all rows" }).click();
    await expect(page.getByRole("progressbar")).toBeVisible();
    await expect(page.getByText("looked up in")).toBeVisible({ timeout: 300_000 });
    await expect(page.getByText(`${COUNT} rows`)).toBeVisible();

    const rows = page.getByRole("region", { name: "Rows", exact: true });
    const here = rows.locator("[aria-current=true]");
    const candidates = page.getByRole("list", { name: "Candidates" }).getByRole("listitem");
    const rowOf = async () =>
      Number(/row ([\d,]+)/.exec((await page.getByText(/^row [\d,]+/).textContent())!)![1].replace(",", ""));
    const decided = new Map<number, string>();
    const press = async (key: string, how: string) => {
      await expect(candidates.first()).toBeVisible();
      const number = await rowOf();
      await page.keyboard.press(key);
      await expect(page.getByText(`row ${number.toLocaleString("en")}`, { exact: true })).toHaveCount(0);
      decided.set(number, how);
    };
    await press("Enter", "accept");
    await press("l", "leave");
    await press("1", "accept");
    await expect(rows.getByText("accepted")).toHaveCount(2);

    // corrected: another text in its place, then what that finds
    await expect(candidates.first()).toBeVisible();
    const corrected = await rowOf();
    await page.keyboard.press("e");
    await page.getByLabel("Corrected text").fill("12 Harbour Row, Tidewell");
    await page.keyboard.press("Enter");
    await expect(candidates.first()).toContainText("12 Harbour Row, Tidewell");
    await page.keyboard.press("Enter");
    await expect(rows.getByText("corrected")).toBeVisible();
    decided.set(corrected, "correct");

    // and one decision taken back
    const undone = await rowOf();
    await press("l", "leave");
    await page.keyboard.press("b");
    await expect(page.getByText(`row ${undone.toLocaleString("en")}`)).toBeVisible();
    decided.delete(undone);
    await expect(here).toBeVisible();
    await expect(page.getByRole("img", { name: /doubtful, 4 reviewed|4 reviewed/ })).toBeVisible();

    await page.getByRole("button", { name: "All rows" }).click();
    await expect(page.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
    await clean(page);

    await page.getByRole("button", { name: "Export" }).click();
    await expect(page.getByRole("menu")).toBeVisible();
    await clean(page);
    const [csv] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("menuitem", { name: "CSV, all rows" }).click(),
    ]);
    const [head, ...out] = readFileSync(await csv.path(), "utf8")
      .trimEnd()
      .split("\r\n");
    expect(head.startsWith("member,address,town,postcode,standing,decision,outcome,score")).toBe(true);
    expect(out).toHaveLength(ROWS);
    const given = readFileSync(path, "utf8").trimEnd().split("\n").slice(1);
    expect(out.every((line, i) => line.startsWith(`${given[i]},`))).toBe(true);
    for (const [number, how] of decided) expect(out[number - 2]).toContain(`,seen,${how},`);
    expect(out[corrected - 2]).toContain("12 Harbour Row, Tidewell");
    // four of five are as they should be: most of them need nobody
    expect(out.filter((line) => line.includes(",clear,")).length).toBeGreaterThan(ROWS * 0.7);
  },
);

test("a sample shows what a batch is: some rows clear, some doubtful, one not found", long(), async ({ page }) => {
  await page.goto("/batches/new");
  await page.getByRole("button", { name: "Try it with six sample addresses" }).click();
  await page.getByRole("button", { name: "Use these 6 lines" }).click();
  await page.getByRole("button", { name: "Look up all rows" }).click();
  await expect(page.getByText(/^6 rows/)).toBeVisible();
  const { counts } = (await (await page.request.get("/api/batches")).json()).batches[0];
  expect(counts.clear).toBeGreaterThanOrEqual(3);
  expect(counts.doubtful).toBeGreaterThanOrEqual(1);
  expect(counts.none).toBeGreaterThanOrEqual(1);
});

test("lines that are pasted are looked up, whatever is in them", long(), async ({ page }) => {
  await page.goto("/batches/new");
  await page
    .getByRole("textbox")
    .fill('12 Harbour Row, Tidewell\n"quoted", 3 Harbour Row Tidewell\n-35.1841, -21.6253\n');
  await page.getByRole("button", { name: "Use these 3 lines" }).click();
  await page.getByRole("button", { name: "Look up all rows" }).click();
  await expect(page.getByText(/^3 rows/)).toBeVisible();
  await page.getByLabel("Which rows").selectOption("all");
  await expect(page.getByRole("region", { name: "Rows", exact: true }).getByRole("listitem")).toHaveCount(3);
});
