import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type HeightGrid, heightOn } from "./height-grid.ts";

const grid = (metres: number[], over: Partial<HeightGrid> = {}): HeightGrid => ({
  west: -22,
  south: -36,
  stepLon: 0.5,
  stepLat: 0.5,
  columns: 3,
  rows: 2,
  metres: Float32Array.from(metres),
  ...over,
});

describe("heightOn", () => {
  const plain = grid([0, 10, 20, 100, 110, 120]);

  it.each([
    [-36, -22, 0],
    [-36, -21.5, 10],
    [-36, -21, 20],
    [-35.5, -21, 120],
    [-35.75, -21.75, 55],
    [-36, -21.9, 2],
  ])("at %d, %d it is %d metres", (lat, lon, metres) => {
    expect(heightOn(plain, { lat, lon })).toBeCloseTo(metres, 4);
  });

  it.each([
    [-36.01, -21.5],
    [-35.49, -21.5],
    [-35.8, -22.01],
    [-35.8, -20.99],
    [Number.NaN, -21.5],
    [95, -21.5],
  ])("is not known at %d, %d, outside", (lat, lon) => {
    expect(heightOn(plain, { lat, lon })).toBeUndefined();
  });

  it("is not known beside a point that is not", () => {
    const holed = grid([0, Number.NaN, 20, 100, 110, 120]);
    expect(heightOn(holed, { lat: -35.7, lon: -21.7 })).toBeUndefined();
  });

  it("goes on over the 180th meridian", () => {
    const over = grid([0, 10, 20, 0, 10, 20], { west: 179.5 });
    expect(heightOn(over, { lat: -35.8, lon: -179.75 })).toBeCloseTo(15, 4);
    expect(heightOn(over, { lat: -35.8, lon: 179.75 })).toBeCloseTo(5, 4);
  });

  it("is that of a plane, wherever on the plane", () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 2, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (x, y) => {
        const height = heightOn(plain, { lat: -36 + y * 0.5, lon: -22 + x * 0.5 });
        expect(height).toBeCloseTo(10 * x + 100 * y, 3);
      }),
    );
  });
});
