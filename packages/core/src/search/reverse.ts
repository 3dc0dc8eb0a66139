import type { Position } from "../geo/index.ts";
import { geodesic } from "../geodesic/index.ts";
import { KINDS } from "../place/index.ts";
import type { Held } from "./held.ts";
import { compileFilter, type Filter, type Narrowing } from "./query.ts";
import { type AnswerRecord, describe } from "./record.ts";

/** A record near a position. */
export interface NearRecord extends AnswerRecord {
  /** Metres on the ellipsoid; 0 for an area that contains the position. */
  distance: number;
  /** Degrees from north, from the asked position to the record. */
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

/** The nearest address, then the areas around, from the most exact to the country. */
export function reverse(held: Held, query: ReverseQuery): ReverseAnswer {
  const layers = held.layers.map((layer) => ({ layer, filter: compileFilter(layer.segment, query) }));
  const nearest = nearestAddress(layers, query);
  const candidates: NearRecord[] = nearest ? [nearest] : [];
  const areas = layers.flatMap(({ layer, filter }) =>
    layer.segment
      .areasAt(query.at)
      .filter((area) => filter.allows(area) && filter.allowsKind(layer.segment.kindOf(area)))
      .map((area): NearRecord => ({ ...layer.area(area, query.langs), distance: 0 })),
  );
  if (layers.length > 1) areas.sort((a, b) => KINDS.indexOf(b.kind) - KINDS.indexOf(a.kind));
  candidates.push(...areas.reverse());
  const found = candidates.slice(0, query.limit ?? candidates.length);
  return {
    outcome: found.length ? "matched" : "none",
    candidates: found,
    advice: found.length ? [] : adviceFor(held, query.at),
  };
}

function nearestAddress(layers: readonly { layer: Held; filter: Filter }[], query: ReverseQuery) {
  const radius = query.radius ?? DEFAULT_RADIUS;
  const near = layers.flatMap(({ layer: { segment }, filter }) => {
    if (!filter.allowsKind("address")) return [];
    const isNarrow = query.countries?.length || query.inside !== undefined || query.box;
    const allows = (id: number) =>
      filter.allows(segment.streetOf(id)) && filter.allowsPosition(segment.addressPosition(id));
    return segment
      .nearestAddresses(query.at, radius * SPHERE_ERROR, MEASURED, isNarrow ? allows : undefined)
      .map(({ id, metres }) => ({ segment, id, metres }));
  });
  const least = near.reduce((metres, one) => Math.min(metres, one.metres), Number.POSITIVE_INFINITY);
  const [best] = near
    .filter(({ metres }) => metres <= least * SPHERE_ERROR)
    .map(({ segment, id }) => ({ segment, id, ...geodesic(query.at, segment.addressPosition(id)) }))
    .filter(({ metres }) => metres <= radius)
    .sort((a, b) => a.metres - b.metres || a.id - b.id);
  if (!best) return undefined;
  const { segment, id, metres, bearing } = best;
  return {
    ...describe(segment, segment.streetOf(id), id, { langs: query.langs }),
    distance: round(metres, 10),
    ...(bearing === undefined ? {} : { bearing: round(bearing, 10) }),
  };
}

function adviceFor({ layers }: Held, at: Position): string[] {
  const swapped = { lat: at.lon, lon: at.lat };
  if (Math.abs(swapped.lat) <= 90 && layers.some(({ segment }) => segment.areasAt(swapped).length)) {
    return [
      `Nothing is held here, but there is at ${swapped.lat},${swapped.lon}: were latitude and longitude swapped?`,
    ];
  }
  return ["No address or area of the data held lies here. Try a wider radius."];
}

const round = (value: number, steps: number) => Math.round(value * steps) / steps;
