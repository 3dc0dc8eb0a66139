import type { Grid } from "../ground/grid.ts";
import { distance, type Point } from "../ground/plane.ts";
import { spread } from "../ground/travel.ts";
import type { Site } from "./sites.ts";

/** A road from one town to another, over the cheapest ground. */
export interface Road {
  from: number;
  to: number;
  points: Point[];
}

/** Joins the towns: from each to the two nearest that can be reached over land. */
export function joinTowns(heights: Grid, sites: readonly Site[]): Road[] {
  const roads: Road[] = [];
  const joined = new Set<string>();
  sites.forEach((site, from) => {
    const near = sites
      .map((other, to) => ({ to, metres: distance(site.at, other.at) }))
      .filter(({ to }) => to !== from)
      .sort((a, b) => a.metres - b.metres || a.to - b.to)
      .slice(0, 2)
      .filter(({ to, metres }) => metres < 26000 && !joined.has(`${Math.min(from, to)}-${Math.max(from, to)}`));
    if (!near.length) return;
    const ways = spread(heights, [site.at], 4 * near[near.length - 1].metres, 40);
    for (const { to } of near) {
      joined.add(`${Math.min(from, to)}-${Math.max(from, to)}`);
      const points = trace(heights, ways.from, sites[to].at);
      if (points.every((point) => heights.sample(point) > -1))
        roads.push({ from, to, points: ease([site.at, ...points.slice(1, -1), sites[to].at]) });
    }
  });
  return roads;
}

/** The way to a point that a spread found, from where it began. */
export function trace(heights: Grid, from: Int32Array, end: Point): Point[] {
  const points: Point[] = [];
  for (let cell = heights.indexAt(end); cell >= 0; cell = from[cell]) {
    points.unshift(heights.point(cell % heights.columns, Math.floor(cell / heights.columns)));
  }
  return points;
}

/** Takes the staircase out of a way over cells: each point to the mean of the neighbours, a few times. */
export function ease(points: Point[], times = 3): Point[] {
  let line = points;
  for (let k = 0; k < times; k++) {
    line = line.map((p, i) =>
      i === 0 || i === line.length - 1
        ? p
        : { x: (line[i - 1].x + 2 * p.x + line[i + 1].x) / 4, y: (line[i - 1].y + 2 * p.y + line[i + 1].y) / 4 },
    );
  }
  return line;
}
