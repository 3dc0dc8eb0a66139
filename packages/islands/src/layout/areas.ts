import type { Name } from "@bibliotope/core/place";
import { fold } from "@bibliotope/core/text";
import { Grid } from "../ground/grid.ts";
import { distance, type Plane, type Point } from "../ground/plane.ts";
import { ringsAround } from "../ground/regions.ts";
import { spread } from "../ground/travel.ts";
import type { Namer } from "../names/namer.ts";
import type { Random } from "../random.ts";
import type { World, WorldArea } from "../world.ts";
import type { Site } from "./sites.ts";

/** A district of a town: its middle and its area. */
interface District {
  at: Point;
  key: string;
}

/** A town with the keys of what lies around and in it. */
export interface Town {
  site: Site;
  names: Name[];
  key: string;
  region: number;
  county: number;
  districts: District[];
}

/** How far off the coast an area still reaches, as depth in metres. */
const SHALLOW = -14;

/** Lays the areas of a country over its towns: every cell of land belongs to the town that is cheapest to reach. */
export function layAreas(
  world: World,
  code: string,
  heights: Grid,
  sites: readonly Site[],
  plane: Plane,
  namer: Namer,
  random: Random,
): Town[] {
  const { owner } = spread(
    heights,
    sites.map((site) => site.at),
    Infinity,
    3,
  );
  const isHeld = (cell: number) => heights.values[cell] > SHALLOW && owner[cell] >= 0;
  const countyOf = namer.county(0).length
    ? clusters(
        sites.map((s) => s.at),
        7,
      )
    : sites.map(() => -1);
  const regionOf = thirds(sites, countyOf);
  const add = (
    area: Omit<WorldArea, "country" | "rings" | "at"> & { at: Point },
    cells: (cell: number) => boolean,
    like = heights,
  ) =>
    world.areas.push({ ...area, country: code, at: plane.position(area.at), rings: ringsAround(like, cells, plane) });

  const people = sites.reduce((sum, site) => sum + site.population, 0);
  add(
    {
      key: code,
      parent: null,
      kind: "country",
      code,
      names: namer.country(),
      at: middleOf(sites),
      population: people,
      importance: 1,
    },
    isHeld,
  );
  namer.regions().forEach((names, r) => {
    const own = sites.filter((_, i) => regionOf[i] === r);
    if (!own.length) return;
    add(
      {
        key: `${code}/region/${r}`,
        parent: code,
        kind: "region",
        code: codeOf(code, names, r),
        names,
        at: middleOf(own),
        population: sumOf(own),
        importance: 0.85,
      },
      (cell) => isHeld(cell) && regionOf[owner[cell]] === r,
    );
  });
  for (const c of [...new Set(countyOf)].filter((c) => c >= 0).sort((a, b) => a - b)) {
    const own = sites.filter((_, i) => countyOf[i] === c);
    const region = regionOf[countyOf.indexOf(c)];
    add(
      {
        key: `${code}/county/${c}`,
        parent: `${code}/region/${region}`,
        kind: "county",
        code: codeOf(code, namer.county(c), c),
        names: namer.county(c),
        at: middleOf(own),
        population: sumOf(own),
        importance: 0.75,
      },
      (cell) => isHeld(cell) && countyOf[owner[cell]] === c,
    );
  }
  return sites.map((site, i): Town => {
    const key = `${code}/town/${i}`;
    const parent = countyOf[i] >= 0 ? `${code}/county/${countyOf[i]}` : `${code}/region/${regionOf[i]}`;
    add(
      {
        key,
        parent,
        kind: "town",
        names: namer.town(i),
        at: site.at,
        population: site.population,
        importance: 0.35 + 0.35 * Math.min(1, site.population / 35000),
      },
      (cell) => isHeld(cell) && owner[cell] === i,
    );
    const town: Town = { site, names: namer.town(i), key, region: regionOf[i], county: countyOf[i], districts: [] };
    town.districts = layDistricts(world, code, town, i, heights, owner, plane, namer, random);
    return town;
  });
}

/** Larger towns fall into districts around a few middles. */
function layDistricts(
  world: World,
  code: string,
  town: Town,
  number: number,
  heights: Grid,
  owner: Int16Array,
  plane: Plane,
  namer: Namer,
  random: Random,
): District[] {
  const { site } = town;
  const wanted = site.radius > 700 ? 4 : site.radius > 470 ? 3 : code === "QY" ? 2 : 0;
  const turn = random.between(0, 6.28);
  const middles = Array.from({ length: wanted }, (_, k): Point => {
    const away = k === 0 ? 0 : site.radius * 0.6;
    const angle = turn + (k / Math.max(1, wanted - 1)) * 2 * Math.PI;
    return { x: site.at.x + away * Math.cos(angle), y: site.at.y + away * Math.sin(angle) };
  });
  const cell = 50;
  const side = Math.ceil((site.radius * 3.4) / cell);
  const grid = new Grid(side, side, cell);
  const inTown = plane.around(site.at);
  const at = (index: number): Point => {
    const { x, y } = grid.point(index % side, Math.floor(index / side));
    return { x: x + site.at.x, y: y + site.at.y };
  };
  return middles.map((middle, k) => {
    const key = `${town.key}/district/${k}`;
    const rings = ringsAround(
      grid,
      (index) => {
        const point = at(index);
        const isOwn = owner[heights.indexAt(point)] === number && heights.sample(point) > SHALLOW;
        return isOwn && distance(point, site.at) < site.radius * 1.5 && nearest(point, middles) === k;
      },
      inTown,
    );
    world.areas.push({
      key,
      parent: town.key,
      kind: "district",
      country: code,
      names: namer.district(number + k),
      at: plane.position(middle),
      population: Math.round(site.population / wanted),
      importance: 0.3,
      rings,
    });
    return { at: middle, key };
  });
}

/** The number of the nearest point. */
export function nearest(point: Point, points: readonly Point[]): number {
  let best = 0;
  points.forEach((other, i) => {
    if (distance(point, other) < distance(point, points[best])) best = i;
  });
  return best;
}

/** Groups points around middles that lie as far apart as they can. */
function clusters(points: readonly Point[], count: number): number[] {
  const middles = [points[0]];
  while (middles.length < Math.min(count, points.length)) {
    const apart = (p: Point) => Math.min(...middles.map((m) => distance(p, m)));
    middles.push(points.reduce((far, p) => (apart(p) > apart(far) ? p : far)));
  }
  return points.map((point) => nearest(point, middles));
}

/** Three regions from north to south, complete counties in each. */
function thirds(sites: readonly Site[], countyOf: readonly number[]): number[] {
  const groups = new Map<number, number[]>();
  sites.forEach((site, i) => {
    const group = countyOf[i] >= 0 ? countyOf[i] : 1000 + i;
    groups.set(group, [...(groups.get(group) ?? []), site.at.y]);
  });
  const mean = (list: number[]) => list.reduce((a, b) => a + b, 0) / list.length;
  const order = [...groups.entries()].sort((a, b) => mean(b[1]) - mean(a[1])).map(([group]) => group);
  return sites.map((_, i) => Math.floor((order.indexOf(countyOf[i] >= 0 ? countyOf[i] : 1000 + i) * 3) / order.length));
}

function middleOf(sites: readonly Site[]): Point {
  return {
    x: sites.reduce((s, { at }) => s + at.x, 0) / sites.length,
    y: sites.reduce((s, { at }) => s + at.y, 0) / sites.length,
  };
}

const sumOf = (sites: readonly Site[]) => sites.reduce((sum, site) => sum + site.population, 0);

/** ISO 3166-2 style: the country and two letters of the name, or its number where the script is another. */
function codeOf(country: string, names: readonly Name[], number: number): string {
  const initials = fold(names[0].name)
    .text.replace(/^the /, "")
    .replace(/[^a-z]/g, "")
    .slice(0, 2)
    .toUpperCase();
  return country === "QY" ? `QY-${String(number + 1).padStart(2, "0")}` : `${country}-${initials}`;
}
