import { chromium } from "@playwright/test";
import { CHROMIUM } from "./browser.ts";
import { atMost, type Measure, median } from "./measure.ts";

const SECONDS = 6;

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
