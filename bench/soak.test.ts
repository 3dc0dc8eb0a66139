import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Minute, trendOf } from "./soak.ts";
import { lineCharts } from "./soak-chart.ts";

describe("a trend", () => {
  it("is the slope of a straight line, with one value in five as wrong as can be", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.integer({ min: 10, max: 40 }),
        fc.array(fc.tuple(fc.nat(1000), fc.double({ min: -1e6, max: 1e6, noNaN: true })), { maxLength: 2 }),
        (slope, length, wrong) => {
          const values = Array.from({ length }, (_, i) => 100 + slope * i);
          for (const [at, value] of wrong) values[at % length] = value;
          expect(trendOf(values)).toBeCloseTo(slope, 6);
        },
      ),
    );
  });

  it("of no values and of one there is none", () => {
    expect(trendOf([])).toBe(0);
    expect(trendOf([7])).toBe(0);
  });
});

it("the chart has a point for each minute in each of its panels, all of them within it", () => {
  const minute = fc.record({
    ...{ answered: fc.nat(), lost: fc.nat(), slowest: fc.nat(5000) },
    ...{ p99: fc.nat(5000), memory: fc.double({ min: 50, max: 4000, noNaN: true }), descriptors: fc.nat(5000) },
  });
  fc.assert(
    fc.property(fc.array(minute, { minLength: 1, maxLength: 90 }), (minutes: Minute[]) => {
      const svg = lineCharts(minutes);
      const [, width, height] = /viewBox="0 0 (\d+) (\d+)"/.exec(svg)!.map(Number);
      const lines = [...svg.matchAll(/points="([^"]+)"/g)].map(([, points]) => points.split(" "));
      expect(lines.map(({ length }) => length)).toEqual([minutes.length, minutes.length, minutes.length]);
      for (const point of lines.flat()) {
        const [x, y] = point.split(",").map(Number);
        expect(x >= 0 && x <= width && y >= 0 && y <= height).toBe(true);
      }
    }),
  );
});
