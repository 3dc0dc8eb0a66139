import type { Name } from "@bibliotope/core/place";
import type { Grid } from "../ground/grid.ts";
import type { Plane, Point } from "../ground/plane.ts";
import { closed } from "../ground/regions.ts";
import type { Namer } from "../names/namer.ts";
import type { Random } from "../random.ts";
import type { World } from "../world.ts";
import { nearest, type Town } from "./areas.ts";
import { type Building, lengthOf, pointAlong, setHouses } from "./frontage.ts";
import { planTown } from "./town-plan.ts";

/** What is needed to fill a town. */
export interface Ground {
  code: string;
  heights: Grid;
  plane: Plane;
  namer: Namer;
  random: Random;
}

/** Gives the postcode key for a street of a town; null where there is none. */
export type PostcodeFor = (town: Town, townNumber: number, street: number) => string | null;

/** Builds a town: streets or blocks with their numbers, and what the map shows of it. */
export function buildTown(world: World, ground: Ground, town: Town, number: number, postcodeFor: PostcodeFor): void {
  const { heights, random, plane, namer } = ground;
  const plan = planTown(heights, town.site, 7000 + number * 31, random);
  plan.parks.forEach((rim, i) => {
    world.features.push({
      layer: "park",
      rank: 2,
      names: i === 0 ? namer.park(town.names, number) : [],
      geometry: { type: "Polygon", coordinates: [closed(rim, plane)] },
      properties: {},
    });
  });
  if (ground.code === "QY") buildBlocks(world, ground, town, plan.blocks, number, postcodeFor);
  const runs = plan.runs.sort((a, b) => a.rank - b.rank || lengthOf(b.points) - lengthOf(a.points));
  const names = nameStreets(ground, town, number, runs.length);
  runs.forEach((run, i) => {
    const key = `${town.key}/street/${i}`;
    world.features.push({
      layer: "street",
      rank: run.rank,
      names: names[i] ?? [],
      key,
      geometry: { type: "LineString", coordinates: run.points.map((p) => plane.pair(p)) },
      properties: {},
    });
    if (ground.code === "QY") return;
    const middle = pointAlong(run.points, lengthOf(run.points) / 2).at;
    const houses = setHouses(
      run.points,
      { gap: [20, 31], setBack: 7, sides: ["left", "right"], built: 0.86, blocked: (at) => heights.sample(at) < 0.8 },
      random,
    );
    if (houses.length < 3) return;
    addStreet(
      world,
      ground,
      {
        key,
        area: areaFor(town, middle),
        names: names[i],
        at: middle,
        kind: "street",
        importance: 0.04 + 0.1 / run.rank + weightOf(town),
      },
      numberBothSides(houses, ground),
      postcodeFor(town, number, i),
    );
  });
}

function nameStreets({ namer, random, code }: Ground, town: Town, number: number, count: number): Name[][] {
  const names = namer.streets(count, random);
  // the harbour towns of Lorramere have a street of the harbour, as their postcards show
  const wanted = code === "QR" ? ["Harbour Row", "Harbour Road", "Harbour Street"][number] : undefined;
  if (!wanted || !town.site.onCoast) return names;
  const at = names.findIndex(([{ name }]) => name === wanted);
  const abbr = `${wanted.slice(0, 8)}${{ Row: "Rw", Road: "Rd", Street: "St" }[wanted.slice(8)]}`;
  if (at >= 0) names.splice(at, 1);
  return [[{ lang: "en", name: wanted, abbr }], ...names];
}

/** Thalmyra counts houses around blocks; blocks are numbered within their quarter. */
function buildBlocks(
  world: World,
  ground: Ground,
  town: Town,
  blocks: Point[][],
  number: number,
  postcodeFor: PostcodeFor,
): void {
  const { random, heights, plane, namer } = ground;
  const counted = new Map<string, number>();
  blocks.forEach((rim, i) => {
    const middle = {
      x: rim.reduce((s, p) => s + p.x, 0) / rim.length,
      y: rim.reduce((s, p) => s + p.y, 0) / rim.length,
    };
    const houses = setHouses(
      [...rim, rim[0]],
      { gap: [21, 29], setBack: 6, sides: ["left"], built: 0.9, blocked: (at) => heights.sample(at) < 0.8 },
      random,
    );
    if (houses.length < 3) return;
    const area = areaFor(town, middle);
    const block = (counted.get(area) ?? 0) + 1;
    counted.set(area, block);
    const numbered = houses.map((house, k) => ({ ...house, number: k + 1, suffix: "" }));
    addStreet(
      world,
      { ...ground, plane, namer },
      {
        key: `${town.key}/block/${i}`,
        area,
        names: namer.block(block),
        at: middle,
        kind: "block",
        importance: 0.06 + weightOf(town),
      },
      numbered,
      postcodeFor(town, number, i),
    );
  });
}

type Numbered = Building & { number: number; suffix: string };

/** Odd numbers on the left, even ones on the right; some are skipped, some carry a letter. */
export function numberBothSides(houses: readonly Building[], { random, code }: Ground): Numbered[] {
  const next = { left: 1, right: 2 };
  return houses.map((house) => {
    if (random.chance(0.07)) next[house.side] += 2;
    const number = next[house.side];
    next[house.side] += 2;
    if (number > 2 && random.chance(0.025)) return { ...house, number: number - 2, suffix: "b" };
    if (code === "QV" && random.chance(0.02)) return { ...house, number, suffix: `/${random.integer(2, 4)}` };
    return { ...house, number, suffix: "" };
  });
}

/** What a town's size adds to the importance of the streets. */
const weightOf = (town: Town) => 0.2 * Math.min(1, town.site.population / 40000);

function areaFor(town: Town, point: Point): string {
  if (!town.districts.length) return town.key;
  return town.districts[
    nearest(
      point,
      town.districts.map((d) => d.at),
    )
  ].key;
}

interface StreetPlan {
  key: string;
  area: string;
  names: Name[];
  at: Point;
  kind: "street" | "block";
  importance: number;
}

/** Adds a street with the numbers and its buildings. */
export function addStreet(
  world: World,
  { code, plane }: Ground,
  street: StreetPlan,
  houses: readonly Numbered[],
  postcode: string | null,
): void {
  world.streets.push({ ...street, country: code, at: plane.position(street.at) });
  const taken = new Set<string>();
  for (const { number, suffix, entrance } of houses) {
    const key = `${street.key}/${number}${suffix}`;
    if (taken.has(key)) continue;
    taken.add(key);
    world.addresses.push({
      key,
      country: code,
      street: street.key,
      number,
      suffix,
      postcode,
      at: plane.position(entrance),
    });
  }
  world.features.push({
    layer: "building",
    rank: 1,
    names: [],
    key: street.key,
    properties: {},
    geometry: { type: "MultiPolygon", coordinates: houses.map((house) => [closed(house.outline, plane)]) },
  });
}
