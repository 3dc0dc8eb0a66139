import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fractal, hashText, noise, Random } from "./random.ts";

describe("Random", () => {
  it("gives the same numbers for the same seed", () => {
    const draw = (seed: number | string) => {
      const random = new Random(seed);
      return Array.from({ length: 20 }, () => random.next());
    };
    expect(draw(7)).toEqual(draw(7));
    expect(draw("seven")).toEqual(draw("seven"));
    expect(draw(7)).not.toEqual(draw(8));
  });

  it("stays within the bounds that were requested", () => {
    fc.assert(
      fc.property(
        fc.integer(),
        fc.integer({ min: -50, max: 50 }),
        fc.integer({ min: 0, max: 50 }),
        (seed, low, span) => {
          const random = new Random(seed);
          for (let i = 0; i < 50; i++) {
            const whole = random.integer(low, low + span);
            expect(Number.isInteger(whole) && whole >= low && whole <= low + span).toBe(true);
            expect(random.next()).toBeLessThan(1);
          }
        },
      ),
    );
  });

  it("shuffles without losing or doubling anything", () => {
    fc.assert(
      fc.property(fc.integer(), fc.array(fc.integer(), { maxLength: 30 }), (seed, list) => {
        expect(new Random(seed).shuffle(list).sort()).toEqual([...list].sort());
      }),
    );
  });

  it("picks early entries more often, when asked to", () => {
    const random = new Random(3);
    const counts = [0, 0, 0, 0];
    for (let i = 0; i < 4000; i++) counts[random.pickOften([0, 1, 2, 3])]++;
    expect(counts).toEqual([...counts].sort((a, b) => b - a));
  });
});

describe("noise", () => {
  it("is smooth, and stays between 0 and 1", () => {
    const coordinate = fc.double({ min: -1000, max: 1000, noNaN: true });
    fc.assert(
      fc.property(coordinate, coordinate, (x, y) => {
        const here = noise(x, y, 5);
        expect(here).toBeGreaterThanOrEqual(0);
        expect(here).toBeLessThanOrEqual(1);
        expect(Math.abs(noise(x + 0.001, y, 5) - here)).toBeLessThan(0.01);
        expect(Math.abs(fractal(x, y, 5, 4))).toBeLessThanOrEqual(1);
      }),
    );
  });
});

describe("hashText", () => {
  it("is the same on every machine", () => {
    expect(hashText("")).toBe(0x811c9dc5);
    expect(hashText("a")).toBe(0xe40c292c);
  });
});
