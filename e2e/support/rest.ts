import { expect, type Page } from "@playwright/test";

/** Waits until a page stands still: two pictures of it one after another are the same. */
export async function standsStill(page: Page): Promise<void> {
  let before: Buffer | undefined;
  await expect
    .poll(async () => {
      const now = await page.screenshot();
      const isSame = before?.equals(now) ?? false;
      before = now;
      return isSame;
    })
    .toBe(true);
}

/** Lets so many milliseconds pass for the page's timers, and what they requested go out. The page's clock is ours. */
export async function pass(page: Page, milliseconds: number): Promise<void> {
  await page.clock.runFor(milliseconds);
  // requests are told in the order in which they are made: after this one all before it are known
  await page.evaluate(() => fetch(location.href, { method: "HEAD" }).catch(() => undefined));
}

/** Waits for the next frame: a pointer that moves once a frame moves as a hand does. */
export const nextFrame = (page: Page): Promise<void> =>
  page.evaluate(() => new Promise<void>((resolve) => requestAnimationFrame(() => resolve())));

/** The text for which suggestions were asked by a request, if it requested any. */
export const askedBy = (url: string): string | null | undefined =>
  url.includes("/v1/suggest") ? new URL(url).searchParams.get("q") : undefined;
