import { expect } from "@playwright/test";
import type { Marker } from "../packages/kit/src/index.ts";
import { type KitWindow, test } from "./support/kit-page.ts";
import { long } from "./support/long.ts";
import { nextFrame } from "./support/rest.ts";

const MIDDLE = { lat: -35.174, lon: -21.6255 };
const VIEW = { at: MIDDLE, zoom: 16 };
/** Degrees of a CSS pixel to the east at that zoom. */
const EAST = 360 / (256 * 2 ** 16);
const east = (pixels: number) => ({ lat: MIDDLE.lat, lon: MIDDLE.lon + pixels * EAST });

const HOSTILE = '<img src=x onerror="window.hurt=1"><b>Keel</b> "\'';

test(
  "a marker is dragged by the pointer, lifted, and the address under it follows four times a second at most",
  long(),
  async ({ kit, page }) => {
    const asked: number[] = [];
    page.on("request", (request) => {
      if (request.url().includes("/v1/reverse")) asked.push(Date.now());
    });
    await kit.make({ view: VIEW }, [{ at: MIDDLE, name: "Mill", draggable: true }]);
    const before = await kit.view();
    const [from, to] = [await kit.spot(320, 240), await kit.spot(440, 240)];
    await page.mouse.move(from.x, from.y);
    await expect(kit.map).toHaveAttribute("data-under", "draggable");
    await page.mouse.down();
    for (let i = 1; i <= 60; i++) {
      await page.mouse.move(from.x + (i * (to.x - from.x)) / 60, from.y);
      await nextFrame(page);
    }
    await page.mouse.up();
    await expect.poll(async () => (await kit.held("followed")).at(-1)).toMatchObject({ why: "drag", isLast: true });
    expect(await kit.view()).toEqual(before);
    const happened = await kit.held("happened");
    expect(happened[0]).toBe("enter Mill");
    expect(happened.slice(1, 3)).toEqual(["lift Mill", "move Mill"]);
    expect(happened.filter((what) => what === "drop Mill").length).toBe(1);
    expect(asked.length).toBeGreaterThan(1);
    // over the whole drag: on a busy machine two may be heard of at once, and what is dropped is asked about once more
    const seconds = (asked[asked.length - 1] - asked[0]) / 1000;
    expect(asked.length).toBeLessThanOrEqual(4 * seconds + 3);
    const followed = await kit.held("followed");
    expect(followed.at(-1)!.line).toContain("Tidewell");
  },
);

test("a drag that is broken off puts the marker back", async ({ kit, page }) => {
  await kit.make({ view: VIEW }, [{ at: MIDDLE, name: "Mill", draggable: true }]);
  await kit.drag([320, 240], [420, 240], { drop: false });
  await kit.map.focus();
  await page.keyboard.press("Escape");
  await page.mouse.up();
  expect((await kit.held("happened")).at(-1)).toBe("putback Mill");
  await kit.drag([320, 240], [420, 240]);
  expect((await kit.held("happened")).at(-1)).toBe("drop Mill");
});

test("a marker that may not be moved is not: the map moves under it", async ({ kit }) => {
  await kit.make({ view: VIEW }, [{ at: MIDDLE, name: "Mill" }]);
  await kit.drag([320, 240], [420, 240]);
  expect((await kit.view()).lon).toBeLessThan(MIDDLE.lon);
  expect(await kit.held("happened")).not.toContain("lift Mill");
});

test("markers are walked through, opened and moved by keyboard alone", async ({ kit, page }) => {
  const markers: Marker[] = [
    { at: MIDDLE, name: "Mill", draggable: true },
    { at: east(200), name: "Keel", card: { title: "Keel", facts: [["Open", "Mo–Fr 09:00–17:00"]] } },
    { at: { lat: -36.6, lon: -22.6 }, name: "Far away" },
  ];
  await kit.make({ view: VIEW }, markers);
  await kit.map.focus();
  await page.keyboard.press("Tab");
  const list = page.getByRole("listbox", { name: "Markers" });
  await expect(list).toBeFocused();
  const option = list.getByRole("option");
  await expect(option).toHaveText("Mill");
  await expect(option).toHaveAttribute("aria-setsize", "3");
  await expect(page.getByText("1 of 3 · Enter: open · M: move")).toBeVisible();

  await page.keyboard.press("ArrowDown");
  await expect(option).toHaveText("Keel");
  await page.keyboard.press("Enter");
  const card = page.getByRole("dialog", { name: "Keel" });
  await expect(card).toContainText("Mo–Fr 09:00–17:00");
  await expect(card.getByRole("button", { name: "Close" })).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(card).toBeHidden();
  await expect(list).toBeFocused();

  await page.keyboard.press("End");
  await expect(option).toHaveText("Far away");
  await expect.poll(async () => (await kit.view()).lat).toBeLessThan(-36);
  await page.keyboard.press("Home");
  await expect.poll(async () => (await kit.view()).lat).toBeGreaterThan(-35.2);

  await page.keyboard.press("m");
  await expect(page.getByText("arrows: move, with Shift in small steps")).toBeVisible();
  for (let i = 0; i < 5; i++) await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Escape");
  expect((await kit.held("happened")).at(-1)).toBe("putback Mill");
  await page.keyboard.press("M");
  for (let i = 0; i < 5; i++) await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("Enter");
  await expect.poll(async () => (await kit.held("followed")).at(-1)).toMatchObject({ why: "drag", isLast: true });
  expect(await kit.held("happened")).toContain("drop Mill");
  // letters for the map never reach the field beside it
  await expect(page.getByLabel("Beside")).toHaveValue("");
});

test(
  "a card shows facts as text, hands the place on, and closes by press and by key",
  long(),
  async ({ kit, page, context }) => {
    await context.grantPermissions(["clipboard-read", "clipboard-write"]);
    await kit.make({ view: VIEW, handOn: { way: "https://maps.example/way/{lat},{lon}{?label}" } }, [
      {
        at: MIDDLE,
        name: "hostile",
        label: HOSTILE,
        card: { title: HOSTILE, facts: [["<i>Open</i>", HOSTILE]], handsOn: true },
      },
    ]);
    await kit.map.click({ position: { x: 320, y: 240 } });
    const card = page.getByRole("dialog");
    await expect(card.getByRole("heading")).toHaveText(HOSTILE);
    await expect(card.locator("dt")).toHaveText("<i>Open</i>");
    expect(await card.locator("img, b, i").count()).toBe(0);
    expect(await page.evaluate(() => "hurt" in window)).toBe(false);
    await expect(card.getByRole("link", { name: "Directions" })).toHaveAttribute(
      "href",
      /^https:\/\/maps\.example\/way\/-35\.174,-21\.6255\?label=%3Cimg/,
    );
    await expect(card.getByRole("link", { name: "Open in a map app" })).toHaveAttribute(
      "href",
      /^geo:-35\.174,-21\.6255;name=/,
    );
    await card.getByRole("button", { name: "Copy coordinates" }).click();
    await expect(card.getByRole("status")).toHaveText("Copied: -35.174, -21.6255");
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe("-35.174, -21.6255");
    await card.getByRole("button", { name: "Close" }).click();
    await expect(card).toBeHidden();
    expect(await kit.held("happened")).toEqual(
      expect.arrayContaining(["press hostile", "open hostile", "close hostile"]),
    );
    await kit.map.click({ position: { x: 320, y: 240 } });
    await expect(card).toBeVisible();
    await kit.map.click({ position: { x: 100, y: 100 } });
    await expect(card).toBeHidden();
    await kit.map.click({ position: { x: 320, y: 240 } });
    // nothing on this machine answers to geo:
    await card.getByRole("link", { name: "Open in a map app" }).click();
    await expect(card.getByRole("status")).toHaveText("No map app opened. Copied instead: -35.174, -21.6255");
  },
);

test("each marker hears its own events, and only its own", async ({ kit, page }) => {
  await kit.make({ view: VIEW });
  await page.evaluate(
    ([a, b]) => {
      const held = window as unknown as KitWindow & { own: string[] };
      held.own = [];
      const heard = (who: string) => (event: { type: string }) => void held.own.push(`${who} ${event.type}`);
      held.map.setMarkers([
        { at: a, name: "a", heard: heard("a") },
        { at: b, name: "b", heard: heard("b") },
      ]);
    },
    [MIDDLE, east(150)],
  );
  await kit.map.click({ position: { x: 470, y: 240 } });
  const own = await page.evaluate(() => (window as unknown as { own: string[] }).own);
  expect(own).toEqual(["b enter", "b press"]);
});

test("the developer's own picture stands in place of ours; one that never comes leaves our sign", async ({
  kit,
  page,
}) => {
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40"><rect width="40" height="40" fill="#00cc44"/></svg>';
  const picture = { src: `data:image/svg+xml,${encodeURIComponent(svg)}`, width: 40, height: 40 };
  await kit.make({ view: VIEW }, [{ at: MIDDLE, name: "own", picture, card: { title: "Own" } }]);
  await expect.poll(() => kit.pixels("#00cc44")).toBeGreaterThan(1400);
  expect(await kit.pixels("#9c3528")).toBe(0);
  await kit.map.click({ position: { x: 320, y: 205 } });
  await expect(page.getByRole("dialog", { name: "Own" })).toBeVisible();
  await kit.make({ view: VIEW }, [{ at: MIDDLE, name: "broken", picture: { ...picture, src: "/nowhere.png?x" } }]);
  await expect.poll(() => kit.pixels("#9c3528")).toBeGreaterThan(50);
});

test("a place without a position has no marker, and a word; 0°, 0° is a place like any other", async ({
  kit,
  page,
}) => {
  await kit.make({ view: { at: { lat: 0, lon: 0 }, zoom: 12 } }, [
    { at: undefined, name: "Unset" },
    { at: { lat: Number.NaN, lon: 0 }, name: "Broken" },
  ]);
  await expect(kit.map.locator(".bt-unset")).toHaveText("2 of 2 places have no position yet.");
  expect(await kit.pixels("#9c3528")).toBe(0);
  await expect(page.getByRole("listbox", { name: "Markers" })).toBeHidden();
  await kit.make({ view: { at: { lat: 0, lon: 0 }, zoom: 12 } }, [{ at: { lat: 0, lon: 0 }, name: "Null" }]);
  expect(await kit.pixels("#9c3528")).toBeGreaterThan(50);
  await expect(kit.map.locator(".bt-unset")).toBeHidden();
});

test(
  "the map moves under an aim, and the address in the middle follows and can be taken",
  long(),
  async ({ kit, page }) => {
    await kit.make({ view: VIEW, aims: true });
    const aim = page.getByRole("button", { name: "Aim with the map" });
    await aim.click();
    await expect(aim).toHaveAttribute("aria-pressed", "true");
    const line = kit.map.locator(".bt-aimed p");
    await expect(line).toContainText("Tidewell");
    const first = await line.textContent();
    await kit.drag([400, 300], [250, 200]);
    await expect(line).not.toHaveText(first!);
    await expect.poll(async () => (await kit.held("followed")).at(-1)).toMatchObject({ why: "aim", isLast: true });
    await page.getByRole("button", { name: "Use this place" }).click();
    const [at] = await kit.held("pressed");
    expect(at.lon).toBeCloseTo((await kit.view()).lon, 4);
    await page.evaluate(() => (window as unknown as KitWindow).map.show({ at: { lat: -35.4, lon: -21.9 }, zoom: 14 }));
    await expect(line).toHaveText("Nothing was found near this position.");
    await aim.click();
    await expect(kit.map.locator(".bt-aimed")).toBeHidden();
  },
);

test("markers may go while one of them is under the keys", async ({ kit, page }) => {
  const errors: string[] = [];
  page.on("pageerror", (error) => errors.push(String(error)));
  await kit.make({ view: VIEW }, [{ at: MIDDLE, label: "One", card: { title: "One" } }]);
  await page.getByRole("listbox", { name: "Markers" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog", { name: "One" })).toBeVisible();
  for (const byFocus of [true, false]) {
    if (byFocus) await page.getByRole("listbox", { name: "Markers" }).focus();
    await page.evaluate(() => (window as unknown as KitWindow).map.setMarkers([]));
    await expect(page.getByRole("listbox", { name: "Markers" })).toBeHidden();
    await nextFrame(page);
    await nextFrame(page);
    expect(errors).toEqual([]);
    await page.evaluate(
      (at) => (window as unknown as KitWindow).map.setMarkers([{ at, label: "One", card: { title: "One" } }]),
      MIDDLE,
    );
    await expect(page.getByRole("listbox", { name: "Markers" })).toBeVisible();
  }
});
