import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Ring, ringsContain } from "../geo/index.ts";
import { Segment, SegmentBuilder } from "./index.ts";

const box = (west: number, south: number, east: number, north: number): Ring => [
  [west, south],
  [east, south],
  [east, north],
  [west, north],
];

/** Countries side by side, regions in them, and so many towns of all sizes in those that a grid is used; across the 180th meridian too. */
function manyAreas() {
  const builder = new SegmentBuilder();
  const areas: { name: string; rings: Ring[]; parent: number | null }[] = [];
  const add = (kind: "country" | "region" | "town", parent: number | null, rings: Ring[]) => {
    const name = `${kind} ${areas.length + 1}`;
    const [[lon, lat]] = rings[0];
    const names = [{ lang: "en", name }];
    const identity = areas.push({ name, rings, parent });
    builder.addArea({ identity, kind, parent, names, at: { lat, lon }, importance: 0.1, rings });
    return identity;
  };
  let seed = 1;
  const next = () => {
    seed = (Math.imul(seed, 48271) + 11) >>> 0;
    return seed / 2 ** 32;
  };
  for (const west of [-10, 0, 10]) {
    const country = add("country", null, [box(west, 40, west + 10, 50)]);
    for (const south of [40, 45]) {
      const region = add("region", country, [box(west, south, west + 10, south + 5)]);
      for (let i = 0; i < 200; i++) {
        const [x, y, size] = [west + next() * 10, south + next() * 5, next() ** 4 * 6];
        add("town", region, [box(x, y, x + size, y + size)]);
      }
    }
  }
  const far = add("country", null, [box(178, -20, 180, -10), box(-180, -20, -178, -10)]);
  add("town", far, [box(179.5, -15, 180, -14), box(-180, -15, -179.5, -14)]);
  return { areas, segment: new Segment(builder.finish({ name: "many", sources: [] })) };
}

const { areas, segment } = manyAreas();

describe("areas around a position, among very many", () => {
  it("are those that contain it and lie in others that do, broad to narrow, as one finds by looking at each", () => {
    expect(segment.meta.counts.areas).toBeGreaterThan(1000);
    const byLooking = (lat: number, lon: number) => {
      const at = { lat, lon: lon === 180 ? -180 : lon };
      const holds = ({ rings, parent }: (typeof areas)[number]): boolean =>
        ringsContain(rings, at) && (parent === null || holds(areas[parent - 1]));
      return areas.filter(holds).map(({ name }) => name);
    };
    const lon = fc.oneof(
      fc.double({ min: -11, max: 21, noNaN: true }),
      fc.constantFrom(180, -180, 179.9, -179.9, 179.6),
    );
    const lat = fc.oneof(fc.double({ min: 39, max: 51, noNaN: true }), fc.constantFrom(-14.5, -12));
    fc.assert(
      fc.property(lat, lon, (y, x) => {
        const found = segment.areasAt({ lat: y, lon: x }).map((area) => segment.namesOf(area)[0].name);
        expect([...found].sort()).toEqual(byLooking(y, x).sort());
        const kinds = found.map((name) => ["country", "region", "town"].indexOf(name.split(" ")[0]));
        expect(kinds.indexOf(0)).toBe(found.length ? 0 : -1);
      }),
      { numRuns: process.env.BIBLIOTOPE_LONG ? 2000 : 500 },
    );
  });
});
