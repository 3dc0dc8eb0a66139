import { expect } from "@playwright/test";
import pixelmatch from "pixelmatch";
import { PNG } from "pngjs";
import { MAP_STYLES, type MapStyle } from "../packages/core/src/map/index.ts";
import { ready } from "./support/house.ts";
import { KitPage, type KitWindow, pictureOf, test } from "./support/kit-page.ts";
import { long } from "./support/long.ts";

const SIZE = { width: 600, height: 400 };
/** Pixels of a picture to one of its size: as fine as the tiles of the map are painted. */
const SCALE = 2;
/** Share of pixels that may differ, and how much counts as a difference. */
const MOST = 0.01;
const THRESHOLD = 0.1;

/** A position whose tiles begin on whole pixels of a view of that size. */
function onPixels(lat: number, lon: number, zoom: number) {
  const world = 256 * 2 ** zoom;
  const x = Math.round(((lon + 180) / 360) * world);
  const radians = (lat * Math.PI) / 180;
  const y = Math.round((0.5 - Math.asinh(Math.tan(radians)) / (2 * Math.PI)) * world);
  return {
    lat: (Math.atan(Math.sinh(Math.PI * (1 - (2 * y) / world))) * 180) / Math.PI,
    lon: (x / world) * 360 - 180,
  };
}

async function still(query: string): Promise<PNG> {
  const { url, keys } = ready();
  const response = await fetch(`${url}/v1/still?${query}`, { headers: { authorization: `Bearer ${keys.srv}` } });
  expect(response.status, await response.clone().text()).toBe(200);
  return PNG.sync.read(Buffer.from(await response.arrayBuffer()));
}

test.describe("the same picture from server and browser", () => {
  for (const style of MAP_STYLES) {
    for (const [what, lat, lon, zoom, night] of [
      ["a town", -35.174, -21.6255, 14, false],
      ["houses by night", -35.174, -21.6255, 16, true],
      ["an island", -36.6, -22.64, 10, false],
    ] as const)
      test(`${style}, ${what}`, long(style !== "streets" && zoom !== 14), async ({ browser, kit }) => {
        const at = onPixels(lat, lon, zoom);
        const page = await browser.newPage({ viewport: { width: 800, height: 600 }, deviceScaleFactor: SCALE });
        await page.goto(kit.page.url());
        await expect(page.locator("html")).toHaveAttribute("data-ready", "true");
        await page.evaluate(
          async ([size, options, marker]) => {
            await Promise.all([...document.fonts].map((font) => font.load()));
            Object.assign(document.querySelector<HTMLElement>("#place")!.style, {
              width: `${size.width}px`,
              height: `${size.height}px`,
            });
            const held = window as unknown as KitWindow;
            held.makeMap({ ...options, langs: [], wholeNames: true });
            held.map.setMarkers([marker]);
          },
          [
            SIZE,
            { view: { at, zoom }, mapStyle: style as MapStyle, night },
            { at, label: "Here", marked: true },
          ] as const,
        );
        const shown = new KitPage(page);
        await shown.painted();
        await page.evaluate(
          () => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))),
        );
        const inBrowser = await pictureOf(shown.map);
        const onServer = await still(
          `at=${at.lat},${at.lon}&label=Here&zoom=${zoom}&width=600&height=400&density=${SCALE}&style=${style}&lang=zxx${night ? "&night=1" : ""}`,
        );
        await page.close();
        const { width, height } = onServer;
        expect([inBrowser.width, inBrowser.height]).toEqual([width, height]);
        const difference = new PNG({ width, height });
        const differing = pixelmatch(inBrowser.data, onServer.data, difference.data, width, height, {
          threshold: THRESHOLD,
        });
        if (differing / (width * height) >= MOST)
          for (const [name, png] of Object.entries({ inBrowser, onServer, difference }))
            await test.info().attach(name, { body: PNG.sync.write(png), contentType: "image/png" });
        test.info().annotations.push({
          type: "pixels that differ",
          description: `${((100 * differing) / (width * height)).toFixed(2)} %`,
        });
        expect(differing / (width * height)).toBeLessThan(MOST);
      });
  }
});
