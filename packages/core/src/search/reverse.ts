import type { Position } from "../geo/index.ts";
import { geodesic } from "../geodesic/index.ts";
import { NONE, type Segment } from "../index/index.ts";
import { KINDS } from "../place/index.ts";
import { advise } from "./advice.ts";
import type { Indexed } from "./indexed.ts";
import { compileFilter, type Filter, type Narrowing } from "./query.ts";
import { type AnswerRecord, describe } from "./record.ts";

/** A record near a position. */
export interface NearRecord extends AnswerRecord {
  /** Metres on the ellipsoid; 0 for an area that contains the position. */
  distance: number;
  /** Degrees from north, from the position looked up to the record. */
  bearing?: number;
}

export interface ReverseAnswer {
  outcome: "matched" | "none";
  candidates: NearRecord[];
  advice: string[];
}

export interface ReverseQuery extends Narrowing {
  at: Position;
  /** Metres, 250 when not given. */
  radius?: number;
}

const DEFAULT_RADIUS = 250;
/** This many are looked at to find the nearest. */
const MEASURED = 8;
/** The sphere is right to within 0.6 %: what is farther than the nearest by twice that need not be measured truly. */
const SPHERE_ERROR = 1.012;

/** What lies nearest of the points that are requested, then the areas around, from the most exact to the country. */
export function reverse(indexed: Indexed, query: ReverseQuery): ReverseAnswer {
  const layers = indexed.layers.map((layer) => ({ layer, filter: compileFilter(layer.segment, query) }));
  const candidates: NearRecord[] = [nearestAddress(layers, query), nearestPlace(layers, query)]
    .filter((found) => found !== undefined)
    .sort((a, b) => a.distance - b.distance);
  const areas = layers.flatMap(({ layer, filter }) => {
    const { segment } = layer;
    return segment
      .areasAt(query.at)
      .filter((area) => filter.allows(area) && filter.allowsKind(segment.kindOf(area)))
      .map((area) => ({
        record: { ...layer.area(area, query.langs), distance: 0 } satisfies NearRecord,
        country: segment.sections.thingIdentity[segment.countryOf(area)],
      }));
  });
  // as in one segment: country by country, each before what lies in it
  if (layers.length > 1)
    areas.sort((a, b) => a.country - b.country || KINDS.indexOf(b.record.kind) - KINDS.indexOf(a.record.kind));
  candidates.push(...areas.reverse().map(({ record }) => record));
  const found = candidates.slice(0, query.limit ?? candidates.length);
  return {
    outcome: found.length ? "matched" : "none",
    candidates: found,
    advice: found.length ? [] : adviceFor(indexed, query.at, query.langs ?? []),
  };
}

type Layers = readonly { layer: Indexed; filter: Filter }[];

/** A point of a segment near the position looked up, with the distance on the sphere. */
interface Near {
  segment: Segment;
  id: number;
  at: Position;
  metres: number;
}

function nearestAddress(layers: Layers, query: ReverseQuery): NearRecord | undefined {
  const near = layers.flatMap(({ layer: { segment }, filter }) => {
    if (!filter.allowsKind("address")) return [];
    const isNarrow = query.countries?.length || query.inside !== undefined || query.box;
    const allows = (id: number) =>
      filter.allows(segment.streetOf(id)) && filter.allowsPosition(segment.addressPosition(id));
    return segment
      .nearestAddresses(query.at, reachOf(query), MEASURED, isNarrow ? allows : undefined)
      .map(({ id, metres }): Near => ({ segment, id, at: segment.addressPosition(id), metres }));
  });
  return nearestOf(near, query, ({ segment, id }) => describe(segment, segment.streetOf(id), id, query));
}

/** Only where places are requested: what most people want is the address. */
function nearestPlace(layers: Layers, query: ReverseQuery): NearRecord | undefined {
  if (!query.kinds?.includes("place")) return undefined;
  const near = layers.flatMap(({ layer: { segment }, filter }) =>
    segment
      .nearestPlaces(
        query.at,
        reachOf(query),
        MEASURED,
        (id) => filter.allows(id) && filter.allowsPosition(segment.positionOf(id)),
      )
      .map(({ id, metres }): Near => ({ segment, id, at: segment.positionOf(id), metres })),
  );
  return nearestOf(near, query, ({ segment, id }) => describe(segment, id, NONE, query));
}

/** Metres on the sphere within which all lies that is within the radius on the ellipsoid. */
const reachOf = ({ radius = DEFAULT_RADIUS }: ReverseQuery) => radius * SPHERE_ERROR;

/** The nearest on the ellipsoid. */
function nearestOf(
  near: readonly Near[],
  { at, radius = DEFAULT_RADIUS }: ReverseQuery,
  describeIt: (one: Near) => AnswerRecord,
): NearRecord | undefined {
  const least = near.reduce((metres, one) => Math.min(metres, one.metres), Number.POSITIVE_INFINITY);
  const [best] = near
    .filter(({ metres }) => metres <= least * SPHERE_ERROR)
    .map((one) => ({ ...one, ...geodesic(at, one.at) }))
    .filter(({ metres }) => metres <= radius)
    .sort((a, b) => a.metres - b.metres || a.id - b.id);
  if (!best) return undefined;
  const { metres, bearing } = best;
  return {
    ...describeIt(best),
    distance: round(metres, 10),
    ...(bearing === undefined ? {} : { bearing: round(bearing, 10) }),
  };
}

function adviceFor({ layers }: Indexed, at: Position, langs: readonly string[]): string[] {
  const swapped = { lat: at.lon, lon: at.lat };
  if (Math.abs(swapped.lat) <= 90 && layers.some(({ segment }) => segment.areasAt(swapped).length)) {
    const values = { at: `${swapped.lat},${swapped.lon}` };
    return [advise(langs, "There is nothing here, but there is at {at}: were latitude and longitude swapped?", values)];
  }
  return [advise(langs, "There is no address or area here. Try a larger radius.")];
}

const round = (value: number, steps: number) => Math.round(value * steps) / steps;
