import { MarkerGroups } from "@bibliotope/core/sheet";
import { Random } from "@bibliotope/islands";
import { chromium } from "@playwright/test";
import { CHROMIUM } from "./browser.ts";
import { atMost, type Measure, median, percentile } from "./measure.ts";

const SECONDS = 6;
const MARKERS = 100_000;
/** Stills that are asked for, each of another spot, so that none is kept already. */
const STILLS = 150;

/** Frames of the map while it is panned without a pause over a town, at 1280 × 800. */
export async function measureMap(signIn: string): Promise<Measure> {
  const browser = await chromium.launch(CHROMIUM);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(signIn);
  const search = page.getByRole("combobox", { name: "Find your address" });
  await search.pressSequentially("12 harbour row tidewell");
  await page.getByRole("listbox", { name: "Suggestions" }).getByRole("option").first().click();
  await page.locator('.bt-sheet[data-complete="true"]').waitFor();
  const box = (await page.locator(".bt-sheet").boundingBox())!;
  await page.evaluate(() => {
    const frames: number[] = [];
    let last = performance.now();
    const step = (now: number) => {
      frames.push(now - last);
      last = now;
      requestAnimationFrame(step);
    };
    requestAnimationFrame(step);
    Object.assign(window, { frames });
  });
  await page.mouse.move(box.x + 300, box.y + 300);
  await page.mouse.down();
  const end = Date.now() + SECONDS * 1000;
  for (let i = 0; Date.now() < end; i++) {
    await page.mouse.move(box.x + 300 + 220 * Math.sin(i / 40), box.y + 300 + 180 * Math.cos(i / 57));
  }
  await page.mouse.up();
  const frames = await page.evaluate(() => (window as unknown as { frames: number[] }).frames.slice(2));
  await browser.close();
  const beside = `${frames.length} frames in ${SECONDS} s; median ${median(frames).toFixed(1)} ms`;
  return atMost("map, longest frame while panning", "Tidewell, zoom 16", "ms", Math.max(...frames), 50, beside);
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
