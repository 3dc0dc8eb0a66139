import type { Grid } from "../ground/grid.ts";
import { distance, type Point } from "../ground/plane.ts";
import type { River } from "../ground/rivers.ts";
import type { Random } from "../random.ts";

/** Where a town is and how large it is. */
export interface Site {
  at: Point;
  /** Radius of the built-up part in metres. */
  radius: number;
  population: number;
  onCoast: boolean;
}

const LEAST_APART = 3200;

/** Picks places for towns: flat ground by the sea or a river, apart from each other, the best first. */
export function pickSites(heights: Grid, rivers: readonly River[], count: number, random: Random): Site[] {
  const nearRiver = new Set(rivers.flatMap((river) => river.points.map((point) => cellOf(point))));
  const mouths = rivers.map((river) => river.points[river.points.length - 1]);
  const options: { at: Point; worth: number; onCoast: boolean }[] = [];
  for (let row = 12; row < heights.rows - 12; row += 3) {
    for (let column = 12; column < heights.columns - 12; column += 3) {
      const at = heights.point(column, row);
      const height = heights.sample(at);
      if (height < 2 || height > 260) continue;
      const slope = steepness(heights, at);
      if (slope > 0.09) continue;
      const sea = seaShare(heights, at);
      const onCoast = sea > 0.12 && sea < 0.5;
      const byMouth = mouths.some((mouth) => distance(mouth, at) < 900);
      const worth =
        (onCoast ? 1 : 0) +
        (byMouth ? 0.9 : 0) +
        (nearRiver.has(cellOf(at)) ? 0.5 : 0) -
        slope * 8 -
        height / 400 +
        random.between(0, 0.9);
      options.push({ at, worth, onCoast });
    }
  }
  options.sort((a, b) => b.worth - a.worth);
  const chosen: typeof options = [];
  for (let apart = LEAST_APART * 1.4; chosen.length < count && apart > 1200; apart *= 0.85) {
    for (const option of options) {
      if (chosen.length === count) break;
      if (chosen.every((other) => distance(other.at, option.at) > apart)) chosen.push(option);
    }
  }
  return chosen.map(({ at, onCoast }, i) => {
    const share = 1 / (1 + i * 0.45);
    return {
      at,
      onCoast,
      radius: 340 + 660 * share,
      population: Math.round(600 + 34000 * share * random.between(0.8, 1.2)),
    };
  });
}

const cellOf = (point: Point) => `${Math.round(point.x / 500)},${Math.round(point.y / 500)}`;

function steepness(heights: Grid, at: Point): number {
  const { x, y } = heights.gradient(at, 250);
  return Math.sqrt(x * x + y * y);
}

/** Share of the ring of 700 m around a point that is sea. */
function seaShare(heights: Grid, at: Point): number {
  let sea = 0;
  for (let i = 0; i < 16; i++) {
    const turn = (i / 16) * 2 * Math.PI;
    if (heights.sample({ x: at.x + 700 * Math.cos(turn), y: at.y + 700 * Math.sin(turn) }) <= 0) sea++;
  }
  return sea / 16;
}
