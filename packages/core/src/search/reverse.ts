import { geodesic, type Position } from "../geo/index.ts";
import type { Held } from "./held.ts";
import { compileFilter, type Narrowing } from "./query.ts";
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
  const { segment } = held;
  const filter = compileFilter(segment, query);
  const shown = { langs: query.langs };
  const radius = query.radius ?? DEFAULT_RADIUS;
  const candidates: NearRecord[] = [];
  if (filter.allowsKind("address")) {
    const near = segment
      .nearestAddresses(query.at, radius * 1.01, MEASURED)
      .filter(({ id }) => filter.allows(segment.streetOf(id)) && filter.allowsPosition(segment.addressPosition(id)))
      .filter(({ metres }, _, [nearest]) => metres <= nearest.metres * SPHERE_ERROR)
      .map(({ id }) => ({ id, ...geodesic(query.at, segment.addressPosition(id)) }))
      .filter(({ metres }) => metres <= radius)
      .sort((a, b) => a.metres - b.metres || a.id - b.id);
    if (near.length) {
      const { id, metres, bearing } = near[0];
      const record = describe(segment, segment.streetOf(id), id, shown);
      candidates.push({
        ...record,
        distance: round(metres, 10),
        ...(bearing === undefined ? {} : { bearing: round(bearing, 10) }),
      });
    }
  }
  for (const area of segment.areasAt(query.at).reverse()) {
    if (filter.allows(area) && filter.allowsKind(segment.kindOf(area))) {
      candidates.push({ ...held.area(area, query.langs), distance: 0 });
    }
  }
  const found = candidates.slice(0, query.limit ?? candidates.length);
  return {
    outcome: found.length ? "matched" : "none",
    candidates: found,
    advice: found.length ? [] : adviceFor(held, query.at),
  };
}

function adviceFor({ segment }: Held, at: Position): string[] {
  const swapped = { lat: at.lon, lon: at.lat };
  if (Math.abs(swapped.lat) <= 90 && segment.areasAt(swapped).length) {
    return [
      `Nothing is held here, but there is at ${swapped.lat},${swapped.lon}: were latitude and longitude swapped?`,
    ];
  }
  return ["No address or area of the data held lies here. Try a wider radius."];
}

const round = (value: number, steps: number) => Math.round(value * steps) / steps;
