import type { Position } from "@bibliotope/core/geo";
import { toScreen } from "@bibliotope/core/map";
import fc from "fast-check";
import { afterEach, expect, it, vi } from "vitest";
import { userEvent } from "vitest/browser";
import type { Client } from "../client/client.ts";
import { InteractiveMap } from "./interactive-map.ts";
import type { Marker } from "./marker.ts";

const SIZE = { width: 500, height: 400 };
const VIEW = { at: { lat: -35.2, lon: -21.6 }, zoom: 14 };
/** Milliseconds that a busy machine may take for what takes a tenth of a second. */
const PATIENCE = 20_000;
/** A map whose tiles have nothing on them. */
const client = {
  tileUrl: () => "data:application/geo+json,%7B%22type%22%3A%22FeatureCollection%22%2C%22features%22%3A%5B%5D%7D",
  reverse: async () => ({ features: [] }),
} as unknown as Client;

let map: InteractiveMap | undefined;
async function shown(markers: readonly Marker[] = []) {
  const place = document.createElement("div");
  place.style.cssText = "position: fixed; inset: 10px auto auto 20px; width: 500px; height: 400px";
  document.body.append(place);
  map = new InteractiveMap(place, { client, label: "A map", view: VIEW, mapStyles: [] });
  map.setMarkers(markers);
  const { element } = map;
  await vi.waitFor(() => expect(element.dataset.complete).toBe("true"), PATIENCE);
  const { width, height } = element.getBoundingClientRect();
  expect({ width, height }).toEqual(SIZE);
  element.setPointerCapture = () => undefined;
  const fire = (type: string, { x, y }: { x: number; y: number }) => {
    const box = element.getBoundingClientRect();
    const at = { clientX: box.left + x, clientY: box.top + y };
    element.dispatchEvent(new PointerEvent(type, { bubbles: true, pointerId: 1, button: 0, ...at }));
  };
  return { map, element, fire };
}
afterEach(() => {
  map?.destroy();
  map = undefined;
  document.body.replaceChildren();
});

const at = (dLat: number, dLon: number): Position => ({ lat: VIEW.at.lat + dLat, lon: VIEW.at.lon + dLon });
const marker = (name: string, where: Position | undefined, more: Partial<Marker> = {}): Marker => ({
  name,
  at: where,
  ...more,
});

it("is a picture with a name and a description, and takes the view it is given", async () => {
  const { map: one, element } = await shown();
  expect(element.getAttribute("aria-label")).toMatch(/^A map\./);
  one.show({ at: at(0.01, 0.02), zoom: 12 });
  expect(one.view).toEqual({ at: at(0.01, 0.02), zoom: 12 });
  const { west, south, east, north } = one.bounds();
  expect(west).toBeLessThan(one.view.at.lon);
  expect(east).toBeGreaterThan(one.view.at.lon);
  expect(south).toBeLessThan(one.view.at.lat);
  expect(north).toBeGreaterThan(one.view.at.lat);
});

it("tells the press of a marker where there is one, and of a position where there is none", async () => {
  const { map: one, fire } = await shown([
    marker("Mill", at(0, 0), { heard: () => undefined }),
    marker("Nowhere", undefined),
  ]);
  const heard: string[] = [];
  one.onMarker(({ type, marker: { name }, place }) => heard.push(`${type} ${name} ${place}`));
  one.onPress(({ lat, lon }) => heard.push(`${lat.toFixed(4)},${lon.toFixed(4)}`));
  const spot = toScreen(VIEW, SIZE, at(0, 0));
  const press = (where: { x: number; y: number }) => {
    fire("pointerdown", where);
    fire("pointerup", where);
  };
  press({ x: spot.x, y: spot.y + 12 });
  expect(heard).toEqual(["press Mill 0"]);
  heard.length = 0;
  press(toScreen(VIEW, SIZE, at(-0.005, 0.005)));
  expect(heard).toEqual(["-35.2050,-21.5950"]);
});

it("a marker that may be moved is where it was dropped, to the pixel, and others stay where they are", async () => {
  await fc.assert(
    fc.asyncProperty(fc.integer({ min: 30, max: 470 }), fc.integer({ min: 60, max: 370 }), async (x, y) => {
      const { map: one, fire } = await shown([
        marker("Moves", at(0, 0), { draggable: true }),
        marker("Stays", at(0.02, 0.02)),
      ]);
      const places: Record<string, Position> = {};
      one.onMarker(({ type, marker: { name }, at: where }) => {
        if (type === "drop") places[name!] = where;
      });
      const from = toScreen(VIEW, SIZE, at(0, 0));
      const hold = { x: Math.round(from.x), y: Math.round(from.y) - 10 };
      fc.pre(Math.hypot(x - hold.x, y - hold.y) > 8);
      fire("pointerdown", hold);
      fire("pointermove", { x: (x + hold.x) / 2, y: (y + hold.y) / 2 });
      fire("pointermove", { x, y });
      fire("pointerup", { x, y });
      expect(Object.keys(places)).toEqual(["Moves"]);
      const dropped = toScreen(one.view, SIZE, places.Moves);
      expect(Math.hypot(dropped.x - (from.x + x - hold.x), dropped.y - (from.y + y - hold.y))).toBeLessThan(0.01);
      one.destroy();
      document.body.replaceChildren();
    }),
    { numRuns: 8 },
  );
});

it("lists its markers for the keyboard, and opens the card of the one that is chosen as text", async () => {
  const hostile = '<img src="x" onerror="alert(1)">';
  const { element } = await shown([
    marker("Mill", at(0, 0), { card: { title: hostile } }),
    marker("Quay", at(0.003, 0.003), { card: { title: "Quay" } }),
  ]);
  const list = element.querySelector<HTMLElement>("[role=listbox]")!;
  list.focus();
  await userEvent.keyboard("{Home}{Enter}");
  await vi.waitFor(() => expect(element.textContent).toContain(hostile), PATIENCE);
  expect(element.querySelector("img")).toBeNull();
});

it("asks for no tile and draws nothing below what is seen of the page, until one scrolls there or wants its picture", async () => {
  const asked: string[] = [];
  const counting = {
    ...client,
    tileUrl: (z: number, x: number, y: number) => {
      asked.push(`${z}/${x}/${y}`);
      return client.tileUrl(z, x, y);
    },
  } as unknown as Client;
  const below = () => {
    const place = document.createElement("div");
    place.style.cssText = "margin-top: 9000px; width: 500px; height: 400px";
    document.body.append(place);
    return new InteractiveMap(place, { client: counting, label: "A map", view: VIEW, mapStyles: [] });
  };
  map = below();
  const { element } = map;
  map.setMarkers([marker("Mill", at(0, 0))]);
  map.fit([at(0, 0), at(0.01, 0.01)]);
  await new Promise((resolve) => setTimeout(resolve, 300));
  expect(asked).toEqual([]);
  expect(element.dataset.complete).toBeUndefined();
  // the view is the one that was wanted, though nobody has seen it
  expect(map.bounds().north).toBeGreaterThan(VIEW.at.lat + 0.01);
  element.scrollIntoView();
  await vi.waitFor(() => expect(element.dataset.complete).toBe("true"), PATIENCE);
  expect(asked).not.toEqual([]);
  map.destroy();
  document.body.replaceChildren();
  scrollTo(0, 0);

  map = below();
  expect((await map.picture()).width).toBeGreaterThan(0);
  expect(map.element.dataset.complete).toBe("true");
});

const DATA: [number, number, number, number] = [30, 10, 32, 11];
/** A map that is told of no view, of a service that knows where its data lies, or does not say. */
function startedMap(countries: () => Promise<unknown>, view?: typeof VIEW) {
  const place = document.createElement("div");
  place.style.cssText = "width: 500px; height: 400px";
  document.body.append(place);
  const ofService = { ...client, countries } as unknown as Client;
  map = new InteractiveMap(place, { client: ofService, label: "A map", mapStyles: [], ...(view ? { view } : {}) });
  return map;
}
const drawn = (one: InteractiveMap) => vi.waitFor(() => expect(one.element.dataset.complete).toBe("true"), PATIENCE);

it("starts where the service has data, and follows its size until somebody moves it", async () => {
  const one = startedMap(async () => ({ countries: [{ bbox: DATA }, {}] }));
  await drawn(one);
  const { west, south, east, north } = one.bounds();
  expect([west < 30, south < 10, east > 32, north > 11]).toEqual([true, true, true, true]);
  expect(east - west).toBeLessThan(6);
  const before = one.view.zoom;
  one.element.parentElement!.style.width = "200px";
  await vi.waitFor(() => expect(one.view.zoom).toBeLessThan(before), PATIENCE);
  const moved = { at: { lat: 10.5, lon: 30.5 }, zoom: 9 };
  one.show(moved);
  one.element.parentElement!.style.width = "400px";
  await new Promise((resolve) => setTimeout(resolve, 200));
  expect(one.view).toEqual(moved);
});

it("asks nobody where to start when it is shown something at once, and never goes back to the data", async () => {
  let asked = 0;
  const countries = async () => {
    asked++;
    return { countries: [{ bbox: DATA }] };
  };
  await drawn(startedMap(countries, VIEW));
  map!.destroy();
  document.body.replaceChildren();
  const fitted = startedMap(countries);
  fitted.fit([at(0, 0), at(0.01, 0.01)]);
  await drawn(fitted);
  expect(asked).toBe(0);
  expect(fitted.view.at.lat).toBeCloseTo(VIEW.at.lat, 1);
  fitted.destroy();
  document.body.replaceChildren();
  let answer: (value: unknown) => void = () => undefined;
  const late = startedMap(() => new Promise((resolve) => (answer = resolve)));
  await new Promise((resolve) => setTimeout(resolve, 50));
  late.show(VIEW);
  answer({ countries: [{ bbox: DATA }] });
  await drawn(late);
  expect(late.view).toEqual(VIEW);
});

it("shows the world of a service that does not say where its data lies", async () => {
  for (const countries of [
    () => Promise.reject(new Error("away")),
    () => new Promise(() => undefined),
    async () => ({ countries: [] }),
  ]) {
    const one = startedMap(countries);
    await drawn(one);
    expect(one.view.zoom).toBeLessThan(3);
    one.destroy();
    document.body.replaceChildren();
  }
});

it("leaves nothing behind at its end", async () => {
  const before = document.body.innerHTML;
  const { map: one, element } = await shown([marker("Mill", at(0, 0))]);
  const place = element.parentElement!;
  one.destroy();
  map = undefined;
  expect(place.querySelector("canvas, button")).toBeNull();
  place.remove();
  expect(document.body.innerHTML).toBe(before);
});
