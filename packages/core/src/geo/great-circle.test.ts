import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { sphereDistance } from "./distance.ts";
import { greatCircle } from "./great-circle.ts";

const position = fc.record({
  lat: fc.double({ min: -85, max: 85, noNaN: true }),
  lon: fc.double({ min: -180, max: 180, noNaN: true }),
});

describe("greatCircle", () => {
  it("is as long as the distance, stroke by stroke, and ends where it should", () => {
    fc.assert(
      fc.property(position, position, (from, to) => {
        const whole = sphereDistance(from, to);
        fc.pre(whole < 19_900_000);
        const points = greatCircle(from, to);
        const length = points.slice(1).reduce((sum, point, i) => sum + sphereDistance(points[i], point), 0);
        expect(Math.abs(length - whole)).toBeLessThan(1 + whole * 1e-6);
        const end = points[points.length - 1];
        expect(end.lat).toBe(to.lat);
        expect(Math.abs(((end.lon - to.lon) / 360) % 1)).toBeLessThan(1e-9);
      }),
    );
  });

  it("goes over the 180th meridian without a jump", () => {
    const points = greatCircle({ lat: -17, lon: 178 }, { lat: -18, lon: -178 });
    for (let i = 1; i < points.length; i++) expect(points[i].lon - points[i - 1].lon).toBeGreaterThan(0);
    expect(points[points.length - 1].lon).toBeCloseTo(182, 9);
  });

  it("bends towards the pole between two places of one latitude", () => {
    const points = greatCircle({ lat: 50, lon: -60 }, { lat: 50, lon: 60 });
    expect(Math.max(...points.map(({ lat }) => lat))).toBeGreaterThan(66);
  });

  it("is one stroke between two near places", () => {
    expect(greatCircle({ lat: -35.2, lon: -21.4 }, { lat: -35.21, lon: -21.41 })).toHaveLength(2);
  });
});
