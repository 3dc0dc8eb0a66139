import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { project } from "../geo/index.ts";
import { clipLine, clipRing, type Frame } from "./clip.ts";
import { firstZoom, TileCutter } from "./cut.ts";
import type { MapFeature } from "./features.ts";
import { simplify } from "./simplify.ts";

const frame: Frame = { left: 0, top: 0, right: 10, bottom: 10 };

describe("clipLine", () => {
  it("leaves a line inside as it is", () => {
    expect(clipLine([1, 1, 5, 5, 9, 1], frame)).toEqual([[1, 1, 5, 5, 9, 1]]);
  });

  it("cuts a line at the edges, into pieces where it leaves and comes back", () => {
    expect(clipLine([-5, 5, 15, 5], frame)).toEqual([[0, 5, 10, 5]]);
    expect(clipLine([1, 5, 1, 20, 9, 20, 9, 5], frame)).toEqual([
      [1, 5, 1, 10],
      [9, 10, 9, 5],
    ]);
  });

  it("drops a line outside, and one that passes a corner", () => {
    expect(clipLine([20, 20, 30, 30], frame)).toEqual([]);
    expect(clipLine([-5, 4, 4, -5], frame)).toEqual([]);
  });

  it("keeps every piece inside the frame", () => {
    const coordinate = fc.double({ min: -20, max: 30, noNaN: true });
    fc.assert(
      fc.property(fc.array(coordinate, { minLength: 4, maxLength: 20 }), (numbers) => {
        const line = numbers.slice(0, numbers.length & ~1);
        for (const piece of clipLine(line, frame)) {
          for (const value of piece) {
            expect(value).toBeGreaterThanOrEqual(-1e-9);
            expect(value).toBeLessThanOrEqual(10 + 1e-9);
          }
        }
      }),
    );
  });
});

describe("clipRing", () => {
  const area = (ring: readonly number[]) => {
    let sum = 0;
    for (let i = 0; i < ring.length; i += 2) {
      const j = (i + 2) % ring.length;
      sum += ring[i] * ring[j + 1] - ring[j] * ring[i + 1];
    }
    return Math.abs(sum) / 2;
  };

  it("cuts a square that hangs over the edge", () => {
    expect(area(clipRing([5, 5, 15, 5, 15, 15, 5, 15], frame))).toBe(25);
  });

  it("gives the whole frame to a ring around it, and nothing to one beside it", () => {
    expect(area(clipRing([-5, -5, 15, -5, 15, 15, -5, 15], frame))).toBe(100);
    expect(clipRing([20, 20, 30, 20, 30, 30], frame)).toEqual([]);
  });

  it("never makes a ring larger", () => {
    const coordinate = fc.integer({ min: -20, max: 30 });
    fc.assert(
      fc.property(coordinate, coordinate, fc.integer({ min: 1, max: 25 }), (x, y, side) => {
        const square = [x, y, x + side, y, x + side, y + side, x, y + side];
        const overlap =
          Math.max(0, Math.min(10, x + side) - Math.max(0, x)) * Math.max(0, Math.min(10, y + side) - Math.max(0, y));
        expect(area(clipRing(square, frame))).toBeCloseTo(overlap, 9);
      }),
    );
  });
});

describe("simplify", () => {
  it("drops points on a straight line, and keeps the ends and the corners", () => {
    expect([...simplify([0, 0, 1, 0, 2, 0, 2, 5], 0.1)]).toEqual([0, 0, 2, 0, 2, 5]);
  });

  it("leaves a line of two points alone", () => {
    const line = [0, 0, 1, 1];
    expect(simplify(line, 10)).toBe(line);
  });

  it("never moves the line by more than the tolerance", () => {
    const coordinate = fc.double({ min: 0, max: 100, noNaN: true });
    const toSegment = (x: number, y: number, ax: number, ay: number, bx: number, by: number) => {
      const length = (bx - ax) ** 2 + (by - ay) ** 2;
      const t = length ? Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length)) : 0;
      return Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay));
    };
    fc.assert(
      fc.property(fc.array(fc.tuple(coordinate, coordinate), { minLength: 3, maxLength: 30 }), (points) => {
        const kept = [...simplify(points.flat(), 5)];
        for (const [x, y] of points) {
          let nearest = Infinity;
          for (let i = 2; i < kept.length; i += 2)
            nearest = Math.min(nearest, toSegment(x, y, kept[i - 2], kept[i - 1], kept[i], kept[i + 1]));
          expect(nearest).toBeLessThanOrEqual(5 + 1e-9);
        }
      }),
    );
  });
});

const feature = (
  layer: MapFeature["properties"]["layer"],
  rank: number,
  geometry: MapFeature["geometry"],
  more = {},
): MapFeature => ({ type: "Feature", geometry, properties: { layer, rank, ...more } });

describe("firstZoom", () => {
  it("shows the important early and the rest later", () => {
    expect(firstZoom({ layer: "land", rank: 1 })).toBe(0);
    expect(firstZoom({ layer: "street", rank: 1 })).toBeLessThan(firstZoom({ layer: "street", rank: 4 }));
    expect(firstZoom({ layer: "building", rank: 1 })).toBeGreaterThan(12);
    expect(firstZoom({ layer: "name", rank: 9 })).toBe(firstZoom({ layer: "name", rank: 4 }));
  });
});

describe("TileCutter", () => {
  const island = feature("land", 1, {
    type: "Polygon",
    coordinates: [
      [
        [-22, -36],
        [-21, -36],
        [-21, -35],
        [-22, -35],
        [-22, -36],
      ],
    ],
  });
  const road = feature("street", 1, {
    type: "LineString",
    coordinates: [
      [-22, -35.5],
      [-21, -35.5],
    ],
  });
  const house = feature("building", 1, {
    type: "Polygon",
    coordinates: [
      [
        [-21.5, -35.5],
        [-21.4999, -35.5],
        [-21.4999, -35.4999],
        [-21.5, -35.5],
      ],
    ],
  });
  const town = feature(
    "name",
    1,
    { type: "Point", coordinates: [-21.5, -35.5] },
    { names: [{ lang: "en", name: "Tidewell" }], what: "town" },
  );
  const cutter = new TileCutter([island, road, house, town]);
  const tileAt = (z: number, lat: number, lon: number) => {
    const { x, y } = project({ lat, lon });
    return { z, x: Math.floor(x * 2 ** z), y: Math.floor(y * 2 ** z) };
  };
  const layers = (z: number, lat = -35.5, lon = -21.5) =>
    cutter.cut(tileAt(z, lat, lon)).features.map(({ properties }) => properties.layer);

  it("holds what belongs to the zoom", () => {
    expect(layers(6)).toEqual(["land"]);
    expect(layers(10)).toEqual(["land", "street", "name"]);
    expect(layers(16)).toEqual(["land", "street", "building", "name"]);
  });

  it("shows others in place of some, until they are told to come back", () => {
    const [known, stranger] = [
      { ...town, id: "qr-1" },
      { ...road, id: "qr-2" },
    ];
    const own = new TileCutter([island, known, stranger]);
    const at = tileAt(10, -35.5, -21.5);
    const before = own.cut(at);
    expect(own.having(new Set(["qr-1", "qr-3"]))).toEqual([known]);
    own.replace(new Set(["qr-1"]), [{ ...house, id: "qr-1" }, road]);
    expect(own.cut(at).features.map(({ properties }) => properties.layer)).toEqual(["land", "street", "street"]);
    expect(own.cut(tileAt(16, -35.5, -21.5)).features.map(({ id }) => id)).toContain("qr-1");
    own.replace(new Set(), []);
    expect(own.cut(at)).toEqual(before);
  });

  it("is empty on the open sea", () => {
    expect(layers(14, -30, -10)).toEqual([]);
  });

  it("keeps everything within a quarter tile of the tile's edges", () => {
    for (const z of [8, 11, 14]) {
      const tile = tileAt(z, -35.5, -21.5);
      for (const { geometry } of cutter.cut(tile).features) {
        const pairs = JSON.stringify(geometry.coordinates)
          .match(/-?[\d.]+,-?[\d.]+/g)!
          .map((pair) => pair.split(",").map(Number));
        for (const [lon, lat] of pairs) {
          const { x, y } = project({ lat, lon });
          expect(Math.abs(x * 2 ** z - tile.x - 0.5)).toBeLessThanOrEqual(0.751);
          expect(Math.abs(y * 2 ** z - tile.y - 0.5)).toBeLessThanOrEqual(0.751);
        }
      }
    }
  });

  it("gives closed rings, whatever was cut off", () => {
    const [land] = cutter.cut(tileAt(12, -35.5, -21.5)).features;
    expect(land.geometry.type).toBe("Polygon");
    if (land.geometry.type === "Polygon")
      for (const ring of land.geometry.coordinates) expect(ring[0]).toEqual(ring.at(-1));
  });

  it("joins up where two tiles meet: both hold the same point of the road at their common edge", () => {
    const z = 12;
    const left = tileAt(z, -35.5, -21.5);
    const lonOf = (x: number) => (x / 2 ** z - 0.5) * 360;
    const edge = lonOf(left.x + 1);
    const [a, b] = [left, { ...left, x: left.x + 1 }].map(
      (tile) => cutter.cut(tile).features.find(({ properties }) => properties.layer === "street")!.geometry,
    );
    const reach = (geometry: typeof a) =>
      geometry.type === "LineString" ? geometry.coordinates.map(([lon]) => lon) : [];
    expect(Math.max(...reach(a))).toBeGreaterThan(edge);
    expect(Math.min(...reach(b))).toBeLessThan(edge);
  });

  it("flags the edges that are the tile's own, and no others", () => {
    const tile = tileAt(12, -35.001, -21.5);
    const [land] = cutter.cut(tile).features;
    const [ring] = (land.geometry as { coordinates: [number, number][][] }).coordinates;
    const [cuts] = land.properties.cuts!;
    const north = Math.max(...ring.map(([, lat]) => lat));
    const own = ring.slice(0, -1).flatMap((_, i) => (cuts.includes(i) ? [] : [[ring[i], ring[i + 1]]]));
    // three sides are cut; the northern one is the island's
    expect(cuts.length).toBe(3);
    expect(own.length).toBe(1);
    for (const [, lat] of own[0]) expect(lat).toBeCloseTo(north, 6);
    expect(Math.abs(north + 35)).toBeLessThan(1e-4);
    const whole = cutter.cut(tileAt(6, -35.5, -21.5)).features[0];
    expect(whole.properties.cuts).toBeUndefined();
  });

  it("flags only edges on the tile's frame, however an area is cut", () => {
    const corner = fc.record({
      lon: fc.double({ min: -21.6, max: -21.4, noNaN: true }),
      lat: fc.double({ min: -35.6, max: -35.4, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(corner, { minLength: 3, maxLength: 7 }), (corners) => {
        const ring = [...corners, corners[0]].map(({ lon, lat }): [number, number] => [lon, lat]);
        const one = new TileCutter([feature("land", 1, { type: "Polygon", coordinates: [ring] })]);
        const [cut] = one.cut(tileAt(13, -35.5, -21.5)).features;
        if (!cut) return;
        const rings = cut.geometry.type === "Polygon" ? cut.geometry.coordinates : [];
        rings.forEach((pairs, i) => {
          const { x, y } = tileAt(13, -35.5, -21.5);
          const isOnFrame = (value: number, at: number) =>
            [-0.25, 1.25].some((side) => Math.abs(value - at - side) < 1e-3);
          for (const place of cut.properties.cuts?.[i] ?? []) {
            const [a, b] = [pairs[place], pairs[place + 1]].map(([lon, lat]) => project({ lat, lon }));
            const scale = 2 ** 13;
            expect(
              (isOnFrame(a.x * scale, x) && isOnFrame(b.x * scale, x)) ||
                (isOnFrame(a.y * scale, y) && isOnFrame(b.y * scale, y)),
            ).toBe(true);
          }
        });
      }),
    );
  });
});
