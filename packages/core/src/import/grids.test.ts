import fc from "fast-check";
import proj4 from "proj4";
import { describe, expect, it } from "vitest";
import { sphereDistance } from "../geo/index.ts";
import { countryBox } from "../place/index.ts";
import { findProjection, gridOf, gridsOf, RowReader } from "./index.ts";
import { metresReader } from "./metres.ts";

/** Worked examples of the EPSG guidance notes and origins of grids: metres, then degrees of the grid's own datum or of WGS 84. */
const KNOWN = [
  [27700, 577274.99, 69740.5, 50.5, 0.5],
  [28992, 196105.283, 557057.739, 53, 6],
  [31370, 251763.2, 153034.13, 50.6795725, 5.8073703],
  [5514, -568991, -1050538.643, 50.2090117, 16.8497719],
  [2056, 2_600_000, 1_200_000, 46.95108, 7.438637],
  [2154, 700_000, 6_600_000, 46.5, 3],
  [2180, 500_000, 459_309, 52, 19],
  [3763, 0, 0, 39.668258, -8.133108],
  [2157, 600_000, 750_000, 53.5, -8],
  [3844, 500_000, 500_000, 46, 25],
  [23700, 650_000, 200_000, 47.144394, 19.048572],
  [5179, 1_000_000, 2_000_000, 38, 127.5],
] as const;
/** Metres between the datums of the old grids and WGS 84, at most. */
const DATUM = 220;

describe("grids of countries", () => {
  it.each(KNOWN)("EPSG:%i has %d, %d at %d°, %d°", (epsg, east, north, lat, lon) => {
    const at = metresReader({ system: "epsg", epsg })(east, north);
    expect(sphereDistance(at!, { lat, lon })).toBeLessThan(DATUM);
  });

  it("are known by their number, or said not to be", () => {
    expect(gridOf(2154)?.name).toBe("Lambert-93");
    expect(() => metresReader({ system: "epsg", epsg: 9999 })).toThrow("EPSG:9999 is not known here.");
    expect(metresReader({ system: "epsg", epsg: 2154 })(1e12, 5)).toBeUndefined();
  });

  it("are found by where rows then lie, the columns the other way round too; never another without a word", () => {
    const countries = fc.constantFrom(..."GB IE FR NL BE DE AT CH IT PT PL CZ SE EE HU RO NZ KR JP".split(" "));
    const share = fc.double({ min: 0.1, max: 0.9, noNaN: true });
    let found = 0;
    fc.assert(
      fc.property(countries, fc.nat(), share, share, fc.boolean(), (code, which, x, y, isSwapped) => {
        const grids = gridsOf(code);
        const { epsg, terms } = grids[which % grids.length];
        const [west, south, east, north] = countryBox(code)!;
        const [lat, lon] = [south + y * (north - south), west + x * (east - west)];
        const metres = Array.from({ length: 12 }, (_, i) =>
          proj4(terms)
            .forward([lon + i * 1e-4, lat + i * 1e-4])
            .map((value) => value.toFixed(1)),
        ) as [string, string][];
        const pairs = isSwapped ? metres.map(([a, b]): [string, string] => [b, a]) : metres;
        const weighed = findProjection(pairs, code);
        if (!weighed.projection) {
          expect(weighed.why).toMatch(/choose (one|the zone)/);
          return;
        }
        found++;
        const read = metresReader(weighed.projection);
        const [a, b] = pairs[0].map(Number);
        const at = weighed.isSwapped ? read(b, a) : read(a, b);
        expect(sphereDistance(at!, { lat, lon }), `${code} ${epsg} ${weighed.why}`).toBeLessThan(30);
      }),
      { numRuns: 400 },
    );
    expect(found).toBeGreaterThan(100);
  });

  it("are told by the names of the columns, where several would do", () => {
    const town = (x: number, y: number) => Array.from({ length: 9 }, (_, i) => [`${x + i}`, `${y}`] as const);
    const several = findProjection(town(3_500, -12_000), "JP");
    expect(several.projection).toBeUndefined();
    expect(several.weighed.length).toBeGreaterThan(5);
    const told = findProjection(town(3_500, -12_000), "JP", { heads: ["east_6677", "north_6677"] });
    expect(told.projection).toEqual({ system: "epsg", epsg: 6677 });
    expect(told.why).toContain("as the file says");
  });

  it("put the rows of a table where they are", () => {
    const columns = ["street", "house", "east", "north"].map((meaning) => ({ meaning }) as never);
    const reading = { columns, country: "NL", projection: { system: "epsg", epsg: 28992 } as const };
    const { row } = new RowReader(reading).read(["Molenpad", "4", "155000", "463000"]);
    expect(sphereDistance(row!.at, { lat: 52.155, lon: 5.387 })).toBeLessThan(DATUM);
  });
});
