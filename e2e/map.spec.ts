import { expect, test } from "@playwright/test";
import { pictureOf } from "./support/kit-page.ts";
import { long } from "./support/long.ts";
import { nextFrame } from "./support/rest.ts";
import { Studio } from "./support/studio.ts";

test.describe("the map", () => {
  let studio: Studio;
  let middle: { x: number; y: number };

  test.beforeEach(async ({ page }) => {
    studio = new Studio(page);
    await studio.rehearse();
    await studio.painted();
    const box = (await studio.map.boundingBox())!;
    middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  });

  test("is painted: sea, land and the names of the countries", async () => {
    const { data } = await pictureOf(studio.map);
    const seen = new Set<string>();
    for (let i = 0; i < data.length; i += 4) seen.add(`${data[i]},${data[i + 1]},${data[i + 2]}`);
    const colours = [...seen];
    expect(colours).toContain("223,229,226");
    expect(colours).toContain("246,242,230");
    expect(colours.length).toBeGreaterThan(20);
  });

  test("is dragged by the pointer, the ground staying under it", async ({ page }) => {
    // nothing coasts on after the drag
    await page.emulateMedia({ reducedMotion: "reduce" });
    const before = await studio.view();
    await page.mouse.move(middle.x, middle.y);
    await page.mouse.down();
    await page.mouse.move(middle.x + 120, middle.y + 60, { steps: 8 });
    await page.mouse.up();
    const after = await studio.view();
    const degreesOfPixel = 360 / (256 * 2 ** before.zoom);
    expect(after.lon).toBeCloseTo(before.lon - 120 * degreesOfPixel, 3);
    expect(after.lat).toBeGreaterThan(before.lat);
    expect(after.zoom).toBe(before.zoom);
    await expect(studio.field("Town")).toHaveValue("");
  });

  test("is zoomed by the wheel about the pointer, by buttons and by double click", async ({ page }) => {
    const before = await studio.view();
    await page.mouse.move(middle.x, middle.y);
    await page.mouse.wheel(0, -420);
    await expect.poll(async () => (await studio.view()).zoom).toBeCloseTo(before.zoom + 1, 1);
    expect((await studio.view()).lon).toBeCloseTo(before.lon, 2);
    await page.getByRole("button", { name: "Zoom out" }).click();
    await expect.poll(async () => (await studio.view()).zoom).toBe(Math.round(before.zoom + 1) - 1);
    const now = (await studio.view()).zoom;
    await page.getByRole("button", { name: "Zoom in" }).click();
    await expect.poll(async () => (await studio.view()).zoom).toBe(now + 1);
  });

  test("is moved by keys only while it has the focus, and letters never reach a field", async ({ page }) => {
    await studio.search.focus();
    const before = await studio.view();
    await page.keyboard.type("+-");
    await page.keyboard.press("ArrowRight");
    expect(await studio.view()).toEqual(before);
    await expect(studio.search).toHaveValue("+-");

    await studio.map.focus();
    await page.keyboard.press("ArrowRight");
    await expect.poll(async () => (await studio.view()).lon).toBeGreaterThan(before.lon + 0.1);
    await page.keyboard.press("+");
    await expect.poll(async () => (await studio.view()).zoom).toBeGreaterThan(before.zoom);
    await page.keyboard.type("abc");
    await expect(studio.search).toHaveValue("+-");
  });

  test("takes the address in its middle by Enter", long(), async ({ page }) => {
    await studio.search.pressSequentially("12 harbour row tidewell", { delay: 10 });
    await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row");
    await page.keyboard.press("Enter");
    await expect(studio.map).toContainText("There is a marker at 12 Harbour Row.");
    await studio.field("Town").fill("");
    await studio.map.focus();
    await page.keyboard.press("Enter");
    await expect(studio.field("Town")).toHaveValue("Tidewell");
  });

  test(
    "its marker is dragged by the pointer and moved by keyboard, and the fields follow",
    long(),
    async ({ page }) => {
      await studio.search.pressSequentially("12 harbour row tidewell", { delay: 10 });
      await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row");
      await page.keyboard.press("Enter");
      await expect(studio.map).toContainText("There is a marker at 12 Harbour Row.");
      await studio.painted();
      const first = await studio.field("Street and number").inputValue();
      const box = (await studio.map.boundingBox())!;
      const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
      await page.mouse.move(x, y);
      await expect(studio.map).toHaveAttribute("data-under", "draggable");
      await page.mouse.down();
      const followed = new Set<string>();
      for (let i = 1; i <= 40; i++) {
        await page.mouse.move(x + 3 * i, y + 2 * i);
        await nextFrame(page);
        followed.add(await studio.field("Street and number").inputValue());
      }
      // the fields follow while the marker is still held
      expect(followed.size).toBeGreaterThan(1);
      await page.mouse.up();
      await expect(studio.field("Street and number")).not.toHaveValue(first);
      const second = await studio.field("Street and number").inputValue();
      await expect(studio.map).toContainText(`There is a marker at ${second}.`);
      await expect(studio.field("Town")).toHaveValue("Tidewell");
      await expect(studio.search).toHaveValue(new RegExp(`^${second}`));

      await studio.map.focus();
      await page.keyboard.press("Tab");
      await expect(page.getByRole("listbox", { name: "Markers" })).toBeFocused();
      await page.keyboard.press("m");
      for (let i = 0; i < 12; i++) await page.keyboard.press("ArrowUp");
      await page.keyboard.press("Enter");
      await expect(studio.field("Street and number")).not.toHaveValue(second);
    },
  );

  test("under the aim the fields follow the map", long(), async ({ page }) => {
    await studio.search.pressSequentially("12 harbour row tidewell", { delay: 10 });
    await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row");
    await page.keyboard.press("Enter");
    await expect(studio.map).toContainText("There is a marker at 12 Harbour Row.");
    await page.getByRole("button", { name: "Aim with the map" }).click();
    await studio.map.focus();
    await page.keyboard.press("ArrowRight");
    await page.keyboard.press("ArrowDown");
    const street = studio.field("Street and number");
    await expect(street).not.toHaveValue("12 Harbour Row");
    // both come with one answer, and another may be under way
    await expect(async () => {
      expect(await studio.map.locator(".bt-aimed p").textContent()).toContain(await street.inputValue());
    }).toPass();
  });

  test("says in words what it shows", async ({ page }) => {
    const map = page.getByRole("application", { name: /On the map.*Arrow keys move it/ });
    await expect(map).toBeVisible();
    await expect(map).toHaveAttribute("aria-roledescription", "map");
  });

  test("stands in with what it has, and asks again, when tiles do not come", long(), async ({ page }) => {
    let refused = 0;
    await page.route("**/v1/tiles/features/**", (route) => {
      refused++;
      return route.abort();
    });
    await studio.map.focus();
    for (let i = 0; i < 3; i++) await page.keyboard.press("+");
    await expect.poll(() => refused).toBeGreaterThan(0);
    await page.unroute("**/v1/tiles/features/**");
    await expect(async () => {
      await page.keyboard.press("ArrowUp");
      await expect(studio.map).toHaveAttribute("data-complete", "true", { timeout: 500 });
    }).toPass();
  });
});

test.describe("on touch", () => {
  test.use({ hasTouch: true });

  test("two fingers zoom and one finger moves", async ({ page }) => {
    const studio = new Studio(page);
    await studio.rehearse();
    await studio.painted();
    const box = (await studio.map.boundingBox())!;
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    const touch = await page.context().newCDPSession(page);
    const send = (type: "touchStart" | "touchMove" | "touchEnd", points: [number, number][]) =>
      touch.send("Input.dispatchTouchEvent", {
        type,
        touchPoints: points.map(([px, py], id) => ({ x: px, y: py, id })),
      });
    const before = await studio.view();
    await send("touchStart", [
      [x - 40, y],
      [x + 40, y],
    ]);
    for (let apart = 50; apart <= 80; apart += 10)
      await send("touchMove", [
        [x - apart, y],
        [x + apart, y],
      ]);
    await send("touchEnd", []);
    await expect.poll(async () => (await studio.view()).zoom).toBeCloseTo(before.zoom + 1, 1);
    const between = await studio.view();
    await send("touchStart", [[x, y]]);
    for (let i = 1; i <= 5; i++) await send("touchMove", [[x - i * 20, y]]);
    await send("touchEnd", []);
    expect((await studio.view()).lon).toBeGreaterThan(between.lon);
  });
});
