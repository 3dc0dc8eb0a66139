import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { contourRings, ringArea, smoothRing } from "./contour.ts";
import { Grid } from "./grid.ts";
import { Heap } from "./heap.ts";
import { Plane } from "./plane.ts";
import { contains, polygonsOf } from "./regions.ts";
import { findRivers } from "./rivers.ts";
import { makeTerrain } from "./terrain.ts";
import { spread } from "./travel.ts";

/** A round hill of a height in the middle of the sea. */
function hill(size = 60, top = 100): Grid {
  const grid = new Grid(size, size, 100);
  for (let row = 0; row < size; row++) {
    for (let column = 0; column < size; column++) {
      const { x, y } = grid.point(column, row);
      grid.values[row * size + column] = top - Math.hypot(x, y) / 20;
    }
  }
  return grid;
}

describe("contour lines", () => {
  it("of a hill are rings around its top, the higher the smaller", () => {
    const areas = [0, 30, 60, 90].map((level) => {
      const rings = contourRings(hill(), level);
      expect(rings).toHaveLength(1);
      expect(contains(rings[0], { x: 0, y: 0 })).toBe(true);
      return ringArea(rings[0]);
    });
    expect(areas).toEqual([...areas].sort((a, b) => b - a));
    expect(areas[0]).toBeGreaterThan(0);
  });

  it("lie where the ground has that height", () => {
    const grid = hill();
    for (const point of contourRings(grid, 50)[0]) expect(grid.sample(point)).toBeCloseTo(50, 0);
  });

  it("of a hollow run the other way, and become a hole", () => {
    const grid = hill();
    for (let i = 0; i < grid.values.length; i++) grid.values[i] = grid.values[i] > 80 ? -5 : grid.values[i];
    const rings = contourRings(grid, 0);
    expect(rings.map((ring) => Math.sign(ringArea(ring))).sort()).toEqual([-1, 1]);
    expect(polygonsOf(rings)).toHaveLength(1);
    expect(polygonsOf(rings)[0]).toHaveLength(2);
  });

  it("stay closed and nearly as large when they are smoothed", () => {
    const [ring] = contourRings(hill(), 50);
    const smooth = smoothRing(ring, 2);
    expect(smooth).toHaveLength(ring.length * 4);
    expect(ringArea(smooth) / ringArea(ring)).toBeCloseTo(1, 1);
  });
});

describe("Heap", () => {
  it("gives the cheapest first, equal ones by cell", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 99 }), fc.integer({ min: 0, max: 9 }))), (items) => {
        const heap = new Heap();
        for (const [cell, cost] of items) heap.push(cell, cost);
        const out: [number, number][] = [];
        for (let item = heap.pop(); item; item = heap.pop()) out.push([item.cell, item.cost]);
        expect(out).toEqual([...items].sort((a, b) => a[1] - b[1] || a[0] - b[0]));
      }),
    );
  });
});

describe("Plane", () => {
  it("goes to degrees and back within a decimetre", () => {
    const plane = new Plane({ lat: -35.2, lon: -21.4 });
    const metres = fc.double({ min: -30_000, max: 30_000, noNaN: true });
    fc.assert(
      fc.property(metres, metres, (x, y) => {
        const back = plane.point(plane.position({ x, y }));
        expect(Math.hypot(back.x - x, back.y - y)).toBeLessThan(0.2);
      }),
    );
  });
});

describe("travel", () => {
  it("reaches every cell, and gives it to the start that is cheaper to come from", () => {
    const flat = new Grid(40, 40, 100);
    flat.values.fill(10);
    const { owner, cost } = spread(
      flat,
      [
        { x: -1500, y: 0 },
        { x: 1500, y: 0 },
      ],
      Infinity,
      3,
    );
    expect(owner[flat.indexAt({ x: -1400, y: 300 })]).toBe(0);
    expect(owner[flat.indexAt({ x: 1400, y: -300 })]).toBe(1);
    expect(cost.every((value) => Number.isFinite(value))).toBe(true);
  });

  it("goes round a hill rather than over it", () => {
    const steep = hill(60, 300);
    const { cost, from } = spread(steep, [{ x: -2500, y: 0 }], Infinity, 3);
    const highest = (cell: number): number =>
      cell < 0 ? -Infinity : Math.max(steep.values[cell], highest(from[cell]));
    expect(highest(steep.indexAt({ x: 2500, y: 0 }))).toBeLessThan(260);
    expect(cost[steep.indexAt({ x: 2500, y: 0 })]).toBeGreaterThan(0);
  });
});

describe("the terrain", () => {
  const terrain = makeTerrain([{ x: 0, y: 0, long: 15_000, short: 10_000, turn: 0.3, lift: 0.95 }], 11);

  it("is an island: sea all round, land and hills inside", () => {
    const { columns, rows, values } = terrain;
    for (let column = 0; column < columns; column++)
      expect(Math.max(values[column], values[(rows - 1) * columns + column])).toBeLessThan(0);
    expect(values.reduce((a, b) => Math.max(a, b))).toBeGreaterThan(100);
  });

  it("has rivers that run downhill to the sea", () => {
    const coarse = terrain.halved();
    const rivers = findRivers(coarse);
    expect(rivers.length).toBeGreaterThan(0);
    for (const { points } of rivers) {
      const heights = points.map((point) => coarse.sample(point));
      expect(heights[0]).toBeGreaterThan(heights.at(-1)!);
    }
  });
});
