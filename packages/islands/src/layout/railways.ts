import type { Grid } from "../ground/grid.ts";
import { distance, type Plane, type Point } from "../ground/plane.ts";
import { spread } from "../ground/travel.ts";
import type { World } from "../world.ts";
import type { Town } from "./areas.ts";
import { ease, trace } from "./roads.ts";

/** Towns of an island that the railway calls at. */
const STATIONS = 6;
/** How dear a climb is to a railway, which a road takes at 140; and a metre over water. */
const CLIMB = 900;
const OVER_WATER = 40;
/** Shares of a town's radius within which no line runs. */
const EDGE = 1.02;

/** Railways between the largest towns: each is joined to the nearest one that has a line already. */
export function drawRailways(world: World, heights: Grid, plane: Plane, towns: readonly Town[]): void {
  const stations = towns.slice(0, STATIONS);
  stations.slice(1).forEach((town, i) => {
    const near = stations
      .slice(0, i + 1)
      .toSorted((a, b) => distance(a.site.at, town.site.at) - distance(b.site.at, town.site.at))[0];
    const { from } = spread(heights, [near.site.at], 8 * distance(near.site.at, town.site.at), OVER_WATER, CLIMB);
    const way = ease(trace(heights, from, town.site.at), 8);
    if (way.some((point) => heights.sample(point) < -1)) return;
    for (const line of outsideTowns(way, towns)) {
      world.features.push({
        layer: "railway",
        rank: 1,
        names: [],
        properties: {},
        geometry: { type: "LineString", coordinates: line.map((point) => plane.pair(point)) },
      });
    }
  });
}

/** The pieces of a way that run outside all towns. */
function outsideTowns(way: readonly Point[], towns: readonly Town[]): Point[][] {
  const pieces: Point[][] = [[]];
  for (const point of way) {
    if (towns.some(({ site }) => distance(site.at, point) < EDGE * site.radius)) pieces.push([]);
    else pieces[pieces.length - 1].push(point);
  }
  return pieces.filter((piece) => piece.length > 3);
}
