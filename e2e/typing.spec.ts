import { setTimeout as wait } from "node:timers/promises";
import { expect, test } from "@playwright/test";
import { long } from "./support/long.ts";
import { pass } from "./support/rest.ts";
import { Studio } from "./support/studio.ts";

/** Forty letters at twelve a second. */
const TEXT = "12 harbour row tidewell sallow lorramere";
const PAUSE = 1000 / 12;

test(
  "answers delayed at random: the last one wins, a list comes soon, and few letters ask",
  long(),
  async ({ page }) => {
    expect(TEXT).toHaveLength(40);
    const studio = new Studio(page);
    await page.clock.install();
    await page.goto("/f/become-a-reader");
    await expect(studio.search).toBeVisible();
    const asked: string[] = [];
    let seed = 7;
    const random = () => {
      seed = (seed * 16807) % 2147483647;
      return seed / 2147483647;
    };
    await page.route("**/v1/suggest?*", async (route) => {
      asked.push(new URL(route.request().url()).searchParams.get("q")!);
      const delay = 20 + 380 * random();
      await new Promise((resolve) => setTimeout(resolve, delay));
      // what was given up meanwhile goes nowhere
      await route.continue().catch(() => undefined);
    });
    await studio.search.focus();
    const firstList = page.evaluate(
      () =>
        new Promise<number>((resolve) => {
          let third = 0;
          let letters = 0;
          document.addEventListener("input", () => {
            if (++letters === 3) third = performance.now();
          });
          new MutationObserver(() => {
            const list = document.querySelector<HTMLElement>("[data-bibliotope=suggestions]");
            if (list && !list.hidden && list.children.length) resolve(third ? performance.now() - third : 0);
          }).observe(document.querySelector("[data-bibliotope=search]")!, {
            subtree: true,
            childList: true,
            attributes: true,
          });
        }),
    );
    const began = performance.now();
    for (let i = 0; i < TEXT.length; i++) {
      await page.keyboard.type(TEXT[i]);
      // as a person types: a letter that took longer is not followed by a longer pause
      await wait(Math.max(0, began + (i + 1) * PAUSE - performance.now()));
    }
    // on a busy machine the letters come later, and more of them may ask
    const slower = Math.max(1, (performance.now() - began) / (TEXT.length * PAUSE));
    test.info().annotations.push({
      type: "first list after the third letter",
      description: `${Math.round(await firstList)} ms`,
    });
    await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row, Tidewell");
    await expect.poll(() => asked.at(-1)).toBe(TEXT);
    await pass(page, 3000);
    expect(asked.length, asked.join(" | ")).toBeLessThanOrEqual(Math.floor((TEXT.length / 3) * slower));

    const before = asked.length;
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
    await expect(studio.field("Town")).toHaveValue("Tidewell");
    await pass(page, 3000);
    expect(asked).toHaveLength(before);
  },
);
