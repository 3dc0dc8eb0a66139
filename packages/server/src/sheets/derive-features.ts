import { metresPerPixel, type Position, project, type Ring, TILE } from "@bibliotope/core/geo";
import { type AreaKind, type Name, refOf } from "@bibliotope/core/place";
import type { SheetFeature } from "@bibliotope/core/sheet";

/** What of a gazetteer a map can be made of. */
export interface Gazetteer {
  areas: { identity: number; country: string; kind: AreaKind; names: Name[]; at: Position; rings: Ring[] }[];
  streets: { identity: number; country: string; kind: string; names: Name[] }[];
  /** Of one street after another. */
  addresses: { street: number; at: Position }[];
}

type Pair = [lon: number, lat: number];

/** Metres between two houses from which a street is taken to go on elsewhere, and the same in usual gaps. */
const LEAST_BREAK = 250;
const BREAK_IN_GAPS = 8;
/** Metres from which a street counts as a main one. */
const MAIN = 1500;
const SETTLEMENTS: ReadonlySet<AreaKind> = new Set<AreaKind>(["town"]);

/**
 * Map features for data that brings none: a line for each street through its own addresses, a point for each address,
 * outlines and names of areas.
 */
export function deriveFeatures({ areas, streets, addresses }: Gazetteer): SheetFeature[] {
  const byStreet = new Map<number, Position[]>();
  for (const { street, at } of addresses) {
    const its = byStreet.get(street);
    if (its) its.push(at);
    else byStreet.set(street, [at]);
  }
  return [
    ...areas.flatMap(areaFeatures),
    ...streets.flatMap(({ identity, country, kind, names }) =>
      streetFeatures({ id: refOf(country, identity), kind, names }, (byStreet.get(identity) ?? []).map(pairOf)),
    ),
  ];
}

/** Paper for the whole world: for data that does not say where the sea is. */
export const BLANK_PAPER: SheetFeature = {
  type: "Feature",
  geometry: {
    type: "Polygon",
    coordinates: [
      [
        [-180, -85.05],
        [180, -85.05],
        [180, 85.05],
        [-180, 85.05],
        [-180, -85.05],
      ],
    ],
  },
  properties: { layer: "land", rank: 1 },
};

function areaFeatures({ identity, country, kind, names, at, rings }: Gazetteer["areas"][number]): SheetFeature[] {
  const id = refOf(country, identity);
  const features: SheetFeature[] = rings.map((ring) => ({
    type: "Feature",
    id,
    geometry: { type: "LineString", coordinates: ring.map(([lon, lat]): Pair => [lon, lat]) },
    properties: { layer: "boundary", rank: kind === "country" || kind === "region" ? 1 : 2 },
  }));
  if (SETTLEMENTS.has(kind))
    features.push({
      type: "Feature",
      id,
      geometry: { type: "Point", coordinates: [at.lon, at.lat] },
      properties: { layer: "name", rank: 2, what: "town", names },
    });
  return features;
}

/** The points and lines of a street or block. @param id its ref @param houses [lon, lat] of each */
export function streetFeatures(
  { id, kind, names }: { id: string; kind: string; names: Name[] },
  houses: readonly Pair[],
): SheetFeature[] {
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
      properties: { layer: "street", rank: length > MAIN ? 2 : 3, names },
    },
  ];
}

/** Houses that are shown as points. @param id ref of their street */
export const pointsOf = (id: string, houses: readonly Pair[]): SheetFeature => ({
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
  const way: Pair[] = [along[0], ...middles, along[along.length - 1]];
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
