import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { geodesic, sphereDistance } from "./distance.ts";

const position = fc.record({
  lat: fc.double({ min: -89, max: 89, noNaN: true }),
  lon: fc.double({ min: -180, max: 180, noNaN: true }),
});

describe("geodesic", () => {
  it("agrees with the line that Vincenty's paper works out", () => {
    // Flinders Peak to Buninyon, the published example on GRS 80, within a millimetre of WGS 84
    const { metres, bearing } = geodesic(
      { lat: -(37 + 57 / 60 + 3.7203 / 3600), lon: 144 + 25 / 60 + 29.5244 / 3600 },
      { lat: -(37 + 39 / 60 + 10.1561 / 3600), lon: 143 + 55 / 60 + 35.3839 / 3600 },
    );
    expect(metres).toBeCloseTo(54_972.271, 2);
    expect(bearing).toBeCloseTo(306.8682, 3);
  });

  it("knows the length of a degree at the equator and along a meridian", () => {
    expect(geodesic({ lat: 0, lon: 0 }, { lat: 0, lon: 1 }).metres).toBeCloseTo(111_319.491, 2);
    expect(geodesic({ lat: 0, lon: 0 }, { lat: 1, lon: 0 }).metres).toBeCloseTo(110_574.389, 2);
  });

  it("goes the short way across the 180th meridian", () => {
    const { metres, bearing } = geodesic({ lat: 0, lon: 179.9 }, { lat: 0, lon: -179.9 });
    expect(metres).toBeCloseTo(22_263.898, 2);
    expect(bearing).toBeCloseTo(90, 6);
  });

  it("has no bearing from a position to itself", () => {
    expect(geodesic({ lat: -35, lon: -21 }, { lat: -35, lon: -21 })).toEqual({ metres: 0 });
  });

  it("does not fail for the other side of the earth", () => {
    const { metres } = geodesic({ lat: 0, lon: 0 }, { lat: 0.1, lon: 179.9 });
    expect(metres).toBeGreaterThan(19_900_000);
    expect(metres).toBeLessThan(20_040_000);
  });

  it("is as far there as back", () => {
    fc.assert(
      fc.property(position, position, (a, b) => {
        expect(geodesic(a, b).metres).toBeCloseTo(geodesic(b, a).metres, 3);
      }),
    );
  });

  it("lies within 0.6 % of the sphere", () => {
    fc.assert(
      fc.property(position, position, (a, b) => {
        const sphere = sphereDistance(a, b);
        expect(Math.abs(geodesic(a, b).metres - sphere)).toBeLessThanOrEqual(sphere * 0.006 + 0.001);
      }),
    );
  });
});

describe("sphereDistance", () => {
  it("is zero for the same position and half a turn for opposite ones", () => {
    expect(sphereDistance({ lat: 12, lon: 34 }, { lat: 12, lon: 34 })).toBe(0);
    expect(sphereDistance({ lat: 90, lon: 0 }, { lat: -90, lon: 0 })).toBeCloseTo(Math.PI * 6371008.8, 0);
  });
});
