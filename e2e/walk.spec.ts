import { expect, test } from "@playwright/test";
import { Studio } from "./support/studio.ts";

test.describe("from the first page to a filled form", () => {
  test("the workbench opens straight into the sample form, ready to type in", async ({ page }) => {
    await page.goto("/");
    const studio = new Studio(page);
    await expect(page).toHaveURL(/\/forms\/become-a-reader\/rehearse$/);
    await expect(page.getByRole("heading", { name: "Become a reader" })).toBeVisible();
    await expect(studio.search).toBeFocused();
    await expect(page.getByRole("region", { name: "Timeline" })).toBeVisible();
    await studio.painted();
  });

  test("suggestions follow the typing, and a choice by keyboard fills the fields, lights the wires and moves the map", async ({
    page,
  }) => {
    const studio = new Studio(page);
    await studio.rehearse();
    await studio.search.pressSequentially("12 harb", { delay: 40 });
    await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row, Tidewell");
    await expect(studio.list.locator("mark").first()).toHaveText("12");
    await expect(studio.list.getByRole("option").first().locator("mark").nth(1)).toHaveText("Harb");
    await page.keyboard.press("ArrowDown");
    const active = await studio.search.getAttribute("aria-activedescendant");
    await expect(page.locator(`[id="${active}"]`)).toHaveAttribute("aria-selected", "true");
    await page.keyboard.press("Enter");

    await expect(studio.search).toHaveValue("12 Harbour Row, Tidewell");
    await expect(studio.list).toBeHidden();
    await expect(studio.field("Street and number")).toHaveValue("12 Harbour Row");
    await expect(studio.field("Town")).toHaveValue("Tidewell");
    await expect(studio.field("Postcode")).toHaveValue(/^[A-Z]{2}\d \d{2}$/);
    await expect(studio.field("Country")).toHaveValue("QR");
    await expect(studio.field("Flat, floor")).toHaveValue("");
    await expect(page.locator('input[name="exactness"]')).toHaveValue("surveyed");

    await expect(studio.part("town")).toContainText("Tidewell");
    await expect(studio.part("country")).toContainText("Lorramere · QR");
    await expect(studio.wire("house", "street")).toHaveAttribute("data-lit", "true");
    await expect(studio.wire("town", "town")).toHaveAttribute("data-lit", "true");
    await expect(studio.wire("unit", "flat")).toHaveAttribute("data-lit", "false");

    const position = await page.locator('input[name="position"]').inputValue();
    const [lat, lon] = position.split(",").map(Number);
    await expect.poll(async () => Math.abs((await studio.view()).lat - lat)).toBeLessThan(0.0001);
    expect(Math.abs((await studio.view()).lon - lon)).toBeLessThan(0.0001);
    await expect(studio.map).toContainText("There is a marker at 12 Harbour Row.");
  });

  test("a press on another house fills the same fields with the nearest address", async ({ page }) => {
    const studio = new Studio(page);
    await studio.rehearse();
    await studio.search.pressSequentially("12 harb", { delay: 30 });
    await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row");
    await studio.list.getByRole("option").first().click();
    await expect(studio.field("Street and number")).toHaveValue("12 Harbour Row");
    await studio.painted();
    const box = (await studio.map.boundingBox())!;
    await page.mouse.click(box.x + box.width / 2 - 130, box.y + box.height / 2 - 130);
    await expect(studio.field("Street and number")).not.toHaveValue("12 Harbour Row");
    await expect(studio.field("Street and number")).toHaveValue(/^\d+\w? \S+/);
    await expect(studio.field("Town")).toHaveValue("Tidewell");
    await expect(studio.map).toContainText(await studio.field("Street and number").inputValue());
    await expect(studio.search).toHaveValue(new RegExp(await studio.field("Street and number").inputValue()));
  });

  test("a press on the open sea fills nothing and says so", async ({ page }) => {
    const studio = new Studio(page);
    await studio.rehearse();
    await studio.painted();
    const box = (await studio.map.boundingBox())!;
    await page.mouse.click(box.x + 60, box.y + 60);
    await expect(page.getByText(/Nothing was found near this position/)).toBeVisible();
    await expect(studio.field("Town")).toHaveValue("");
  });

  test("clearing the search clears what it filled, and leaves what the person corrected", async ({ page }) => {
    const studio = new Studio(page);
    await studio.rehearse();
    await studio.search.pressSequentially("12 harb", { delay: 30 });
    await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row");
    await studio.list.getByRole("option").first().click();
    await expect(studio.field("Town")).toHaveValue("Tidewell");
    await studio.field("Town").press("End");
    await studio.field("Town").pressSequentially(" North");
    await expect(studio.field("Town")).toHaveAttribute("data-bt", "corrected");
    await studio.search.fill("");
    await studio.search.press("a");
    await studio.search.press("Backspace");
    await expect(studio.field("Street and number")).toHaveValue("");
    await expect(studio.field("Town")).toHaveValue("Tidewell North");
    await expect(studio.part("town")).toContainText("–");
  });

  test("what happened stands below, and every mark opens what was sent and what came back", async ({ page }) => {
    const studio = new Studio(page);
    await studio.rehearse();
    await studio.search.pressSequentially("12 harb", { delay: 60 });
    await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
    const trace = page.getByRole("region", { name: "Timeline" });
    await expect(trace.getByRole("listbox", { name: "keys" }).getByRole("option")).toHaveCount(8);
    await expect(trace.getByRole("listbox", { name: "fields" }).getByRole("option")).toHaveText("chosen: 7 fields");
    await expect(trace).toContainText("7 keys");
    await trace.getByRole("option", { name: /^record: \d+ ms$/ }).click();
    const opened = page.getByRole("dialog");
    await expect(opened).toContainText("/v1/records/");
    await expect(opened).toContainText('"exactness": "surveyed"');
    await page.keyboard.press("Escape");
    await expect(opened).toBeHidden();

    await trace.getByRole("listbox", { name: "requests" }).focus();
    await page.keyboard.press("End");
    await page.keyboard.press("ArrowLeft");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("dialog", { name: /^suggest: \d+ ms$/ })).toContainText('"q": "12 harb"');
  });

  test("another country writes its addresses its own way, and its parts stand in the gutter", async ({ page }) => {
    const studio = new Studio(page);
    await studio.rehearse();
    await studio.search.pressSequentially("τετραγωνο 7 4 πελανια", { delay: 10 });
    await expect(studio.list.getByRole("option").first()).toContainText("Τετράγωνο 7");
    await studio.list.getByRole("option").filter({ hasText: "Τετράγωνο 7, 4" }).first().click();
    await expect(studio.field("Street and number")).toHaveValue("Τετράγωνο 7, 4");
    await expect(studio.field("Country")).toHaveValue("QY");
    await expect(studio.part("block")).toContainText("Τετράγωνο 7");
    await expect(studio.part("building")).toContainText("4");
    await expect(studio.part("house")).toHaveCount(0);
  });
});
