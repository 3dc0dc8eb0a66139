import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { metresPerPixel } from "../geo/index.ts";
import {
  LEAST_ZOOM,
  MOST_ZOOM,
  panned,
  partsOf,
  scaleLength,
  tilesOf,
  toPosition,
  toScreen,
  type View,
  viewOf,
  zoomed,
  zoomedInto,
} from "./view.ts";

const size = { width: 640, height: 560 };
const view = fc.record({
  at: fc.record({
    lat: fc.double({ min: -60, max: 60, noNaN: true }),
    lon: fc.double({ min: -150, max: 150, noNaN: true }),
  }),
  zoom: fc.double({ min: LEAST_ZOOM, max: MOST_ZOOM, noNaN: true }),
});
const spot = fc.record({ x: fc.integer({ min: 0, max: 640 }), y: fc.integer({ min: 0, max: 560 }) });

const close = (a: { x: number; y: number }, b: { x: number; y: number }) => {
  expect(a.x).toBeCloseTo(b.x, 3);
  expect(a.y).toBeCloseTo(b.y, 3);
};

describe("a view", () => {
  it("has its own position in the middle", () => {
    const here: View = { at: { lat: -35.2, lon: -21.4 }, zoom: 14 };
    close(toScreen(here, size, here.at), { x: 320, y: 280 });
  });

  it("goes from the screen to a position and back", () => {
    fc.assert(fc.property(view, spot, (here, at) => close(toScreen(here, size, toPosition(here, size, at)), at)));
  });

  it("keeps the position under the hand while it zooms", () => {
    fc.assert(
      fc.property(view, spot, fc.double({ min: LEAST_ZOOM, max: MOST_ZOOM, noNaN: true }), (here, at, zoom) => {
        const known = toPosition(here, size, at);
        const moved = zoomed(here, size, zoom, at);
        expect(moved.zoom).toBeCloseTo(zoom, 9);
        const after = toScreen(moved, size, known);
        expect(after.x).toBeCloseTo(at.x, 2);
        expect(after.y).toBeCloseTo(at.y, 2);
      }),
    );
  });

  it("never zooms out of its bounds", () => {
    const here: View = { at: { lat: 0, lon: 0 }, zoom: 10 };
    expect(zoomed(here, size, 99, { x: 0, y: 0 }).zoom).toBe(MOST_ZOOM);
    expect(zoomed(here, size, -3, { x: 0, y: 0 }).zoom).toBe(LEAST_ZOOM);
  });

  it("comes back when it is moved there and back again", () => {
    fc.assert(
      // from 298 pixels on, the northernmost and southernmost views would come to the end of the map
      fc.property(view, fc.integer({ min: -300, max: 300 }), fc.integer({ min: -297, max: 297 }), (here, dx, dy) => {
        const back = panned(panned(here, dx, dy), -dx, -dy);
        expect(back.at.lat).toBeCloseTo(here.at.lat, 6);
        expect(back.at.lon).toBeCloseTo(here.at.lon, 6);
      }),
    );
  });
});

describe("the world's copies", () => {
  const fiji: View = { at: { lat: -17, lon: 179.9 }, zoom: 8 };

  it("show what lies beyond the 180th meridian where it is, next to it", () => {
    const east = toScreen(fiji, size, { lat: -17, lon: -179.9 });
    const west = toScreen(fiji, size, { lat: -17, lon: 179.7 });
    expect(east.x - 320).toBeCloseTo(320 - west.x, 6);
    expect(east.x).toBeGreaterThan(320);
  });

  it("give positions in degrees that are", () => {
    for (const x of [0, 320, 640]) {
      const { lon } = toPosition(fiji, size, { x, y: 280 });
      expect(Math.abs(lon)).toBeLessThanOrEqual(180);
    }
    expect(panned(fiji, 200, 0).at.lon).toBeLessThan(0);
  });

  it("are covered by tiles whose numbers begin again", () => {
    const tiles = tilesOf(fiji, size).filter(({ y }) => y === tilesOf(fiji, size)[0].y);
    expect(tiles.map(({ x }) => x)).toEqual([254, 255, 0, 1].slice(0, tiles.length));
    tiles.slice(1).forEach(({ left, side }, i) => {
      expect(left).toBeCloseTo(tiles[i].left + side, 6);
    });
  });

  it("are painted part by part, side by side, without a gap", () => {
    const parts = partsOf(fiji, size);
    expect(parts).toHaveLength(2);
    expect(parts[0].x).toBe(0);
    expect(parts[0].width * parts[0].scale).toBeCloseTo(parts[1].x, 6);
    expect(parts[1].left).toBe(0);
    expect((parts[0].width + parts[1].width) * parts[0].scale).toBeCloseTo(size.width, 6);
  });

  it("are all of one part within one world", () => {
    fc.assert(
      fc.property(view, (here) => {
        const total = partsOf(here, size).reduce((sum, { width, scale }) => sum + width * scale, 0);
        expect(total).toBeCloseTo(size.width, 4);
      }),
    );
  });

  it("do not widen a view of positions on both sides of the 180th meridian", () => {
    const both = viewOf(
      [
        { lat: -17, lon: 179 },
        { lat: -18, lon: -179 },
      ],
      size,
      16,
    );
    expect(Math.abs(Math.abs(both.at.lon) - 180)).toBeLessThan(1e-6);
    expect(both.zoom).toBeGreaterThan(7);
  });
});

describe("the scale", () => {
  it("is a round length that fits", () => {
    fc.assert(
      fc.property(fc.double({ min: LEAST_ZOOM, max: MOST_ZOOM, noNaN: true }), (zoom) => {
        const perPixel = metresPerPixel(zoom, -35);
        const metres = scaleLength(perPixel, 130);
        expect(metres / perPixel).toBeLessThanOrEqual(130);
        expect(metres / perPixel).toBeGreaterThan(130 / 2.6);
        expect([1, 2, 5]).toContain(Math.round(metres / 10 ** Math.floor(Math.log10(metres) + 1e-9)));
      }),
    );
  });
});

describe("viewOf", () => {
  const position = fc.record({
    lat: fc.double({ min: -60, max: 60, noNaN: true }),
    lon: fc.double({ min: -150, max: 150, noNaN: true }),
  });

  it("shows all positions that fit at the widest zoom, inside the map", () => {
    const near = fc.record({
      lat: fc.double({ min: -37, max: -34, noNaN: true }),
      lon: fc.double({ min: -23, max: -20, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(near, { minLength: 1, maxLength: 6 }), (positions) => {
        const shown = viewOf(positions, size, 16);
        for (const at of positions) {
          const { x, y } = toScreen(shown, size, at);
          expect(x).toBeGreaterThanOrEqual(0);
          expect(x).toBeLessThanOrEqual(size.width);
          expect(y).toBeGreaterThanOrEqual(0);
          expect(y).toBeLessThanOrEqual(size.height);
        }
      }),
    );
  });

  it("shows a single one as closely as asked, in the middle", () => {
    fc.assert(
      fc.property(position, (at) => {
        const shown = viewOf([at], size, 16);
        expect(shown.zoom).toBe(16);
        expect(shown.at.lat).toBeCloseTo(at.lat, 9);
        expect(shown.at.lon).toBeCloseTo(at.lon, 9);
      }),
    );
  });
});

describe("zoomedInto", () => {
  const size = { width: 800, height: 600 };
  const view = { at: { lat: -35.2, lon: -21.4 }, zoom: 12 };

  it("shows what lay between two corners, in the middle and whole", () => {
    const [a, b] = [
      { x: 100, y: 50 },
      { x: 300, y: 200 },
    ];
    const next = zoomedInto(view, size, b, a);
    expect(next.zoom).toBe(14);
    const corners = [a, b].map((corner) => toScreen(next, size, toPosition(view, size, corner)));
    expect(corners[0].x).toBeCloseTo(0, 3);
    expect(corners[1].x).toBeCloseTo(800, 3);
    expect(corners[0].y).toBeCloseTo(0, 3);
    expect(corners[1].y).toBeCloseTo(600, 3);
  });

  it("goes no closer than the map does", () => {
    expect(zoomedInto(view, size, { x: 1, y: 1 }, { x: 1, y: 1 }).zoom).toBe(19);
  });
});
