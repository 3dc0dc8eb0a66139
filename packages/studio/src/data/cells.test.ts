import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cellAt, cellsOf, cornersOf, opacityOf } from "./cells.ts";

const grid = fc.record({
  size: fc.constantFrom(0.01, 0.05, 0.25, 1),
  cells: fc
    .uniqueArray(fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -90, max: 90 })), {
      selector: (at) => at.join(),
      minLength: 1,
      maxLength: 30,
    })
    .chain((places) =>
      fc.tuple(...places.map(([row, col]) => fc.tuple(fc.constant(row), fc.constant(col), fc.nat(9999), fc.nat(99)))),
    )
    .map((cells) => cells.flat()),
});

describe("cells of a coverage grid", () => {
  it("are as wide and high as the grid says, with their counts", () => {
    fc.assert(
      fc.property(grid, (one) => {
        const cells = cellsOf(one);
        expect(cells.length * 4).toBe(one.cells.length);
        for (const [i, { west, south, east, north, here, before }] of cells.entries()) {
          expect(east - west).toBeCloseTo(one.size, 9);
          expect(north - south).toBeCloseTo(one.size, 9);
          expect([here, before]).toEqual(one.cells.slice(i * 4 + 2, i * 4 + 4));
        }
        expect(cornersOf(cells)).toHaveLength(cells.length * 2);
      }),
    );
  });

  it("are found by a position in them, and by none beside them", () => {
    fc.assert(
      fc.property(grid, fc.nat(29), fc.double({ min: 0.01, max: 0.99, noNaN: true }), (one, i, share) => {
        const cells = cellsOf(one);
        const cell = cells[i % cells.length];
        const at = { lat: cell.south + share * one.size, lon: cell.west + share * one.size };
        expect(cellAt(cells, at)).toBe(cell);
        expect(cellAt(cells, { lat: 89, lon: 179 })).toBeUndefined();
      }),
    );
  });

  it("are the more opaque the more addresses they have, and never hide the map", () => {
    fc.assert(
      fc.property(fc.nat(1_000_000), fc.nat(1_000_000), (a, b) => {
        const most = Math.max(a, b);
        const [less, more] = [opacityOf(Math.min(a, b), most), opacityOf(most, most)];
        expect(less).toBeLessThanOrEqual(more);
        expect(less).toBeGreaterThanOrEqual(0.25);
        expect(more).toBeLessThanOrEqual(0.75 + 1e-9);
      }),
    );
  });
});
