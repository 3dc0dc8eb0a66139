import { boxAround, type Ring } from "@bibliotope/core/geo";
import { contourRings, ringArea, smoothRing } from "./ground/contour.ts";
import type { Grid } from "./ground/grid.ts";
import type { Plane, Point } from "./ground/plane.ts";
import { closed, polygonsOf } from "./ground/regions.ts";
import type { River } from "./ground/rivers.ts";
import type { Town } from "./layout/areas.ts";
import { ease } from "./layout/roads.ts";
import type { Namer } from "./names/namer.ts";
import type { World } from "./world.ts";

/** The ground of an island on the map: land, rivers, borders, names. */
export function drawGround(
  world: World,
  code: string,
  heights: Grid,
  rivers: readonly River[],
  towns: readonly Town[],
  plane: Plane,
  namer: Namer,
): void {
  const coast = contourRings(heights, 0)
    .filter((ring) => Math.abs(ringArea(ring)) > 90000)
    .map((ring) => smoothRing(ring, 1));
  for (const polygon of polygonsOf(coast)) {
    world.features.push({
      layer: "land",
      rank: 1,
      names: [],
      properties: {},
      geometry: { type: "Polygon", coordinates: polygon.map((ring) => closed(ring, plane)) },
    });
  }
  for (const river of rivers) {
    world.features.push({
      layer: "river",
      rank: river.flow > 2500 ? 1 : 2,
      names: [],
      properties: {},
      geometry: {
        type: "LineString",
        coordinates: ease(untilSea(river.points, heights), 2).map((point) => plane.pair(point)),
      },
    });
  }
  const drawn = new Set<string>();
  for (const area of world.areas) {
    if (area.country !== code || (area.kind !== "county" && area.kind !== "region")) continue;
    for (const line of area.rings.flatMap((ring) => bordersOnLand(ring, heights, plane, drawn))) {
      const geometry = { type: "LineString" as const, coordinates: line };
      world.features.push({
        layer: "boundary",
        rank: area.kind === "region" ? 1 : 2,
        names: [],
        key: area.key,
        properties: {},
        geometry,
      });
    }
  }
  const country = world.areas.find((area) => area.key === code)!;
  const [west, south, east] = boxAround(country.rings.flat());
  world.features.push({
    layer: "name",
    rank: 1,
    names: country.names,
    key: code,
    properties: { what: "country" },
    geometry: { type: "Point", coordinates: [(west + east) / 2, south - 0.06] },
  });
  towns.forEach((town, i) => {
    world.features.push({
      layer: "name",
      rank: i < 2 ? 1 : i < 8 ? 2 : 3,
      names: town.names,
      key: town.key,
      properties: { what: "town" },
      geometry: { type: "Point", coordinates: plane.pair(town.site.at) },
    });
    const water = i < 3 && town.site.onCoast ? openWater(heights, town.site.at) : undefined;
    if (water)
      world.features.push({
        layer: "name",
        rank: 2,
        names: namer.water(i),
        properties: { what: "water" },
        geometry: { type: "Point", coordinates: plane.pair(water) },
      });
  });
}

/** The pieces of an area's outline that run over land, each once: not along the coast, and not again for the neighbour. */
function bordersOnLand(ring: Ring, heights: Grid, plane: Plane, drawn: Set<string>): [number, number][][] {
  const lines: [number, number][][] = [];
  let line: [number, number][] = [];
  const end = () => {
    if (line.length > 2) lines.push(line);
    line = [];
  };
  for (const [lon, lat] of ring) {
    const point = plane.point({ lon, lat });
    // neighbours' outlines are smoothed each on its own: the same within some metres
    const spot = `${Math.round(point.x / 125)},${Math.round(point.y / 125)}`;
    if (heights.sample(point) <= 0 || drawn.has(spot)) end();
    else line.push([lon, lat]);
  }
  end();
  for (const [lon, lat] of lines.flat()) {
    const { x, y } = plane.point({ lon, lat });
    for (const dx of [-1, 0, 1])
      for (const dy of [-1, 0, 1]) drawn.add(`${Math.round(x / 125) + dx},${Math.round(y / 125) + dy}`);
  }
  return lines;
}

/** A river's way, ended at the coast. */
function untilSea(points: readonly Point[], heights: Grid): Point[] {
  const mouth = points.findIndex((point) => heights.sample(point) <= 0);
  if (mouth <= 0) return [...points];
  let [land, sea] = [points[mouth - 1], points[mouth]];
  for (let i = 0; i < 12; i++) {
    const middle = { x: (land.x + sea.x) / 2, y: (land.y + sea.y) / 2 };
    if (heights.sample(middle) > 0) land = middle;
    else sea = middle;
  }
  return [...points.slice(0, mouth), land];
}

/** A point on the sea, some way off a town by the coast. */
function openWater(heights: Grid, at: Point): Point | undefined {
  for (const away of [1300, 1800, 2600]) {
    for (let k = 0; k < 24; k++) {
      const turn = (k / 24) * 2 * Math.PI;
      const point = { x: at.x + away * Math.cos(turn), y: at.y + away * Math.sin(turn) };
      if (heights.sample(point) < -6) return point;
    }
  }
  return undefined;
}
