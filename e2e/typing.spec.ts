import { expect, test } from "@playwright/test";
import { pass } from "./support/rest.ts";
import { Studio } from "./support/studio.ts";

/** Forty letters at twelve a second. */
const TEXT = "12 harbour row tidewell sallow lorramere";
const PAUSE = 1000 / 12;

test("answers delayed at random: the last one wins, a list comes soon, and few letters ask", async ({ page }) => {
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
          const list = document.querySelector<HTMLElement>(".bt-list");
          if (list && !list.hidden && list.children.length) resolve(third ? performance.now() - third : 0);
        }).observe(document.querySelector(".bt-search")!, { subtree: true, childList: true, attributes: true });
      }),
  );
  await page.keyboard.type(TEXT, { delay: PAUSE });
  test
    .info()
    .annotations.push({ type: "first list after the third letter", description: `${Math.round(await firstList)} ms` });
  await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row, Tidewell");
  await expect.poll(() => asked.at(-1)).toBe(TEXT);
  await pass(page, 3000);
  expect(asked.length, asked.join(" | ")).toBeLessThanOrEqual(Math.floor(TEXT.length / 3));

  const before = asked.length;
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(studio.field("Town")).toHaveValue("Tidewell");
  await pass(page, 3000);
  expect(asked).toHaveLength(before);
});
