import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { MarkerGroups } from "@bibliotope/core/map";
import { Random } from "@bibliotope/islands";
import { type Browser, chromium } from "@playwright/test";
import { CHROMIUM } from "./browser.ts";
import { atMost, type Measure, median, percentile } from "./measure.ts";

const MARKERS = 100_000;
/** Markers that have the colour and size of a value, and whose groups have the mean. */
const VALUED = 10_000;
/** Stills that are requested, each of another spot, so that none is kept already. */
const STILLS = 150;
/** Milliseconds of panning, and of zooming by the wheel. */
const PANNING = 5000;
const ZOOMING = 5000;

/** What the page notes while the map is moved. */
interface Noted {
  /** Milliseconds from frame to frame, and of our own script in each. */
  frames: number[];
  script: number[];
  /** Milliseconds of painting of each tile in the worker. */
  tiles: number[];
}

/**
 * A page with nothing on it, or with a map. It times every frame, all script that runs for it (handlers, frames, answers
 * of the worker) and what the worker says of each tile.
 */
const pageOf = (
  { url, keys }: Ready,
  markers: number,
  isValued = false,
) => `<!doctype html><html><meta charset="utf-8"><title>Bench</title>
<style>html, body, #place { margin: 0; width: 100%; height: 100%; overflow: hidden; }</style><div id="place"></div>
<script>
const noted = { frames: [], script: [], tiles: [] };
let own = 0;
let last;
const timed = (call) => function (...given) {
  const began = performance.now();
  try { return Reflect.apply(call, this, given); } finally { own += performance.now() - began; }
};
const nextFrame = requestAnimationFrame.bind(window);
const step = (now) => {
  if (last !== undefined) { noted.frames.push(now - last); noted.script.push(own); }
  own = 0;
  last = now;
  nextFrame(step);
};
window.requestAnimationFrame = (call) => nextFrame(timed(call));
const listen = EventTarget.prototype.addEventListener;
EventTarget.prototype.addEventListener = function (type, call, ...more) {
  if (this instanceof Worker && type === "message")
    Reflect.apply(listen, this, [type, ({ data }) => data.took && noted.tiles.push(data.took)]);
  return Reflect.apply(listen, this, [type, typeof call === "function" ? timed(call) : call, ...more]);
};
window.begin = () => { Object.assign(noted, { frames: [], script: [], tiles: [] }); last = undefined; nextFrame(step); };
window.noted = noted;
</script>
<script type="module">
if (${markers} >= 0) {
  const { Client, InteractiveMap, byValues } = await import("${url}/kit/v1/bibliotope.js");
  const client = new Client({ key: "${keys.web}", url: "${url}" });
  window.map = new InteractiveMap(document.querySelector("#place"), {
    client, label: "Bench", grouped: true, view: { at: { lat: -35.18, lon: -21.62 }, zoom: 14 },
  });
  let seed = 1;
  const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  const markers = Array.from({ length: ${markers} }, () => ({
    at: { lat: -35.2 + 0.4 * (random() - 0.5), lon: -21.6 + 0.4 * (random() - 0.5) },
  }));
  const values = markers.map(() => ({ price: Math.round(1000 * random()) }));
  const shown = byValues(markers, values, ${isValued} ? { colour: "price", size: "price", groups: "mean" } : {});
  window.map.setMarkers(shown.markers, shown.ofGroup);
}
document.documentElement.dataset.ready = "true";
</script></html>`;

interface Ready {
  url: string;
  keys: { web: string; srv: string };
}

/** Frames of the map at 1280 × 800 while it is panned and zoomed over a town, beside those of an empty page. */
export async function* measureMap(ready: Ready): AsyncGenerator<Measure> {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const empty = await moveOver(browser, pageOf(ready, -1));
    const beside = (noted: Noted) =>
      `${noted.frames.length} frames; empty page p95 ${percentile(empty.frames, 0.95).toFixed(1)}, longest ${Math.max(...empty.frames).toFixed(1)} ms`;
    for (const [what, markers, isValued] of [
      ["map", 0, false],
      ["map with 100,000 markers", MARKERS, false],
      ["map with 10,000 markers by value", VALUED, true],
    ] as const) {
      const noted = await moveOver(browser, pageOf(ready, markers, isValued));
      const corpus = "Tidewell, zooms 13 to 17";
      yield atMost(`${what}, frames, p95`, corpus, "ms", percentile(noted.frames, 0.95), 20, beside(noted));
      yield atMost(`${what}, longest frame`, corpus, "ms", Math.max(...noted.frames), 50, beside(noted));
      const script = `median ${median(noted.script).toFixed(1)}, most ${Math.max(...noted.script).toFixed(1)} ms; empty page p95 ${percentile(empty.script, 0.95).toFixed(1)}`;
      yield atMost(`${what}, our own script in a frame, p95`, corpus, "ms", percentile(noted.script, 0.95), 8, script);
      if (markers) continue;
      const tiles = `${noted.tiles.length} tiles; median ${median(noted.tiles).toFixed(1)} ms`;
      yield atMost("tile painted in the worker, p95", corpus, "ms", percentile(noted.tiles, 0.95), 30, tiles);
    }
  } finally {
    await browser.close();
  }
}

/** Pans without a pause, then zooms by the wheel, in and out again. */
async function moveOver(browser: Browser, html: string): Promise<Noted> {
  const server = createServer((_, response) => void response.setHeader("content-type", "text/html").end(html));
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  try {
    await page.goto(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
    await page.locator('html[data-ready="true"]').waitFor();
    const map = page.locator(".bt-map-view");
    if (await map.count()) await page.locator('.bt-map-view[data-complete="true"]').waitFor();
    await page.evaluate(() => (window as unknown as { begin(): void }).begin());
    await page.mouse.move(640, 400);
    await page.mouse.down();
    const panned = Date.now() + PANNING;
    for (let i = 0; Date.now() < panned; i++)
      await page.mouse.move(640 + 320 * Math.sin(i / 40), 400 + 250 * Math.cos(i / 57));
    await page.mouse.up();
    const zoomed = Date.now() + ZOOMING;
    for (let i = 0; Date.now() < zoomed; i++) await page.mouse.wheel(0, 40 * (Math.floor(i / 24) % 2 ? 1 : -1));
    return await page.evaluate(() => (window as unknown as { noted: Noted }).noted);
  } finally {
    await page.close();
    server.close();
  }
}

/** Groups of very many markers, from the closest zoom to the whole archipelago. */
export function measureGroups(): Measure {
  const random = new Random(11);
  const positions = Array.from({ length: MARKERS }, () => ({
    lat: -35.2 + random.between(-0.4, 0.4),
    lon: -21.5 + random.between(-0.5, 0.5),
  }));
  const times = Array.from({ length: 7 }, () => {
    const began = performance.now();
    new MarkerGroups(positions).at(7);
    return performance.now() - began;
  });
  const beside = `7 runs, all zooms from 17 to 7; the slowest ${Math.max(...times).toFixed(0)} ms`;
  return atMost("grouping 100,000 markers", "spread over an island", "ms", median(times), 100, beside);
}

/** Stills of 600 × 400 over HTTP, drawn and encoded for each. */
export async function measureStills({ url, keys }: { url: string; keys: { srv: string } }): Promise<Measure> {
  const random = new Random(12);
  const times: number[] = [];
  for (let i = 0; i < STILLS + 20; i++) {
    const at = `${-35.184 + random.between(-0.01, 0.01)},${-21.625 + random.between(-0.01, 0.01)}`;
    const began = performance.now();
    const response = await fetch(`${url}/v1/still?at=${at}&label=Here`, {
      headers: { authorization: `Bearer ${keys.srv}` },
    });
    await response.arrayBuffer();
    if (!response.ok) throw new Error(`a still answered with ${response.status}`);
    // the first twenty warm the thread up
    if (i >= 20) times.push(performance.now() - began);
  }
  const beside = `${STILLS} spots of Tidewell at zoom 16, one after the other; median ${median(times).toFixed(1)} ms`;
  return atMost("still of 600 × 400, p95", "the demo islands", "ms", percentile(times, 0.95), 60, beside);
}
