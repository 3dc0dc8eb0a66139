import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Position, sphereDistance } from "../geo/index.ts";
import { buildPointTree, nearestPoints } from "./kd-tree.ts";
import { SCALE } from "./layout.ts";

function treeOf(points: readonly Position[]) {
  const lat = Int32Array.from(points, (point) => Math.round(point.lat * SCALE));
  const lon = Int32Array.from(points, (point) => Math.round(point.lon * SCALE));
  return { ids: buildPointTree(lat, lon), lat, lon };
}

/** What a look at every point gives. */
function byLooking(points: readonly Position[], at: Position, radius: number, limit: number): number[] {
  return points
    .map((point, id) => ({
      id,
      metres: sphereDistance(at, {
        lat: Math.round(point.lat * SCALE) / SCALE,
        lon: Math.round(point.lon * SCALE) / SCALE,
      }),
    }))
    .filter(({ metres }) => metres <= radius)
    .sort((a, b) => a.metres - b.metres || a.id - b.id)
    .slice(0, limit)
    .map(({ id }) => id);
}

describe("nearestPoints", () => {
  it("finds the nearest of a few", () => {
    const points = [
      { lat: -35, lon: -21 },
      { lat: -35.001, lon: -21 },
      { lat: -36, lon: -22 },
    ];
    const found = nearestPoints(treeOf(points), { lat: -35.0004, lon: -21 }, 500, 5);
    expect(found.map(({ id }) => id)).toEqual([0, 1]);
    expect(found[0].metres).toBeCloseTo(44.5, 0);
  });

  it("finds nothing beyond the radius, and nothing in an empty tree", () => {
    expect(nearestPoints(treeOf([{ lat: 0, lon: 0 }]), { lat: 1, lon: 1 }, 1000, 5)).toEqual([]);
    expect(nearestPoints(treeOf([]), { lat: 1, lon: 1 }, 1000, 5)).toEqual([]);
  });

  it("finds across the 180th meridian", () => {
    const points = [
      { lat: 0, lon: -179.9999 },
      { lat: 0, lon: 179.99 },
    ];
    expect(nearestPoints(treeOf(points), { lat: 0, lon: 179.9999 }, 5000, 2).map(({ id }) => id)).toEqual([0, 1]);
  });

  it("finds near a pole, where all longitudes are close", () => {
    const points = [
      { lat: 89.999, lon: 0 },
      { lat: 89.999, lon: 180 },
      { lat: 89.9, lon: 0 },
    ];
    expect(
      nearestPoints(treeOf(points), { lat: 89.9999, lon: 90 }, 300, 3)
        .map(({ id }) => id)
        .sort((a, b) => a - b),
    ).toEqual([0, 1]);
  });

  it("agrees with a look at every point, wherever they lie", () => {
    const coordinate = (most: number) => fc.double({ min: -most, max: most, noNaN: true });
    const point = fc.record({ lat: coordinate(90), lon: coordinate(180) });
    fc.assert(
      fc.property(
        fc.array(point, { maxLength: 120 }),
        point,
        fc.constantFrom(50_000, 2_000_000, 30_000_000),
        (points, at, radius) => {
          const found = nearestPoints(treeOf(points), at, radius, 4).map(({ id }) => id);
          expect(found).toEqual(byLooking(points, at, radius, 4));
        },
      ),
      { numRuns: 200 },
    );
  });

  it("agrees with it for many points close together", () => {
    const offset = fc.integer({ min: -400, max: 400 });
    const point = fc.record({ lat: offset.map((n) => -35 + n * 1e-5), lon: offset.map((n) => -21 + n * 1e-5) });
    fc.assert(
      fc.property(fc.array(point, { minLength: 40, maxLength: 200 }), point, (points, at) => {
        expect(nearestPoints(treeOf(points), at, 250, 8).map(({ id }) => id)).toEqual(byLooking(points, at, 250, 8));
      }),
      { numRuns: 100 },
    );
  });
});
