import { contourRings, ringArea, smoothRing } from "./contour.ts";
import type { Grid } from "./grid.ts";
import type { Plane } from "./plane.ts";
import { closed, polygonsOf } from "./regions.ts";

/**
 * What lies at or above a level, as polygons of [lon, lat] with their holes, smoothed.
 * @param least square metres of the smallest ring that is kept
 */
export function polygonsAbove(grid: Grid, level: number, least: number, plane: Plane): [number, number][][][] {
  const rings = contourRings(grid, level)
    .filter((ring) => Math.abs(ringArea(ring)) >= least)
    .map((ring) => smoothRing(ring, 1));
  return polygonsOf(rings).map((polygon) => polygon.map((ring) => closed(ring, plane)));
}
