import { expect } from "@playwright/test";
import { type KitWindow, test } from "./support/kit-page.ts";
import { long } from "./support/long.ts";

const MADDER = "#9c3528";
const HARBOUR = { lat: -35.174, lon: -21.6309 };

test("markers that would cover one another stand in a group, which comes apart where one presses it", async ({
  kit,
  page,
}) => {
  const at = (i: number) => ({ lat: -35.2 + (i % 20) * 1e-4, lon: -21.6 + Math.floor(i / 20) * 1e-4 });
  await kit.make(
    { grouped: true, view: { at: { lat: -35.2, lon: -21.6 }, zoom: 11 } },
    Array.from({ length: 400 }, (_, i) => ({ at: at(i), label: `marker ${i}` })),
  );
  await expect(page.getByText("400 markers on the map.")).toBeAttached();
  const together = await kit.pixels(MADDER);
  await kit.map.click({ position: { x: 321, y: 240 } });
  await expect.poll(async () => (await kit.view()).zoom).toBeGreaterThan(11.5);
  expect(Math.abs((await kit.view()).lat + 35.199)).toBeLessThan(0.002);
  await expect.poll(() => kit.pixels(MADDER)).toBeGreaterThan(together * 1.5);
  expect(await kit.held("pressed")).toEqual([]);
});

test("a press beside all markers is a press on the ground", async ({ kit }) => {
  const at = { lat: -35.2, lon: -21.6 };
  await kit.make({ grouped: true, view: { at, zoom: 11 } }, [{ at }]);
  await kit.map.click({ position: { x: 500, y: 400 } });
  expect((await kit.held("pressed"))[0].lat).toBeLessThan(-35.2);
});

test("the world goes on over the 180th meridian", async ({ kit, page }) => {
  // nothing coasts on after the drag
  await page.emulateMedia({ reducedMotion: "reduce" });
  const points = [
    { lat: -17, lon: 179.5 },
    { lat: -17, lon: -179.5 },
  ];
  await kit.make(
    { view: { at: { lat: -17, lon: 179.9 }, zoom: 8 } },
    points.map((at) => ({ at })),
    [{ points }],
  );
  expect(await kit.pixels(MADDER)).toBeGreaterThan(100);
  await kit.drag([400, 100], [250, 100], { drop: false });
  await page.mouse.up();
  const { lon } = await kit.view();
  expect(lon).toBeGreaterThan(-180);
  expect(lon).toBeLessThan(-179);
  await kit.painted();
});

test("positions on both sides of the 180th meridian are shown close together", async ({ kit, page }) => {
  await kit.make();
  await page.evaluate(() =>
    (window as unknown as KitWindow).map.fit([
      { lat: -17, lon: 179 },
      { lat: -18, lon: -179 },
    ]),
  );
  await expect.poll(async () => Math.abs((await kit.view()).lon)).toBeGreaterThan(179.9);
  expect((await kit.view()).zoom).toBeGreaterThan(7);
});

test("a marker far off is reached by the nearer copy of the world", async ({ kit }) => {
  await kit.make({ view: { at: { lat: 0, lon: -179.99 }, zoom: 6 } }, [
    { at: { lat: 0, lon: 179 }, card: { title: "East" } },
  ]);
  const pixels = (256 * 2 ** 6) / 360;
  await kit.map.click({ position: { x: 320 - Math.round(1.01 * pixels), y: 240 } });
  await expect(kit.map.getByRole("dialog", { name: "East" })).toBeVisible();
});

test("a part chosen with Shift fills the map, and a second finger or Escape breaks it off", async ({ kit, page }) => {
  await kit.make({ view: { at: HARBOUR, zoom: 12 } });
  const before = await kit.view();
  await page.keyboard.down("Shift");
  await kit.drag([420, 140], [580, 260]);
  await page.keyboard.up("Shift");
  await expect.poll(async () => (await kit.view()).zoom).toBeCloseTo(14, 1);
  const degrees = 360 / (256 * 2 ** before.zoom);
  await expect.poll(async () => (await kit.view()).lon).toBeCloseTo(before.lon + (500 - 320) * degrees, 4);
  // it glides to its end: it is there when two looks see the same
  let chosen = await kit.view();
  await expect
    .poll(async () => {
      const last = JSON.stringify(chosen);
      await page.waitForTimeout(150);
      chosen = await kit.view();
      return JSON.stringify(chosen) === last;
    })
    .toBe(true);
  await kit.map.focus();
  await page.keyboard.down("Shift");
  await kit.drag([100, 100], [300, 300], { drop: false });
  await page.keyboard.press("Escape");
  await page.mouse.up();
  await page.keyboard.up("Shift");
  expect(await kit.view()).toEqual(chosen);
});

test("map styles can be chosen, and view and style stand in the page's address", async ({ kit, page }) => {
  await kit.make({
    mapStyles: ["streets", "ground", "heights", "named-ground"],
    viewInUrl: true,
    view: { at: HARBOUR, zoom: 13 },
  });
  expect(await kit.pixels("#f6f2e6")).toBeGreaterThan(1000);
  await kit.map.getByLabel("Map style").selectOption({ label: "Heights" });
  await kit.painted();
  await expect.poll(() => kit.pixels("#f0eddd")).toBeGreaterThan(1000);
  await kit.map.focus();
  await page.keyboard.press("ArrowRight");
  await expect.poll(() => new URL(page.url()).hash).toMatch(/^#at=-35\.174\d*,-21\.60\d*&zoom=13&style=heights$/);
  const { hash } = new URL(page.url());
  const left = await kit.view();
  await page.reload();
  await expect(page.locator("html")).toHaveAttribute("data-ready", "true");
  await kit.make({ viewInUrl: true });
  expect(new URL(page.url()).hash).toBe(hash);
  expect((await kit.view()).lon).toBeCloseTo(left.lon, 4);
  await expect.poll(() => kit.pixels("#f0eddd")).toBeGreaterThan(1000);
});

test("says in words what it shows", async ({ kit, page }) => {
  await kit.make({ view: { at: HARBOUR, zoom: 14 } }, [{ at: HARBOUR, label: "Old Mill" }]);
  const map = page.getByRole("application", { name: /^Where\. Arrow keys move it/ });
  await expect(map).toHaveAccessibleDescription(/^Streets, 5\.0 km across, around 35\.174° south, 21\.631° west\.$/);
  await expect(page.getByText("There is a marker at Old Mill.")).toBeAttached();
});

test("missing tiles are blank paper with a quiet note, and come when they can", long(), async ({ kit, page }) => {
  await page.route("**/v1/tiles/features/**", (route) => route.abort());
  await page.evaluate((at) => (window as unknown as KitWindow).makeMap({ view: { at, zoom: 14 } }), HARBOUR);
  const note = kit.map.getByText("Parts of the map could not be loaded. Trying again.");
  await expect(note).toBeVisible();
  expect(await kit.pixels("#f6f2e6")).toBeGreaterThan(100_000);
  await page.unroute("**/v1/tiles/features/**");
  await kit.painted();
  await expect(note).toBeHidden();
});

test("at 200 % zoom everything is there, and a press meets the spot under the pointer", async ({ browser, kit }) => {
  const page = await browser.newPage({ viewport: { width: 640, height: 400 }, deviceScaleFactor: 2 });
  await page.goto(kit.page.url());
  await expect(page.locator("html")).toHaveAttribute("data-ready", "true");
  await page.evaluate((at) => {
    document.querySelector<HTMLElement>("#place")!.style.cssText = "width:100%;height:360px";
    const held = window as unknown as KitWindow;
    held.makeMap({ aims: true, device: true, mapStyles: ["streets", "heights"], view: { at, zoom: 15 } });
  }, HARBOUR);
  const map = page.locator("[data-bibliotope=map]");
  await expect(map).toHaveAttribute("data-complete", "true");
  const outer = (await map.boundingBox())!;
  for (const name of ["Zoom in", "Zoom out", "Aim with the map", "Show my location"]) {
    const box = (await map.getByRole("button", { name }).boundingBox())!;
    expect(box.x >= outer.x && box.x + box.width <= outer.x + outer.width, name).toBe(true);
    expect(box.y >= outer.y && box.y + box.height <= outer.y + outer.height, name).toBe(true);
  }
  const ratio = await map
    .locator("canvas")
    .last()
    .evaluate((canvas: HTMLCanvasElement) => canvas.width / canvas.clientWidth);
  expect(ratio).toBe(2);
  await map.click({ position: { x: outer.width / 2, y: outer.height / 2 } });
  const [at] = await page.evaluate(() => (window as unknown as KitWindow).pressed);
  expect(at.lat).toBeCloseTo(HARBOUR.lat, 4);
  expect(at.lon).toBeCloseTo(HARBOUR.lon, 4);
  await page.close();
});
