import { expect } from "@playwright/test";
import { type KitWindow, test } from "./support/kit-page.ts";
import { long } from "./support/long.ts";

const HOUSE = { lat: -35.173987, lon: -21.630896 };

test(
  "the ground in relief: straight down first, then free by keys and pointer, and back to the flat map",
  long(),
  async ({ kit, page }) => {
    await kit.make({ relief: true, view: { at: HOUSE, zoom: 16 } }, [
      { at: HOUSE, label: "12 Harbour Street", marked: true },
    ]);
    const scripts = () =>
      page.evaluate(
        () => performance.getEntriesByType("resource").filter(({ name }) => name.includes("/relief.js")).length,
      );
    // what draws it is loaded only when it is requested
    expect(await scripts()).toBe(0);
    await page.getByRole("button", { name: "Show relief" }).click();
    const relief = page.getByRole("application", { name: /^Where in relief\. Arrow keys turn/ });
    await expect(relief).toHaveAttribute("data-complete", "true");
    expect(await scripts()).toBe(1);
    await expect(relief.getByRole("status")).toHaveText(/^12 Harbour Street, \d+ m above the sea$/);
    const view = async () => {
      const [away, tilt, turn] = (await relief.getAttribute("data-view"))!.split(",").map(Number);
      return { away, tilt, turn };
    };
    await expect.poll(async () => (await view()).tilt).toBeLessThan(0.2);
    const first = await view();
    // the highest roof around and 220 m above it
    expect(first.away).toBeGreaterThan(223);
    expect(first.away).toBeLessThan(240);

    await expect(relief).toBeFocused();
    for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowUp");
    await page.keyboard.press("ArrowRight");
    await expect.poll(async () => Math.round((await view()).tilt)).toBe(30);
    expect(Math.round((await view()).turn * 10)).toBe(75);
    await page.keyboard.press("+");
    await expect.poll(async () => (await view()).away).toBeLessThan(first.away * 0.85);
    await page.keyboard.press("n");
    await expect.poll(async () => Math.abs((await view()).turn)).toBeLessThan(0.1);

    const box = (await relief.boundingBox())!;
    await page.mouse.move(box.x + 300, box.y + 250);
    await page.mouse.down();
    await page.mouse.move(box.x + 380, box.y + 250, { steps: 4 });
    await page.mouse.up();
    await expect.poll(async () => Math.abs((await view()).turn)).toBeGreaterThan(10);
    await page.keyboard.press("0");
    await expect.poll(async () => (await view()).tilt).toBeLessThan(0.2);
    expect((await view()).away).toBeCloseTo(first.away, 0);

    // another place: the camera is set anew
    await page.keyboard.press("ArrowUp");
    await page.evaluate(() =>
      (window as unknown as KitWindow).map.showAnswer({ at: { lat: -35.2079, lon: -21.29 }, label: "Sandmouth" }),
    );
    await expect(relief.getByRole("status")).toHaveText(/^Sandmouth, /);
    await expect.poll(async () => (await view()).tilt).toBeLessThan(0.2);

    // its keys never reach the flat map or a field
    const flat = await kit.view();
    await relief.focus();
    await page.keyboard.press("ArrowLeft");
    expect(await kit.view()).toEqual(flat);
    await page.keyboard.press("Escape");
    await expect(relief).toBeHidden();
    await expect(kit.map).toBeFocused();
  },
);

test("without WebGL it says so and keeps the flat map", async ({ kit, page }) => {
  await page.evaluate(() => {
    const get = HTMLCanvasElement.prototype.getContext;
    HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, kind: string, ...more: unknown[]) {
      return kind.startsWith("webgl") ? null : Reflect.apply(get, this, [kind, ...more]);
    } as typeof get;
  });
  await kit.make({ relief: true, view: { at: HOUSE, zoom: 16 } });
  await page.getByRole("button", { name: "Show relief" }).click();
  await expect(kit.map.locator(".bt-note")).toHaveText(
    "This browser cannot show relief. The flat map is shown instead.",
  );
  await page.getByRole("button", { name: "Zoom in" }).click();
  await expect.poll(async () => (await kit.view()).zoom).toBe(17);
});

test.describe("on touch", () => {
  test.use({ hasTouch: true });

  test("fingers turn it, and bring it nearer", long(), async ({ kit, page }) => {
    await kit.make({ relief: true, view: { at: HOUSE, zoom: 16 } }, [{ at: HOUSE, label: "Here", marked: true }]);
    await page.getByRole("button", { name: "Show relief" }).click();
    const relief = page.getByRole("application", { name: /^Where in relief/ });
    await expect(relief).toHaveAttribute("data-complete", "true");
    const view = async () => (await relief.getAttribute("data-view"))!.split(",").map(Number);
    const [away, tilt] = await view();
    const box = (await relief.boundingBox())!;
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    const session = await page.context().newCDPSession(page);
    const touch = (type: "touchStart" | "touchMove" | "touchEnd", ...spots: [number, number][]) =>
      session.send("Input.dispatchTouchEvent", {
        type,
        touchPoints: spots.map(([dx, dy], id) => ({ x: x + dx, y: y + dy, id })),
      });
    await touch("touchStart", [0, 0]);
    for (let i = 1; i <= 8; i++) await touch("touchMove", [0, -10 * i]);
    await touch("touchEnd");
    await expect.poll(async () => (await view())[1]).toBeGreaterThan(tilt + 10);
    await touch("touchStart", [-30, 0], [30, 0]);
    for (let i = 1; i <= 8; i++) await touch("touchMove", [-30 - 8 * i, 0], [30 + 8 * i, 0]);
    await touch("touchEnd");
    await expect.poll(async () => (await view())[0]).toBeLessThan(away * 0.8);
  });
});

test("parts of the map that fail are requested again", long(), async ({ kit, page }) => {
  await kit.make({ relief: true, view: { at: HOUSE, zoom: 16 } });
  await page.route("**/v1/tiles/features/16/**", (route) => route.abort());
  await page.getByRole("button", { name: "Show relief" }).click();
  const relief = page.getByRole("application", { name: /^Where in relief/ });
  await expect(relief).toHaveAttribute("data-missing", "true");
  await page.unrouteAll();
  await expect(relief).toHaveAttribute("data-missing", "false", { timeout: 20_000 });
});

test("a map that is taken away with its relief leaves the keys where they are", async ({ kit, page }) => {
  await kit.make({ relief: true, view: { at: HOUSE, zoom: 16 } });
  await page.getByRole("button", { name: "Show relief" }).click();
  await expect(page.getByRole("application", { name: /^Where in relief/ })).toBeVisible();
  await page.getByLabel("Beside").focus();
  await page.evaluate(() => (window as unknown as KitWindow).map.destroy());
  await expect(page.getByLabel("Beside")).toBeFocused();
});

test("where what draws it does not come, it says so, and comes at a second try", async ({ kit, page }) => {
  await kit.make({ relief: true, view: { at: HOUSE, zoom: 16 } });
  await page.route("**/kit/v1/relief*", (route) => route.abort());
  const button = page.getByRole("button", { name: "Show relief" });
  await button.click();
  await expect(kit.map.locator(".bt-note")).toHaveText(
    "The relief view could not be loaded. Check the connection and try again.",
  );
  await page.unrouteAll();
  await button.click();
  await expect(page.getByRole("application", { name: /^Where in relief/ })).toBeVisible();
});
