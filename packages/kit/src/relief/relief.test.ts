import { project } from "@bibliotope/core/geo";
import type { MapFeature } from "@bibliotope/core/map";
import fc from "fast-check";
import type { BufferGeometry } from "three";
import { describe, expect, it } from "vitest";
import { HeightField } from "./height-field.ts";
import { highestAround, housesOf, raise } from "./houses.ts";
import { type Ground, terrainOf, toScene, toSquare } from "./terrain.ts";

const ZOOM = 13;
const origin = project({ lat: -35.2, lon: -21.4 });
const [x, y] = [Math.floor(origin.x * 2 ** ZOOM), Math.floor(origin.y * 2 ** ZOOM)];

/** Ground that rises to the east, 3 points to a side of a tile. */
function slope(): Ground {
  const heights = new HeightField(ZOOM);
  for (const dx of [-1, 0, 1])
    for (const dy of [-1, 0, 1])
      heights.set(x + dx, y + dy, {
        columns: 3,
        rows: 3,
        metres: [0, 1, 2].flatMap(() => [0, 50, 100].map((rise) => 1000 + dx * 100 + rise)),
      });
  return { origin, side: 33_000_000, heights };
}

const pointsOf = (geometry: BufferGeometry) => {
  const { array } = geometry.getAttribute("position");
  return Array.from({ length: array.length / 3 }, (_, i) => [array[3 * i], array[3 * i + 1], array[3 * i + 2]]);
};

describe("HeightField", () => {
  it("lies between the four points around, and goes on from tile to tile", () => {
    const { heights } = slope();
    const at = (east: number) => heights.at({ x: (x + east) / 2 ** ZOOM, y: (y + 0.37) / 2 ** ZOOM });
    expect(at(0)).toBeCloseTo(1000, 6);
    expect(at(0.25)).toBeCloseTo(1025, 6);
    expect(at(0.999999)).toBeCloseTo(1100, 2);
    expect(at(1)).toBeCloseTo(1100, 6);
    expect(at(-0.5)).toBeCloseTo(950, 6);
  });

  it("is the sea where nothing is known", () => {
    const heights = new HeightField(ZOOM);
    expect(heights.at(origin)).toBe(0);
    heights.set(x, y, { columns: 2, rows: 2, metres: [null, null, null, null] });
    expect(heights.at(origin)).toBe(0);
  });
});

describe("terrainOf", () => {
  it("has the ground's height at every point, and the tile's corners on its texture", () => {
    const ground = slope();
    const geometry = terrainOf(ground, { z: ZOOM, x, y }, 4);
    const points = pointsOf(geometry);
    expect(points.length).toBe(25);
    for (const [east, up, south] of points)
      expect(up).toBeCloseTo(ground.heights.at(toSquare(ground, { x: east, z: south })), 1);
    const { array } = geometry.getAttribute("uv");
    expect([array[0], array[1], array[48], array[49]]).toEqual([0, 0, 1, 1]);
  });

  it("faces up", () => {
    const { array } = terrainOf(slope(), { z: ZOOM, x, y }, 4).getAttribute("normal");
    for (let i = 1; i < array.length; i += 3) expect(array[i]).toBeGreaterThan(0.9);
  });

  it("leaves out what finer ground shows", () => {
    const ground = slope();
    const count = 2 ** ZOOM;
    const whole = terrainOf(ground, { z: ZOOM, x, y }, 8).getIndex()!.count;
    const hole = {
      left: (x + 0.25) / count,
      right: (x + 0.75) / count,
      top: (y + 0.25) / count,
      bottom: (y + 0.75) / count,
    };
    expect(terrainOf(ground, { z: ZOOM, x, y }, 8, { hole }).getIndex()!.count).toBe(whole - 16 * 6);
  });

  it("goes from the square to metres and back", () => {
    const ground = slope();
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(share, share, (east, south) => {
        const back = toSquare(ground, toScene(ground, { x: east, y: south }));
        expect(back.x).toBeCloseTo(east, 9);
        expect(back.y).toBeCloseTo(south, 9);
      }),
    );
  });
});

describe("houses", () => {
  const z = 16;
  const tile = { z, x: Math.floor(origin.x * 2 ** z), y: Math.floor(origin.y * 2 ** z) };
  const house = (lon: number, lat: number, side: number): [number, number][] => [
    [lon, lat],
    [lon + side, lat],
    [lon + side, lat + side],
    [lon, lat + side],
    [lon, lat],
  ];
  const buildings = (...rings: [number, number][][]): MapFeature => ({
    type: "Feature",
    geometry: { type: "MultiPolygon", coordinates: rings.map((ring) => [ring]) },
    properties: { layer: "building", rank: 1 },
  });
  const ground = slope();
  const small = house(-21.4, -35.2, 0.0001);
  const large = house(-21.401, -35.2005, 0.0003);

  it("stand on the ground with a roof above it, the larger the higher", () => {
    const [a, b] = housesOf(ground, [buildings(small, large)], tile);
    for (const { foot, roof } of [a, b]) expect(roof).toBeGreaterThan(foot + 3);
    expect(b.roof - b.foot).toBeGreaterThan(a.roof - a.foot);
  });

  it("belong to the one tile in which they stand", () => {
    expect(housesOf(ground, [buildings(small)], tile).length).toBe(1);
    expect(housesOf(ground, [buildings(small)], { ...tile, x: tile.x + 1 })).toEqual([]);
    expect(housesOf(ground, [{ ...buildings(small), properties: { layer: "park", rank: 1 } }], tile)).toEqual([]);
  });

  it("are raised as walls and a roof, whichever way their outline runs", () => {
    for (const ring of [small, small.toReversed()]) {
      const [one] = housesOf(ground, [buildings(ring)], tile);
      const points = pointsOf(raise([one]));
      // four walls of two triangles, a roof of two
      expect(points.length).toBe(30);
      const roof = points.slice(24);
      for (const [, up] of roof) expect(up).toBeCloseTo(one.roof, 2);
      const { array } = raise([one]).getAttribute("normal");
      expect(array[24 * 3 + 1]).toBeCloseTo(1, 5);
    }
  });

  it("are cleared by the highest roof near by", () => {
    const houses = housesOf(ground, [buildings(small, large)], tile);
    const high = Math.max(...houses.map(({ roof }) => roof));
    expect(highestAround(houses, { x: 0, z: 0 }, 5000, 10)).toBe(high);
    expect(highestAround(houses, { x: 9000, z: 0 }, 100, 10)).toBe(10);
  });
});
