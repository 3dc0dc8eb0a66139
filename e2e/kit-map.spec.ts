import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { expect, type Page, test } from "@playwright/test";
import { ready } from "./support/house.ts";

/** A developer's own page with nothing on it but a map. */
const page = () => `<!doctype html><html lang="en"><meta charset="utf-8"><title>Where</title>
<div id="map" style="width:640px;height:480px"></div>
<script type="module">
import { Client, SheetMap } from "${ready().url}/kit/v1/bibliotope.js";
const client = new Client({ key: "${ready().keys.web}", url: "${ready().url}" });
window.pressed = [];
window.makeMap = (options) => {
  window.sheet?.destroy();
  window.sheet = new SheetMap(document.querySelector("#map"), { client, label: "Where", ...options });
  window.sheet.onPress((at) => window.pressed.push(at));
};
document.documentElement.dataset.ready = "true";
</script></html>`;

interface Held {
  sheet: {
    show(view: object): void;
    setMarkers(markers: object[]): void;
    setLines(lines: object[]): void;
    fit(positions: object[]): void;
  };
  makeMap(options: object): void;
  pressed: object[];
}

let server: Server;

test.beforeAll(async () => {
  server = createServer((_, response) => void response.setHeader("content-type", "text/html").end(page()));
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
});
test.afterAll(() => void server.close());

test.beforeEach(async ({ page: browser }) => {
  await browser.goto(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
  await expect(browser.locator("html")).toHaveAttribute("data-ready", "true");
});

const sheet = (browser: Page) => browser.locator(".bt-sheet");

async function view(browser: Page): Promise<{ lat: number; lon: number; zoom: number }> {
  const [lat, lon, zoom] = (await sheet(browser).getAttribute("data-view"))!.split(",").map(Number);
  return { lat, lon, zoom };
}

/** How many pixels of the map have the colour of markers. */
const madder = (browser: Page) =>
  browser.locator(".bt-sheet canvas").evaluate((canvas: HTMLCanvasElement) => {
    const { data } = canvas.getContext("2d")!.getImageData(0, 0, canvas.width, canvas.height);
    let count = 0;
    for (let i = 0; i < data.length; i += 4)
      if (data[i] === 0x9c && data[i + 1] === 0x35 && data[i + 2] === 0x28) count++;
    return count;
  });

test("markers that would cover one another stand in a group, which comes apart where one presses it", async ({
  page: browser,
}) => {
  await browser.evaluate(() => {
    const held = window as unknown as Held;
    held.makeMap({ grouped: true, view: { at: { lat: -35.2, lon: -21.6 }, zoom: 11 } });
    const at = (i: number) => ({ lat: -35.2 + (i % 20) * 1e-4, lon: -21.6 + Math.floor(i / 20) * 1e-4 });
    held.sheet.setMarkers(Array.from({ length: 400 }, (_, i) => ({ at: at(i), label: `marker ${i}` })));
  });
  await expect(sheet(browser)).toHaveAttribute("data-complete", "true");
  await expect(browser.getByRole("status")).toHaveText("400 markers stand on the map.");
  const together = await madder(browser);
  await sheet(browser).click({ position: { x: 321, y: 240 } });
  await expect.poll(async () => (await view(browser)).zoom).toBeGreaterThan(11.5);
  const closer = await view(browser);
  expect(Math.abs(closer.lat + 35.199)).toBeLessThan(0.002);
  await expect.poll(() => madder(browser)).toBeGreaterThan(together * 1.5);
  expect(await browser.evaluate(() => (window as unknown as Held).pressed)).toEqual([]);
});

test("a press beside all markers is a press on the ground", async ({ page: browser }) => {
  await browser.evaluate(() => {
    const held = window as unknown as Held;
    held.makeMap({ grouped: true, view: { at: { lat: -35.2, lon: -21.6 }, zoom: 11 } });
    held.sheet.setMarkers([{ at: { lat: -35.2, lon: -21.6 } }]);
  });
  await sheet(browser).click({ position: { x: 500, y: 400 } });
  const [at] = (await browser.evaluate(() => (window as unknown as Held).pressed)) as { lat: number }[];
  expect(at.lat).toBeLessThan(-35.2);
});

test("the world goes on over the 180th meridian", async ({ page: browser }) => {
  await browser.evaluate(() => {
    const held = window as unknown as Held;
    held.makeMap({ view: { at: { lat: -17, lon: 179.9 }, zoom: 8 } });
    held.sheet.setMarkers([{ at: { lat: -17, lon: 179.5 } }, { at: { lat: -17, lon: -179.5 } }]);
    held.sheet.setLines([
      {
        points: [
          { lat: -17, lon: 179.5 },
          { lat: -17, lon: -179.5 },
        ],
      },
    ]);
  });
  await expect(sheet(browser)).toHaveAttribute("data-complete", "true");
  expect(await madder(browser)).toBeGreaterThan(100);
  const box = (await sheet(browser).boundingBox())!;
  await browser.mouse.move(box.x + 400, box.y + 100);
  await browser.mouse.down();
  await browser.mouse.move(box.x + 250, box.y + 100, { steps: 6 });
  await browser.waitForTimeout(150);
  await browser.mouse.up();
  const after = await view(browser);
  expect(after.lon).toBeGreaterThan(-180);
  expect(after.lon).toBeLessThan(-179);
  await expect(sheet(browser)).toHaveAttribute("data-complete", "true");
});

test("positions on both sides of the 180th meridian are shown close together", async ({ page: browser }) => {
  await browser.evaluate(() => {
    const held = window as unknown as Held;
    held.makeMap({});
    held.sheet.fit([
      { lat: -17, lon: 179 },
      { lat: -18, lon: -179 },
    ]);
  });
  await expect.poll(async () => Math.abs((await view(browser)).lon)).toBeGreaterThan(179.9);
  expect((await view(browser)).zoom).toBeGreaterThan(7);
});
