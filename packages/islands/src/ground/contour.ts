import type { Grid } from "./grid.ts";
import type { Point } from "./plane.ts";

/**
 * Closed lines along which a grid has a value (marching squares). Higher ground lies to the left, so that hills run
 * counter-clockwise and hollows clockwise. The rim of the grid must be lower than the level.
 */
export function contourRings(grid: Grid, level: number): Point[][] {
  const next = new Map<number, number>();
  const { columns, rows, values } = grid;
  const across = (c: number, r: number) => r * columns + c;
  const up = (c: number, r: number) => columns * rows + r * columns + c;
  for (let r = 0; r < rows - 1; r++) {
    for (let c = 0; c < columns - 1; c++) {
      const i = r * columns + c;
      const bits =
        (values[i] >= level ? 1 : 0) |
        (values[i + 1] >= level ? 2 : 0) |
        (values[i + columns + 1] >= level ? 4 : 0) |
        (values[i + columns] >= level ? 8 : 0);
      if (bits === 0 || bits === 15) continue;
      const edges = [across(c, r), up(c + 1, r), across(c, r + 1), up(c, r)];
      for (const [from, to] of CROSSINGS[bits]) next.set(edges[from], edges[to]);
    }
  }
  const rings: Point[][] = [];
  for (const start of next.keys()) {
    const ring: Point[] = [];
    let edge: number | undefined = start;
    while (edge !== undefined && next.has(edge)) {
      ring.push(crossing(grid, edge, level));
      const following: number = next.get(edge)!;
      next.delete(edge);
      edge = following;
    }
    if (ring.length >= 3) rings.push(ring);
  }
  return rings;
}

/** For each set of high corners (SW 1, SE 2, NE 4, NW 8) the sides [from, to] a line crosses: 0 S, 1 E, 2 N, 3 W. */
const CROSSINGS: readonly (readonly [number, number][])[] = [
  [],
  [[0, 3]],
  [[1, 0]],
  [[1, 3]],
  [[2, 1]],
  [
    [0, 3],
    [2, 1],
  ],
  [[2, 0]],
  [[2, 3]],
  [[3, 2]],
  [[0, 2]],
  [
    [1, 0],
    [3, 2],
  ],
  [[1, 2]],
  [[3, 1]],
  [[0, 1]],
  [[3, 0]],
  [],
];

function crossing(grid: Grid, edge: number, level: number): Point {
  const { columns, rows, values } = grid;
  const isUp = edge >= columns * rows;
  const i = isUp ? edge - columns * rows : edge;
  const c = i % columns;
  const r = Math.floor(i / columns);
  const a = values[i];
  const b = values[isUp ? i + columns : i + 1];
  const t = Math.max(0.02, Math.min(0.98, (level - a) / (b - a)));
  return isUp ? grid.point(c, r + t) : grid.point(c + t, r);
}

/** Cuts the corners of a closed line (Chaikin). */
export function smoothRing(ring: readonly Point[], times: number): Point[] {
  let points = [...ring];
  for (let k = 0; k < times; k++) {
    points = points.flatMap((p, i) => {
      const q = points[(i + 1) % points.length];
      return [
        { x: p.x * 0.75 + q.x * 0.25, y: p.y * 0.75 + q.y * 0.25 },
        { x: p.x * 0.25 + q.x * 0.75, y: p.y * 0.25 + q.y * 0.75 },
      ];
    });
  }
  return points;
}

/** Signed area in square metres, positive when counter-clockwise. */
export function ringArea(ring: readonly Point[]): number {
  let sum = 0;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) sum += ring[j].x * ring[i].y - ring[i].x * ring[j].y;
  return sum / 2;
}
