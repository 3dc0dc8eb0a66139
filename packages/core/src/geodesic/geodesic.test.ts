import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { sphereDistance } from "../geo/index.ts";
import { geodesic } from "./index.ts";

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

  it.each([
    // the values published with the method itself, and its nearly antipodal example
    [40.6, -73.8, 51.6, -0.5, 5_551_759.4, 51.198883],
    [-30, 0, 29.9, 179.8, 19_989_832.82761, 161.890525],
    [0, 0, 0.5, 179.5, 19_936_288.579, 25.671876],
    [0, 0, 0, 180, 20_003_931.4586, 0],
    [90, 0, -90, 0, 20_003_931.4586, 180],
  ])("agrees with the published line from %d, %d to %d, %d", (lat1, lon1, lat2, lon2, metres, bearing) => {
    const line = geodesic({ lat: lat1, lon: lon1 }, { lat: lat2, lon: lon2 });
    expect(Math.abs(line.metres - metres)).toBeLessThan(0.1);
    expect(line.bearing).toBeCloseTo(bearing, 3);
  });

  it("is never longer than a way by a third place", () => {
    fc.assert(
      fc.property(position, position, position, (a, b, c) => {
        expect(geodesic(a, c).metres).toBeLessThanOrEqual(geodesic(a, b).metres + geodesic(b, c).metres + 1e-6);
      }),
    );
    // the other side of the earth, by way of what lies just beside the line
    fc.assert(
      fc.property(position, position, (a, b) => {
        const opposite = { lat: -a.lat, lon: a.lon > 0 ? a.lon - 180 : a.lon + 180 };
        expect(geodesic(a, opposite).metres).toBeLessThanOrEqual(
          geodesic(a, b).metres + geodesic(b, opposite).metres + 1e-6,
        );
      }),
    );
  });

  it("is as far there as back", () => {
    fc.assert(
      fc.property(position, position, (a, b) => {
        expect(geodesic(a, b).metres).toBeCloseTo(geodesic(b, a).metres, 6);
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
