import type { Position } from "@bibliotope/core/geo";
import type { Cover as LandCover } from "@bibliotope/core/map";
import { contourRings, ringArea, smoothRing } from "./ground/contour.ts";
import { polygonsAbove } from "./ground/contour-polygons.ts";
import { Grid } from "./ground/grid.ts";
import { distance, type Plane, type Point } from "./ground/plane.ts";
import { closed, contains } from "./ground/regions.ts";
import type { River } from "./ground/rivers.ts";
import type { Town } from "./layout/areas.ts";
import { fractal, noise, type Random } from "./random.ts";
import type { World } from "./world.ts";

/** What covers the land by its nature; what is built up follows the houses. */
type Cover = Exclude<LandCover, "built">;

/** Sides of a field in metres, and of the block of fields that makes one feature. */
const FIELD_LONG = 290;
const FIELD_SHORT = 170;
const BLOCK = 6;

/** The ground that covers are laid on. */
export interface Landscape {
  heights: Grid;
  plane: Plane;
  towns: readonly Town[];
  seed: number;
}

/**
 * Covers the land of an island: woods, fields, heath, rock, marsh, sand, and what is built up.
 * @param houses where its houses stand
 */
export function drawCover(world: World, land: Landscape, houses: readonly Position[], random: Random): void {
  const worth = coverGrids(land);
  worth.set("built", builtUp(land, houses));
  for (const [cover, grid] of worth) {
    for (const rings of polygonsAbove(grid, 0, cover === "sand" ? 30_000 : 60_000, land.plane))
      world.features.push({
        layer: "cover",
        rank: 1,
        names: [],
        properties: { what: cover },
        geometry: { type: "Polygon", coordinates: rings },
      });
  }
  drawFields(world, worth.get("field")!, land, random);
}

/** For each cover a grid that is above 0 where it lies; later ones lie over earlier ones. */
function coverGrids({ heights, towns, seed }: Landscape): Map<LandCover, Grid> {
  const like = () => new Grid(heights.columns, heights.rows, heights.cell);
  const grids = new Map<LandCover, Grid>(
    (["heath", "wood", "field", "marsh", "rock", "sand"] as const).map((cover) => [cover, like()]),
  );
  for (let cell = 0; cell < heights.values.length; cell++) {
    const metres = heights.values[cell];
    const at = heights.point(cell % heights.columns, Math.floor(cell / heights.columns));
    const covers = metres < -30 ? undefined : coversAt(at, metres, heights, towns, seed);
    for (const [cover, grid] of grids) grid.values[cell] = covers?.[cover as Cover] ?? -1;
  }
  return grids;
}

/** Houses in and around a cell from which it counts as built up. */
const BUILT = 2.4;

/** Where houses stand close: counted in cells, each spread over those around it. */
function builtUp({ heights, plane }: Landscape, houses: readonly Position[]): Grid {
  const counts = new Grid(heights.columns, heights.rows, heights.cell);
  for (const house of houses) {
    const { x, y } = plane.point(house);
    const [column, row] = [Math.round(heights.column(x)), Math.round(heights.row(y))];
    for (let dr = -1; dr <= 1; dr++) {
      for (let dc = -1; dc <= 1; dc++)
        counts.values[(row + dr) * counts.columns + column + dc] += dr || dc ? 0.5 / (Math.abs(dr) + Math.abs(dc)) : 1;
    }
  }
  for (let cell = 0; cell < counts.values.length; cell++)
    counts.values[cell] = Math.min(3 * BUILT, counts.values[cell], BUILT + 2 * heights.values[cell]) - BUILT;
  return counts;
}

/** How much the ground at a point is of each cover; what is above 0 is. */
function coversAt(at: Point, metres: number, heights: Grid, towns: readonly Town[], seed: number) {
  const rise = heights.gradient(at, heights.cell);
  const slope = Math.sqrt(rise.x * rise.x + rise.y * rise.y);
  const broad = fractal(at.x / 5200, at.y / 5200, seed + 301, 4);
  const fine = fractal(at.x / 1500, at.y / 1500, seed + 302, 3);
  // radii from the nearest town's edge
  const outside = Math.min(...towns.map(({ site }) => (distance(site.at, at) - site.radius) / 1000));
  const onLand = (metres - 1.5) / 6;
  const wood = Math.min(
    onLand,
    0.15 + broad + 0.5 * fine + Math.min(0.25, slope) - Math.max(0, (metres - 320) / 260),
    1.5 * (outside - 0.3),
  );
  const field = Math.min(
    onLand,
    (0.11 - slope) * 6,
    0.5 - outside / 4.2 + 0.35 * fine - Math.max(0, broad),
    3 * (outside - 0.05),
    (230 - metres) / 90,
  );
  return {
    heath: Math.min((metres - 300) / 120 + 0.6 * fine + 0.3 * broad, onLand),
    wood,
    field,
    marsh: Math.min(onLand, (0.022 - slope) * 30, fine - 0.16 - broad * 0.3, (60 - metres) / 40, 2 * (outside - 0.4)),
    rock: Math.max((metres - 640) / 150 + 0.5 * fine, (slope - 0.42) * 4 + 0.3 * fine),
    sand: Math.min((5 - metres) / 5, (metres + 0.4) / 4, (0.035 - slope) * 40, fine + 0.08, 2 * (outside - 0.1)),
  };
}

/** Single fields, in blocks of one tilth each: four-sided, bent by noise, with hedgerows left between them. */
function drawFields(world: World, grid: Grid, { plane, heights, seed }: Landscape, random: Random): void {
  const columns = Math.floor((grid.columns * grid.cell) / FIELD_LONG);
  const rows = Math.floor((grid.rows * grid.cell) / FIELD_SHORT);
  const corner = (i: number, j: number): Point => {
    const [u, v] = [(i - columns / 2) * FIELD_LONG, (j - rows / 2) * FIELD_SHORT];
    return {
      x: u + 620 * (noise(u / 1700, v / 1700, seed + 311) - 0.5) + 90 * (noise(u / 260, v / 260, seed + 312) - 0.5),
      y: v + 620 * (noise(u / 1500, v / 1500, seed + 313) - 0.5) + 70 * (noise(u / 260, v / 260, seed + 314) - 0.5),
    };
  };
  for (let row = 0; row < rows; row += BLOCK) {
    for (let column = 0; column < columns; column += BLOCK) {
      const tilths: [number, number][][][][] = [[], [], []];
      for (let j = row; j < row + BLOCK; j++) {
        for (let i = column; i < column + BLOCK; i++) {
          const corners = [corner(i, j), corner(i + 1, j), corner(i + 1, j + 1), corner(i, j + 1)];
          if (corners.some((point) => grid.sample(point) < 0.04 || heights.sample(point) < 2)) continue;
          if (random.chance(0.08)) continue;
          tilths[random.integer(0, 2)].push([closed(shrunk(corners, 0.94), plane)]);
        }
      }
      tilths.forEach((fields, tilth) => {
        if (!fields.length) return;
        world.features.push({
          layer: "cover",
          rank: 2,
          names: [],
          properties: { what: "field", tilth },
          geometry: { type: "MultiPolygon", coordinates: fields },
        });
      });
    }
  }
}

/** A shape drawn together towards its middle. */
function shrunk(corners: readonly Point[], share: number): Point[] {
  const x = corners.reduce((sum, point) => sum + point.x, 0) / corners.length;
  const y = corners.reduce((sum, point) => sum + point.y, 0) / corners.length;
  return corners.map((point) => ({ x: x + (point.x - x) * share, y: y + (point.y - y) * share }));
}

/** Metres a lake's water is above its river's bed, and square metres of a lake. */
const RISES = [22, 16, 11, 7];
const LEAST_LAKE = 110_000;
const LAKE_REACH = 900;
const MOST_LAKES = 5;

/** Lakes in valleys where nobody lives, along the rivers. */
export function drawLakes(world: World, land: Landscape, rivers: readonly River[], code: string): void {
  const { heights, plane } = land;
  const used = new Set<string>();
  const cellOf = ({ x, y }: Point) => `${Math.round(x / 400)},${Math.round(y / 400)}`;
  const take = ({ lat, lon }: Position) => used.add(cellOf(plane.point({ lat, lon })));
  for (const { country, at } of world.addresses) if (country === code) take(at);
  for (const { layer, geometry } of world.features)
    if (layer === "street" && geometry.type === "LineString")
      for (const [lon, lat] of geometry.coordinates) take({ lat, lon });
  const lakes: Point[] = [];
  const beds = rivers.filter(({ points }) => points.length > 8).flatMap(({ points }) => points.slice(2, -3));
  for (const bed of beds) {
    if (lakes.length === MOST_LAKES) return;
    if (heights.sample(bed) < 6 || lakes.some((other) => distance(other, bed) < 5000)) continue;
    const shore = RISES.map((rise) => shoreAround(bed, rise, land)).find(
      (ring) => ring && Math.abs(ringArea(ring)) > LEAST_LAKE && !ring.some((point) => used.has(cellOf(point))),
    );
    if (!shore) continue;
    lakes.push(bed);
    world.features.push({
      layer: "water",
      rank: 1,
      names: [],
      properties: {},
      geometry: { type: "Polygon", coordinates: [closed(smoothRing(shore, 2), plane)] },
    });
  }
}

/** The shore of water that is some metres above a river's bed. */
function shoreAround(bed: Point, rise: number, { heights, seed }: Landscape): Point[] | undefined {
  const grid = new Grid(heights.columns, heights.rows, heights.cell);
  grid.values.fill(-1);
  const level = heights.sample(bed) + rise;
  const around = Math.ceil((1.4 * LAKE_REACH) / heights.cell);
  const column = Math.round(heights.column(bed.x));
  const row = Math.round(heights.row(bed.y));
  for (let r = Math.max(1, row - around); r < Math.min(heights.rows - 1, row + around); r++) {
    for (let c = Math.max(1, column - around); c < Math.min(heights.columns - 1, column + around); c++) {
      const at = heights.point(c, r);
      const reach = LAKE_REACH * (0.7 + 0.6 * noise(at.x / 500, at.y / 500, seed + 320));
      grid.values[r * grid.columns + c] = Math.min(
        level - heights.values[r * grid.columns + c],
        (reach - distance(at, bed)) / 30,
      );
    }
  }
  return contourRings(grid, 0).find((ring) => ringArea(ring) > 0 && contains(ring, bed));
}
