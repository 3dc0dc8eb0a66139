import { metresPerPixel, type Position, project, type Ring, TILE } from "@bibliotope/core/geo";
import type { MapFeature } from "@bibliotope/core/map";
import { type AreaKind, type Name, refOf } from "@bibliotope/core/place";
import { landOutline } from "../world/outlines.ts";
import { LAND, outlinesAround, TOWN } from "./extents.ts";

/** What of a gazetteer a map can be made of. */
export interface Gazetteer {
  areas: {
    identity: number;
    country: string;
    kind: AreaKind;
    names: Name[];
    at: Position;
    importance: number;
  }[];
  streets: { identity: number; country: string; kind: string; names: Name[] }[];
  /** Of one street after another. */
  addresses: { street: number; at: Position }[];
  places: { identity: number; country: string; at: Position }[];
}

type Pair = [lon: number, lat: number];

/** Metres between two houses from which a street is taken to go on elsewhere, and the same in usual gaps. */
const LEAST_BREAK = 250;
const BREAK_IN_GAPS = 8;
/** Metres from which a street counts as a main one. */
const MAIN = 1500;
const SETTLEMENTS: ReadonlySet<AreaKind> = new Set<AreaKind>(["town"]);

/**
 * Map features for data that brings none: a line for each street through its own addresses, a point for each address and
 * place, names of towns, their extent where houses stand close, and land under all of it.
 */
export function deriveFeatures({ areas, streets, addresses, places }: Gazetteer): MapFeature[] {
  const byStreet = new Map<number, Position[]>();
  for (const { street, at } of addresses) {
    const own = byStreet.get(street);
    if (own) own.push(at);
    else byStreet.set(street, [at]);
  }
  const houses = addresses.map(({ at }) => pairOf(at));
  const towns = areas.filter(({ kind }) => SETTLEMENTS.has(kind));
  return [
    ...landUnder([...houses, ...[...towns, ...places].map(({ at }) => pairOf(at))]),
    ...outlinesAround(houses, TOWN).map((rings) => polygon(rings, { layer: "town", rank: 1 })),
    ...townNames(towns),
    ...places.map(
      ({ identity, country, at }): MapFeature => ({
        type: "Feature",
        id: refOf(country, identity),
        geometry: { type: "Point", coordinates: pairOf(at) },
        properties: { layer: "point", rank: 1 },
      }),
    ),
    ...streets.flatMap(({ identity, country, kind, names }) =>
      streetFeatures({ id: refOf(country, identity), kind, names }, (byStreet.get(identity) ?? []).map(pairOf)),
    ),
  ];
}

/** Metres from the sea, as the coarse outlines have it, from which nothing needs land of its own. */
const INLAND = 4000;
/** Degrees of the cells of which one spot represents all. */
const CELL = 0.004;
/** Rank of land that is laid under what is stored. */
const LAID = 3;

/** Land under spots that the world's outlines have in the sea, or so near to it that a house would stand on the beach. */
function landUnder(spots: readonly Pair[]): MapFeature[] {
  const cells = new Map<string, Pair>();
  for (const [lon, lat] of spots) cells.set(`${Math.floor(lon / CELL)} ${Math.floor(lat / CELL)}`, [lon, lat]);
  const land = landOutline();
  const needed = [...cells.values()].filter(([lon, lat]) => {
    const at = { lat, lon };
    return !land.contains(at) || land.isByEdge(at, INLAND);
  });
  return outlinesAround(needed, LAND).map((rings) => polygon(rings, { layer: "land", rank: LAID }));
}

const polygon = (rings: readonly Ring[], properties: MapFeature["properties"]): MapFeature => ({
  type: "Feature",
  geometry: { type: "Polygon", coordinates: rings.map((ring) => ring.map(([lon, lat]): Pair => [lon, lat])) },
  properties,
});

/** Shares of the towns, the most important first, that are named as large as the map names any, and so on down; some at least. */
const RANKS = [
  { share: 0.02, least: 2 },
  { share: 0.15, least: 8 },
  { share: 0.5, least: 30 },
];

/** How important each town is among all of them. */
function ranksOf(towns: Gazetteer["areas"]): number[] {
  const ranks: number[] = [];
  const order = [...towns.keys()].sort((a, b) => towns[b].importance - towns[a].importance);
  order.forEach((town, place) => {
    const among = RANKS.findIndex(({ share, least }) => place < Math.max(least, share * towns.length));
    ranks[town] = among < 0 ? RANKS.length + 1 : among + 1;
  });
  return ranks;
}

/** Of a name what a map shows: how its source writes it would be sent with every tile. */
const onMap = (names: readonly Name[]) => names.map(({ lang, name }) => ({ lang, name }));

/** The name of a town. Its outline is drawn around what is known of it, so that it is no boundary, and not shown as one. */
function townNames(towns: Gazetteer["areas"]): MapFeature[] {
  const ranks = ranksOf(towns);
  return towns.map(
    ({ identity, country, names, at }, i): MapFeature => ({
      type: "Feature",
      id: refOf(country, identity),
      geometry: { type: "Point", coordinates: pairOf(at) },
      properties: { layer: "name", rank: ranks[i], what: "town", names: onMap(names) },
    }),
  );
}

/** The points and lines of a street or block. @param id its ref @param houses [lon, lat] of each */
export function streetFeatures(
  { id, kind, names }: { id: string; kind: string; names: Name[] },
  houses: readonly Pair[],
): MapFeature[] {
  if (!houses.length) return [];
  const points = pointsOf(id, houses);
  const lines = kind === "block" ? [] : linesThrough(houses);
  if (!lines.length) return [points];
  const length = Math.max(...lines.map(lengthOf));
  return [
    points,
    {
      type: "Feature",
      id,
      geometry: { type: "MultiLineString", coordinates: lines },
      properties: { layer: "street", rank: length > MAIN ? 2 : 3, names: onMap(names) },
    },
  ];
}

/** Houses that are shown as points. @param id ref of their street */
export const pointsOf = (id: string, houses: readonly Pair[]): MapFeature => ({
  type: "Feature",
  id,
  geometry: { type: "MultiPoint", coordinates: [...houses] },
  properties: { layer: "point", rank: 1 },
});

export const pairOf = ({ lat, lon }: Position): Pair => [lon, lat];

/**
 * Lines through the houses of a street: taken along its long side, the two rows of houses drawn together to their
 * middle, broken where there are no houses for long.
 */
function linesThrough(houses: readonly Pair[]): Pair[][] {
  if (houses.length < 2) return [];
  const along = sortedAlong(houses);
  // the middle of each house and the next one lies between the two rows
  const middles = along.slice(1).map(([lon, lat], i): Pair => [(along[i][0] + lon) / 2, (along[i][1] + lat) / 2]);
  const way =
    middles.length > 1
      ? [beyond(middles[0], middles[1]), ...middles, beyond(middles[middles.length - 1], middles[middles.length - 2])]
      : [along[0], along[1]];
  const gaps = way.slice(1).map((pair, i) => lengthOf([way[i], pair]));
  const usual = gaps.toSorted((a, b) => a - b)[gaps.length >> 1];
  const most = Math.max(LEAST_BREAK, BREAK_IN_GAPS * usual);
  const lines: Pair[][] = [[way[0]]];
  gaps.forEach((gap, i) => {
    if (gap > most) lines.push([way[i + 1]]);
    else lines[lines.length - 1].push(way[i + 1]);
  });
  return lines.filter((line) => line.length > 1 && lengthOf(line) > 0);
}

/** Half a step on from the end of a line, so that it passes the last house. */
const beyond = ([lon, lat]: Pair, [fromLon, fromLat]: Pair): Pair => [
  lon + (lon - fromLon) / 2,
  lat + (lat - fromLat) / 2,
];

/** Positions in their order along the line that fits them best (the first principal axis). */
function sortedAlong(positions: readonly Pair[]): Pair[] {
  const points = positions.map(([lon, lat]) => project({ lat, lon }));
  const x = points.reduce((sum, point) => sum + point.x, 0) / points.length;
  const y = points.reduce((sum, point) => sum + point.y, 0) / points.length;
  let [xx, xy, yy] = [0, 0, 0];
  for (const point of points) {
    xx += (point.x - x) ** 2;
    xy += (point.x - x) * (point.y - y);
    yy += (point.y - y) ** 2;
  }
  const turn = Math.atan2(2 * xy, xx - yy) / 2;
  const share = points.map((point) => (point.x - x) * Math.cos(turn) + (point.y - y) * Math.sin(turn));
  return [...positions.keys()].sort((a, b) => share[a] - share[b]).map((i) => positions[i]);
}

/** Metres of a line. */
function lengthOf(line: readonly Pair[]): number {
  const points = line.map(([lon, lat]) => project({ lat, lon }));
  const metres = TILE * metresPerPixel(0, line[0][1]);
  return points.slice(1).reduce((sum, p, i) => sum + Math.hypot(p.x - points[i].x, p.y - points[i].y) * metres, 0);
}
