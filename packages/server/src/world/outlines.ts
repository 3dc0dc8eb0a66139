import { createRequire } from "node:module";
import { boxContains, Outline, type Position } from "@bibliotope/core/geo";
import { allProfiles, countryBox } from "@bibliotope/core/place";
import { feature, mesh } from "topojson-client";

/** Pairs of degrees after one another; those of an area are closed. */
type Line = [lon: number, lat: number][];

/** A country as the outlines have it. */
export interface Country {
  /** ISO 3166-1 alpha-2. */
  code: string;
  /** Polygons, each an outer ring and its holes. */
  polygons: Line[][];
}

/** Lands and countries of the world, from the public domain, at a scale of 1 : 50 million. */
export interface World {
  /** All land, as one. */
  land: Line[][];
  /** Between countries, on land. */
  borders: Line[];
  countries: Country[];
}

/** Metres by which the outlines may be wrong: small bays, river mouths and islands are left out of them. */
const OUTLINE_ERROR = 15_000;

type Topology = Parameters<typeof mesh>[0];
type Collection = Extract<NonNullable<Parameters<typeof mesh>[1]>, { type: "GeometryCollection" }>;
type Atlas = Topology & { objects: { countries: Collection; land: Collection } };

const require = createRequire(import.meta.url);
let existing: World | undefined;

/** The world's outlines; read when they are requested first. */
export function world(): World {
  existing ??= readWorld();
  return existing;
}

function readWorld(): World {
  const atlas = require("world-atlas/countries-50m.json") as Atlas;
  const codes = require("i18n-iso-countries/codes.json") as [alpha2: string, alpha3: string, numeric: string][];
  const codeOf = new Map(codes.map(([code, , numeric]) => [numeric, code]));
  const { countries, land } = atlas.objects;
  const byCode = new Map<string, Line[][]>();
  for (const { id, geometry } of feature(atlas, countries).features) {
    const code = codeOf.get(String(id));
    if (code) byCode.set(code, [...(byCode.get(code) ?? []), ...polygonsOf(geometry)]);
  }
  return {
    land: feature(atlas, land).features.flatMap(({ geometry }) => polygonsOf(geometry)),
    borders: mesh(atlas, countries, (a, b) => a !== b).coordinates.map(pairsOf),
    countries: [...byCode].map(([code, polygons]) => ({ code, polygons })),
  };
}

function polygonsOf(geometry: GeoJSON.Geometry): Line[][] {
  const polygons =
    geometry.type === "Polygon" ? [geometry.coordinates] : geometry.type === "MultiPolygon" ? geometry.coordinates : [];
  return polygons.flatMap((rings) => cutAtDateLine(rings.map(pairsOf)));
}

/** A polygon of which no ring goes on over the 180th meridian: one that does becomes two, and around a pole it reaches down to it. */
function cutAtDateLine(rings: Line[]): Line[][] {
  const [outer, ...holes] = rings.map(unrolled);
  const lons = outer.map(([lon]) => lon);
  const [west, east] = [Math.min(...lons), Math.max(...lons)];
  if (west >= -180 && east <= 180) return [[outer, ...holes]];
  return [-360, 0, 360].flatMap((turn) => {
    const within = [outer, ...holes].map((ring) => clipped(clipped(turned(ring, turn), -180, 1), 180, -1));
    return within[0].length > 3 ? [within.filter((ring) => ring.length > 3)] : [];
  });
}

const turned = (ring: Line, degrees: number): Line => ring.map(([lon, lat]) => [lon + degrees, lat]);

/** A ring whose longitudes go on beyond 180 rather than to jump to the other side; closed by way of the pole that it runs around. */
function unrolled(ring: Line): Line {
  let turn = 0;
  const line = ring.map(([lon, lat], i): Line[number] => {
    const step = i > 0 ? lon - ring[i - 1][0] : 0;
    if (Math.abs(step) > 180) turn -= 360 * Math.sign(step);
    return [lon + turn, lat];
  });
  if (!turn) return line;
  const pole = line[0][1] < 0 ? -90 : 90;
  return [...line, [line[line.length - 1][0], pole], [line[0][0], pole], line[0]];
}

/** The part of a ring to the east of a meridian, or with a side of -1 to the west of it (Sutherland and Hodgman, 1974). */
function clipped(ring: Line, meridian: number, side: 1 | -1): Line {
  const kept: Line = [];
  const isIn = (lon: number) => (lon - meridian) * side >= 0;
  for (let i = 0; i < ring.length; i++) {
    const [from, to] = [ring[i], ring[(i + 1) % ring.length]];
    if (isIn(from[0])) kept.push(from);
    if (isIn(from[0]) === isIn(to[0])) continue;
    const share = (meridian - from[0]) / (to[0] - from[0]);
    kept.push([meridian, from[1] + share * (to[1] - from[1])]);
  }
  const [first] = kept;
  const last = kept[kept.length - 1];
  return first && (first[0] !== last[0] || first[1] !== last[1]) ? [...kept, first] : kept;
}

const pairsOf = (line: readonly (readonly number[])[]) => line.map(([lon, lat]): [number, number] => [lon, lat]);

let land: Outline | undefined;
const outlines = new Map<string, Outline | undefined>();

/** All land, to be searched for what lies on it. */
export function landOutline(): Outline {
  land ??= new Outline(world().land.flat());
  return land;
}

/** A country, to be searched for what lies in it; undefined where it is too small for the outlines, or not known. */
export function countryOutline(code: string): Outline | undefined {
  if (!outlines.has(code)) {
    const polygons = world().countries.find((country) => country.code === code)?.polygons;
    outlines.set(code, polygons && new Outline(polygons.flat()));
  }
  return outlines.get(code);
}

/** Codes of all countries that a position may lie in, as near to a border as the outlines may be wrong. */
export function countriesAt(at: Position): string[] {
  return codes().filter((code) => {
    const box = countryBox(code) ?? countryOutline(code)?.box;
    return box !== undefined && boxContains(box, at) && mayLieIn(code, at);
  });
}

let known: string[] | undefined;
/** Countries with an outline, and those made up for the demo, which have a box alone. */
const codes = () =>
  (known ??= [...new Set([...world().countries.map(({ code }) => code), ...allProfiles().map(({ code }) => code)])]);

/** False for a position that cannot be in a country, as far as its outline and the box around it tell. */
export function mayLieIn(code: string, at: Position): boolean {
  const box = countryBox(code);
  if (box && !boxContains(box, at)) return false;
  return countryOutline(code)?.isNear(at, OUTLINE_ERROR) ?? true;
}
