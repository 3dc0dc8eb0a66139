import { contourRings, ringArea, smoothRing } from "./contour.ts";
import { Grid } from "./grid.ts";
import type { Plane, Point } from "./plane.ts";

/** Rings around the cells that belong, holes included, smoothed and closed, as [lon, lat]. */
export function ringsAround(like: Grid, belongs: (cell: number) => boolean, plane: Plane): [number, number][][] {
  const grid = new Grid(like.columns, like.rows, like.cell);
  for (let cell = 0; cell < grid.values.length; cell++) grid.values[cell] = belongs(cell) ? 1 : 0;
  return contourRings(grid, 0.5)
    .filter((ring) => Math.abs(ringArea(ring)) > grid.cell * grid.cell * 3)
    .map((ring) => closed(smoothRing(ring, 1), plane));
}

/** A ring of plane points as closed [lon, lat] pairs. */
export function closed(ring: readonly Point[], plane: Plane): [number, number][] {
  const pairs = ring.map((point) => plane.pair(point));
  return [...pairs, pairs[0]];
}

/** Groups rings into polygons: each outer ring (counter-clockwise) with the holes (clockwise) that lie in it. */
export function polygonsOf(rings: readonly Point[][]): Point[][][] {
  const outer = rings.filter((ring) => ringArea(ring) > 0).sort((a, b) => ringArea(a) - ringArea(b));
  const polygons = outer.map((ring) => [ring]);
  for (const hole of rings.filter((ring) => ringArea(ring) < 0)) {
    polygons.find(([around]) => contains(around, hole[0]))?.push(hole);
  }
  return polygons;
}

export function contains(ring: readonly Point[], { x, y }: Point): boolean {
  let inside = false;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const a = ring[i];
    const b = ring[j];
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}
