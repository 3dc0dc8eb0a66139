import { polygonsAbove } from "./ground/contour-polygons.ts";
import type { Grid } from "./ground/grid.ts";
import { distance, type Plane, type Point } from "./ground/plane.ts";
import type { World } from "./world.ts";

/** Metres between two contours. */
const STEP = 10;
const HIGHEST = 1500;
/** Square metres of the smallest knoll or hollow with a contour of its own. */
const LEAST_KNOLL = 150_000;
/** Metres between two heights that are written on the map, and cells around one that must be lower. */
const APART = 3500;
const AROUND_PEAK = 5;
const MOST_PEAKS = 24;

/** The steps of the ground: what lies above each height, as polygons whose outlines are the contours; and the tops. */
export function drawRelief(world: World, coarse: Grid, plane: Plane): void {
  for (let level = STEP; level < HIGHEST; level += STEP) {
    const rank = level % 200 === 0 ? 1 : level % 100 === 0 ? 2 : level % 20 === 0 ? 3 : 4;
    for (const rings of polygonsAbove(coarse, level, LEAST_KNOLL, plane))
      world.features.push({
        layer: "contour",
        rank,
        names: [],
        properties: { height: level },
        geometry: { type: "Polygon", coordinates: rings },
      });
  }
  for (const [i, { at, metres }] of peaksOf(coarse).entries())
    world.features.push({
      layer: "name",
      rank: i < 3 ? 1 : i < 9 ? 2 : 3,
      names: [],
      properties: { what: "peak", height: Math.round(metres) },
      geometry: { type: "Point", coordinates: plane.pair(at) },
    });
}

/** Tops of hills, the highest first, none near a higher one. */
function peaksOf(heights: Grid): { at: Point; metres: number }[] {
  const tops: { at: Point; metres: number }[] = [];
  const { columns, rows, values } = heights;
  for (let row = AROUND_PEAK; row < rows - AROUND_PEAK; row++) {
    for (let column = AROUND_PEAK; column < columns - AROUND_PEAK; column++) {
      const metres = values[row * columns + column];
      if (metres > 30 && isTop(heights, column, row, metres)) tops.push({ at: heights.point(column, row), metres });
    }
  }
  tops.sort((a, b) => b.metres - a.metres);
  const kept: typeof tops = [];
  for (const top of tops) {
    if (kept.length === MOST_PEAKS) break;
    if (kept.every((other) => distance(other.at, top.at) > APART)) kept.push(top);
  }
  return kept;
}

function isTop({ columns, values }: Grid, column: number, row: number, metres: number): boolean {
  for (let dr = -AROUND_PEAK; dr <= AROUND_PEAK; dr++) {
    for (let dc = -AROUND_PEAK; dc <= AROUND_PEAK; dc++)
      if (values[(row + dr) * columns + column + dc] > metres) return false;
  }
  return true;
}
