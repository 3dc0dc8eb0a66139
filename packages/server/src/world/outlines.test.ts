import { ringsContain } from "@bibliotope/core/geo";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { worldFeatures } from "../tiles/world-features.ts";
import { countriesAt, countryOutline, landOutline, mayLieIn, world } from "./outlines.ts";

const position = fc.record({
  lat: fc.double({ min: -85, max: 85, noNaN: true }),
  lon: fc.double({ min: -180, max: 180, noNaN: true }),
});

describe("the world's outlines", () => {
  it("hold what their rings hold", () => {
    const rings = world().land.flat();
    const some = world().countries.filter((_, i) => i % 23 === 0);
    fc.assert(
      fc.property(position, (at) => {
        expect(landOutline().contains(at)).toBe(ringsContain(rings, at));
        for (const { code, polygons } of some)
          expect(countryOutline(code)!.contains(at)).toBe(ringsContain(polygons.flat(), at));
      }),
      { numRuns: 60 },
    );
  });

  it("are near what a step of some metres reaches", () => {
    fc.assert(
      fc.property(position, fc.double({ min: 0, max: 6.28, noNaN: true }), (at, turn) => {
        const metres = 9000;
        const step = metres / 111_195;
        const beside = {
          lat: at.lat + step * Math.sin(turn),
          lon: at.lon + (step * Math.cos(turn)) / Math.cos((at.lat * Math.PI) / 180),
        };
        if (Math.abs(beside.lon) < 179.5 && landOutline().contains(at))
          expect(landOutline().isNear(beside, metres * 1.3)).toBe(true);
      }),
      { numRuns: 300 },
    );
  });

  it.each([
    [48.5, 9.5, "DE"],
    [40.2, -3.7, "ES"],
    [36.5, 138, "JP"],
    [-20, -50, "BR"],
    [-35.2, -21.6, "QR"],
  ])("know that %d, %d may be of %s alone", (lat, lon, code) => {
    expect(countriesAt({ lat, lon })).toEqual([code]);
  });

  it.each([
    [66.5, 179.5, true],
    [66.5, -175, true],
    [62, -170, false],
    [70, 100, true],
    [-85, 10, true],
    [-85, -179, true],
    [0, -140, false],
    [72, -60, false],
  ])("have land at %d, %d: %s; over the 180th meridian and around the pole too", (lat, lon, isLand) => {
    expect(landOutline().contains({ lat, lon })).toBe(isLand);
  });

  it("tell no country by a border, and rule out what is far from one", () => {
    expect(countriesAt({ lat: 48.58, lon: 7.8 })).toEqual(expect.arrayContaining(["DE", "FR"]));
    expect(mayLieIn("DE", { lat: 47.9, lon: 16.4 })).toBe(false);
    // in the box of France, and not in France
    expect(mayLieIn("FR", { lat: 50.1, lon: 8.6 })).toBe(false);
  });

  it("name countries on land that is theirs, in their own language where the map has its letters", () => {
    const names = worldFeatures().filter(({ properties }) => properties.what === "country");
    expect(names.length).toBeGreaterThan(150);
    const of = (name: string) => names.find(({ properties }) => properties.names?.some((one) => one.name === name))!;
    expect(of("Germany").properties.names).toEqual([
      { lang: "de", name: "Deutschland" },
      { lang: "en", name: "Germany" },
    ]);
    for (const [name, code] of [
      ["Germany", "DE"],
      ["Japan", "JP"],
      ["Chile", "CL"],
      ["Norway", "NO"],
    ]) {
      const [lon, lat] = of(name).geometry.coordinates as [number, number];
      expect(countryOutline(code)!.contains({ lat, lon })).toBe(true);
    }
  });
});
