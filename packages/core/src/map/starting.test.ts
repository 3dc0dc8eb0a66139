import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Box } from "../geo/position.ts";
import { startingPositions } from "./starting.ts";
import { toScreen, viewOf } from "./view.ts";

const SIZE = { width: 640, height: 480 };
/** A box anywhere, over the 180th meridian too. */
const box = fc
  .record({
    west: fc.double({ min: -180, max: 179.9, noNaN: true }),
    south: fc.double({ min: -60, max: 70, noNaN: true }),
    width: fc.double({ min: 0.01, max: 60, noNaN: true }),
    height: fc.double({ min: 0.01, max: 14, noNaN: true }),
  })
  .map(({ west, south, width, height }): Box => {
    const east = west + width;
    return [west, south, east > 180 ? east - 360 : east, south + height];
  });

/** True when all corners of a box lie on the screen of the view that is started with. */
function shows(boxes: readonly Box[], [west, south, east, north]: Box): boolean {
  const view = viewOf(startingPositions(boxes), SIZE, 16);
  return [
    [south, west],
    [north, east],
  ].every(([lat, lon]) => {
    const { x, y } = toScreen(view, SIZE, { lat, lon });
    return x >= -0.01 && y >= -0.01 && x <= SIZE.width + 0.01 && y <= SIZE.height + 0.01;
  });
}

describe("what a map starts with", () => {
  it("shows the whole of one country, wherever it lies", () => {
    fc.assert(
      fc.property(box, (one) => {
        expect(shows([one], one)).toBe(true);
      }),
    );
  });

  it("shows at least one country whole, whatever the others are", () => {
    fc.assert(
      fc.property(fc.array(box, { minLength: 1, maxLength: 6 }), (boxes) => {
        fc.pre(startingPositions(boxes).length > 0);
        expect(boxes.some((one) => shows(boxes, one))).toBe(true);
      }),
    );
  });

  it("shows neighbours together, and of islands far apart the largest", () => {
    const neighbours: Box[] = [
      [6, 47, 15, 55],
      [10, 46, 17, 49],
    ];
    for (const one of neighbours) expect(shows(neighbours, one)).toBe(true);
    const [small, large]: Box[] = [
      [-21, -35.5, -20.5, -35],
      [-23, -36.5, -22, -36],
    ];
    expect(shows([small, large], large)).toBe(true);
    expect(shows([small, large], small)).toBe(false);
  });

  it("goes the short way round, and says nothing of the whole world", () => {
    const islands: Box[] = [
      [177, -19, -179, -16],
      [-176, -22, -173, -15],
    ];
    expect(startingPositions(islands).length).toBe(3);
    expect(shows(islands, islands[0])).toBe(true);
    expect(startingPositions([])).toEqual([]);
    expect(startingPositions([[-170, -50, 170, 60]])).toEqual([]);
  });
});
