import { expect, type Locator, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { long } from "./support/long.ts";

test.setTimeout(60_000);

/** A point of a map on which cells are drawn, in CSS pixels of the map; undefined as long as there is none. */
const drawnPoint = (live: Locator) =>
  live.locator("[data-bibliotope=map]").evaluate((element) => {
    const canvas = element.querySelector<HTMLCanvasElement>("canvas[data-cells]");
    const context = canvas?.getContext("2d");
    if (!canvas?.width || !context) return undefined;
    const { data } = context.getImageData(0, 0, canvas.width, canvas.height);
    // the westernmost, so that it is the same one after the map was moved
    let west: { x: number; y: number } | undefined;
    for (let i = 3; i < data.length; i += 4) {
      const [x, y] = [((i - 3) / 4) % canvas.width, Math.floor((i - 3) / 4 / canvas.width)];
      if (data[i] && (!west || x < west.x)) west = { x, y };
    }
    const ratio = canvas.width / canvas.clientWidth;
    return west && { x: west.x / ratio + 1, y: west.y / ratio + 1 };
  });

test("data begins with what is live: a map of it that counts, and each country", long(), async ({ page }) => {
  await page.goto("/data");
  const live = page.getByRole("region", { name: "Live now" });
  const row = live.getByRole("row", { name: /Lorramere/ });
  await expect(row).toContainText(/Lorramere\s*2\d,\d{3}\s*1,\d{3}/);
  await expect.poll(() => drawnPoint(live)).toBeDefined();
  const at = (await drawnPoint(live))!;
  const box = (await live.locator("[data-bibliotope=map]").boundingBox())!;
  await page.mouse.click(box.x + at.x, box.y + at.y);
  await expect(live.getByText(/^[\d,]+ address(es)?\.$/)).toBeVisible();
  // in the sea there are none
  await page.mouse.click(box.x + box.width / 2, box.y + box.height - 20);
  await expect(live.getByText("No addresses here.")).toBeVisible();
  // the cells go with the map
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => Math.round(((await drawnPoint(live))?.x ?? 0) - at.x)).toBeGreaterThan(40);
  expect(await axeFindings(page)).toEqual([]);
});

test("data without anything live says what it is for, with an example and the next step", long(), async ({ page }) => {
  await page.route("**/api/data", (route) => route.fulfill({ json: { dataSets: [], publications: [] } }));
  await page.goto("/data");
  const none = page.getByRole("region", { name: "No data" });
  await expect(none).toContainText("street,number,postcode,town,country,lat,lon");
  expect(await axeFindings(page)).toEqual([]);
  await none.getByRole("link", { name: "Import a file" }).click();
  await expect(page).toHaveURL(/\/data\/import$/);
});

test("forms are listed with a small picture, and with how they find addresses", async ({ page }) => {
  await page.goto("/forms");
  const form = page.getByRole("link", { name: /^Become a reader/ });
  await expect(form).toContainText("Suggestions while typing, clicks on the map · 2 addresses");
  const picture = form.locator("svg");
  await expect(picture).toBeVisible();
  // fields in the colours of what fills them
  const fills = await picture.locator("rect").evaluateAll((all) => all.map((one) => one.getAttribute("fill")));
  for (const colour of ["madder", "verdigris", "indigo", "plum"]) expect(fills).toContain(`var(--${colour})`);
  await expect(page.getByRole("link", { name: /^Offer a house/ })).toContainText("calls register");
  expect(await axeFindings(page)).toEqual([]);
});

test("corrections offer a sample, and change nothing until it is applied", long(), async ({ page }) => {
  const sent: string[] = [];
  page.on("request", (request) => {
    if (request.method() !== "GET" && !request.url().includes("/v1/")) sent.push(request.url());
  });
  await page.goto("/data/corrections");
  await page.getByRole("button", { name: "Try it with a sample address" }).click();
  await expect(page.getByRole("button", { name: "Apply", exact: true })).toBeDisabled();
  await expect(page.getByRole("region", { name: "Correct a record" })).toContainText(/\d/);
  expect(await axeFindings(page)).toEqual([]);
  await page.getByRole("button", { name: "Cancel" }).click();
  await expect(page.getByRole("button", { name: "Try it with a sample address" })).toBeVisible();
  expect(sent).toEqual([]);
});
