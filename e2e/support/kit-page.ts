import { readFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { test as base, expect, type Locator, type Page } from "@playwright/test";
import { PNG } from "pngjs";
import type { Client, InteractiveMap, MapLine, MapOptions, Marker } from "../../packages/kit/src/index.ts";
import { ready } from "./house.ts";

/** What the page keeps for its tests. */
export interface KitWindow {
  /** All that the kit exports. */
  kit: typeof import("../../packages/kit/src/index.ts");
  client: Client;
  map: InteractiveMap;
  makeMap(options: Partial<MapOptions>): void;
  pressed: { lat: number; lon: number }[];
  /** What happened to markers, as "type name". */
  happened: string[];
  followed: { why: string; isLast: boolean; line: string | undefined }[];
}

const FONTS = join(import.meta.dirname, "../../node_modules/@fontsource-variable");
/** The fonts that the server paints stills with, from the same files. */
const FACES = [
  ["literata", "latin-wght-italic", "Literata Variable", "italic"],
  ["literata", "latin-wght-normal", "Literata Variable", "normal"],
  ["literata", "greek-wght-italic", "Literata", "italic"],
  ["literata", "greek-wght-normal", "Literata", "normal"],
  ["jetbrains-mono", "latin-wght-normal", "JetBrains Mono Variable", "normal"],
]
  .map(
    ([font, file, family, style]) =>
      `@font-face { font-family: "${family}"; font-style: ${style}; font-weight: 200 900; src: url("/fonts/${font}/${file}"); } `,
  )
  .join("");

/** A developer's own page with nothing on it but a map. */
const html = () => `<!doctype html><html lang="en"><meta charset="utf-8"><title>Where</title>
<style>${FACES}body { margin: 8px; font-family: sans-serif; }</style>
<input aria-label="Beside"><div id="place" style="width:640px;height:480px"></div>
<script type="module">
import * as whole from "${ready().url}/kit/v1/bibliotope.js";
const { Client, InteractiveMap } = whole;
const client = new Client({ key: "${ready().keys.web}", url: "${ready().url}" });
Object.assign(window, { kit: whole, client, pressed: [], happened: [], followed: [] });
window.makeMap = (options) => {
  window.map?.destroy();
  const map = new InteractiveMap(document.querySelector("#place"), { client, label: "Where", ...options });
  window.map = map;
  map.onPress((at) => window.pressed.push(at));
  map.onMarker(({ type, marker }) => window.happened.push(type + " " + (marker.name ?? marker.label)));
  map.onFollow(({ why, isLast, address }) => window.followed.push({ why, isLast, line: address?.properties.line }));
};
document.documentElement.dataset.ready = "true";
</script></html>`;

/** What a map shows: its tiles, and over them names and markers. */
export async function pictureOf(map: Locator): Promise<PNG> {
  const url = await map.locator(".bt-view").evaluate((view) => {
    const shown = [...view.querySelectorAll("canvas")].filter(({ hidden }) => !hidden);
    const whole = document.createElement("canvas");
    whole.width = shown[0].width;
    whole.height = shown[0].height;
    const context = whole.getContext("2d")!;
    for (const canvas of shown) context.drawImage(canvas, 0, 0);
    return whole.toDataURL("image/png");
  });
  return PNG.sync.read(Buffer.from(url.split(",")[1], "base64"));
}

/** A page of a developer's with a map on it. */
export class KitPage {
  readonly map: Locator;

  constructor(readonly page: Page) {
    this.map = page.locator("[data-bibliotope=map]");
  }

  async make(
    options: Partial<MapOptions> = {},
    markers: readonly Marker[] = [],
    lines: readonly MapLine[] = [],
  ): Promise<void> {
    await this.page.evaluate(
      ([how, stands, drawn]) => {
        const held = window as unknown as KitWindow;
        held.makeMap(how);
        held.map.setMarkers(stands);
        held.map.setLines(drawn);
      },
      [options, markers, lines] as [Partial<MapOptions>, Marker[], MapLine[]],
    );
    await this.painted();
  }

  async painted(): Promise<void> {
    await expect(this.map).toHaveAttribute("data-complete", "true");
  }

  async view(): Promise<{ lat: number; lon: number; zoom: number }> {
    const [lat, lon, zoom] = (await this.map.getAttribute("data-view"))!.split(",").map(Number);
    return { lat, lon, zoom };
  }

  /** How many pixels of the map have a colour, #rrggbb. */
  async pixels(colour: string): Promise<number> {
    const { data } = await pictureOf(this.map);
    const [r, g, b] = [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));
    let count = 0;
    for (let i = 0; i < data.length; i += 4) if (data[i] === r && data[i + 1] === g && data[i + 2] === b) count++;
    return count;
  }

  held<K extends "pressed" | "happened" | "followed">(what: K): Promise<KitWindow[K]> {
    return this.page.evaluate((name) => (window as unknown as KitWindow)[name as "pressed"] as never, what);
  }

  /** A spot of the map, in CSS pixels of the page. */
  async spot(x: number, y: number): Promise<{ x: number; y: number }> {
    const box = (await this.map.boundingBox())!;
    return { x: box.x + x, y: box.y + y };
  }

  /** Drags from one spot of the map to another. */
  async drag(from: [number, number], to: [number, number], { drop = true, steps = 8 } = {}): Promise<void> {
    const [a, b] = [await this.spot(...from), await this.spot(...to)];
    await this.page.mouse.move(a.x, a.y);
    await this.page.mouse.down();
    await this.page.mouse.move(b.x, b.y, { steps });
    if (drop) await this.page.mouse.up();
  }
}

/** A test that begins on the page. */
export const test = base.extend<{ kit: KitPage }, { kitServer: Server }>({
  kitServer: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the names of what is needed from here
    async ({}, use) => {
      const server = createServer((request, response) => {
        const [, font, file] = /^\/fonts\/([a-z-]+)\/([a-z-]+)$/.exec(request.url ?? "") ?? [];
        if (font)
          response
            .setHeader("content-type", "font/woff2")
            .end(readFileSync(join(FONTS, font, "files", `${font}-${file}.woff2`)));
        else response.setHeader("content-type", "text/html").end(html());
      });
      await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
      await use(server);
      server.close();
    },
    { scope: "worker" },
  ],
  kit: async ({ page, kitServer }, use) => {
    await page.goto(`http://127.0.0.1:${(kitServer.address() as AddressInfo).port}/`);
    await expect(page.locator("html")).toHaveAttribute("data-ready", "true");
    await use(new KitPage(page));
  },
});
