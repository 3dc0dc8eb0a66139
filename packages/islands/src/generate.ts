import type { HeightGrid } from "@bibliotope/core/geo";
import { COUNTRIES, type CountryPlan } from "./countries.ts";
import { drawGround } from "./features.ts";
import type { Grid } from "./ground/grid.ts";
import { Plane } from "./ground/plane.ts";
import { findRivers } from "./ground/rivers.ts";
import { makeTerrain } from "./ground/terrain.ts";
import { drawCover, drawLakes } from "./landscape.ts";
import { layAreas, type Town } from "./layout/areas.ts";
import { buildRoads } from "./layout/country-roads.ts";
import { furnishHouses } from "./layout/houses.ts";
import { addPlaces } from "./layout/places.ts";
import { postcodesOf } from "./layout/postcodes.ts";
import { drawRailways } from "./layout/railways.ts";
import { joinTowns } from "./layout/roads.ts";
import { pickSites } from "./layout/sites.ts";
import { buildTown, type Ground } from "./layout/streets.ts";
import { namerOf } from "./names/namer.ts";
import { Random } from "./random.ts";
import { drawRelief } from "./relief.ts";
import { emptyWorld, type World } from "./world.ts";

/** Version of the generator: the same version and seed give the same world, byte for byte. */
export const WORLD_VERSION = 5;

/** The archipelago of a seed. Takes a few seconds. */
export function generateIslands(seed = 1): World {
  const world = emptyWorld();
  const towns = COUNTRIES.map((plan) => generateCountry(world, plan, seed));
  addFerries(world, towns);
  return world;
}

function generateCountry(world: World, plan: CountryPlan, seed: number): { plane: Plane; towns: Town[] } {
  const random = new Random(plan.seed + seed * 7919);
  const plane = new Plane(plan.middle);
  const heights = makeTerrain(plan.humps, plan.seed + seed);
  world.grids.push(gridOf(heights, plane));
  const coarse = heights.halved();
  const rivers = findRivers(coarse);
  const sites = pickSites(heights, rivers, plan.towns, random);
  const namer = namerOf(plan.code, random);
  const towns = layAreas(world, plan.code, coarse, sites, plane, namer, random);
  const ground: Ground = { code: plan.code, heights, plane, namer, random };
  const postcodeFor = postcodesOf(world, plan.code, (town) => plane.position(town.site.at));
  drawGround(world, plan.code, heights, rivers, towns, plane, namer);
  buildRoads(world, ground, joinTowns(coarse, sites), towns, postcodeFor);
  towns.forEach((town, i) => {
    const before = world.addresses.length;
    buildTown(world, ground, town, i, postcodeFor);
    const own = world.addresses.slice(before);
    addPlaces(world, plan.code, town, own, random);
    if (plan.code === "QR") furnishHouses(world, own, new Random(`houses of ${town.key}, ${seed}`));
  });
  const land = { heights, plane, towns, seed: plan.seed + seed };
  drawRelief(world, coarse, plane);
  const houses = world.addresses.filter(({ country }) => country === plan.code).map(({ at }) => at);
  drawCover(world, land, houses, new Random(`fields of ${plan.code}, ${seed}`));
  drawLakes(world, land, rivers, plan.code);
  drawRailways(world, coarse, plane, towns);
  return { plane, towns };
}

/** The ground as a grid of heights above the sea. */
function gridOf(heights: Grid, plane: Plane): HeightGrid {
  const { columns, rows } = heights;
  const { lat: south, lon: west } = plane.position(heights.point(0, 0));
  const { lat: north, lon: east } = plane.position(heights.point(columns - 1, rows - 1));
  return {
    west,
    south,
    stepLon: (east - west) / (columns - 1),
    stepLat: (north - south) / (rows - 1),
    columns,
    rows,
    metres: heights.values.map((metres) => Math.max(0, metres)),
  };
}

/** Ferries between the largest harbours of the countries. */
function addFerries(world: World, countries: readonly { plane: Plane; towns: Town[] }[]): void {
  const harbours = countries.map(({ plane, towns }) =>
    plane.pair((towns.find((town) => town.site.onCoast) ?? towns[0]).site.at),
  );
  harbours.forEach((from, i) => {
    const to = harbours[(i + 1) % harbours.length];
    const bow = {
      lon: (from[0] + to[0]) / 2 + (to[1] - from[1]) * 0.12,
      lat: (from[1] + to[1]) / 2 - (to[0] - from[0]) * 0.12,
    };
    const line = Array.from({ length: 25 }, (_, k): [number, number] => {
      const t = k / 24;
      const mix = (a: number, b: number, c: number) =>
        Math.round(((1 - t) ** 2 * a + 2 * t * (1 - t) * b + t * t * c) * 1e6) / 1e6;
      return [mix(from[0], bow.lon, to[0]), mix(from[1], bow.lat, to[1])];
    });
    world.features.push({
      layer: "ferry",
      rank: 1,
      names: [],
      properties: {},
      geometry: { type: "LineString", coordinates: line },
    });
  });
}
