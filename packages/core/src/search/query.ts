import { type Box, boxContains, type Position } from "../geo/index.ts";
import type { Segment } from "../index/index.ts";
import type { Kind, PartName } from "../place/index.ts";

/** Narrowing (filters), the clue that only moves the order, and the languages of the answer. */
export interface Narrowing {
  /** ISO 3166 codes. */
  countries?: readonly string[];
  kinds?: readonly Kind[];
  /** Ref of an area, a street or a building. */
  inside?: string;
  /** West, south, east, north in degrees. */
  box?: Box;
  near?: Position;
  langs?: readonly string[];
  /** How many at most. */
  limit?: number;
}

/** An address by parts, and free text beside them. */
export interface ForwardQuery extends Narrowing {
  q?: string;
  parts?: Partial<Record<PartName, string>>;
}

/** A filter compiled for one segment. */
export interface Filter {
  allows(thing: number): boolean;
  allowsKind(kind: Kind): boolean;
  allowsPosition(at: Position): boolean;
  /** The street or block that was requested with `inside`, or -1. */
  street: number;
  /** True where a number between two others is an answer. */
  interpolates: boolean;
  /** The building that was requested with `inside`, or -1. */
  building: number;
}

/** Turns narrowing into tests on things. An `inside` that nothing has lets nothing through. */
export function compileFilter(segment: Segment, narrowing: Narrowing, interpolates = false): Filter {
  const countries = narrowing.countries?.length ? new Set(narrowing.countries.map((c) => c.toUpperCase())) : undefined;
  const kinds = narrowing.kinds?.length ? new Set(narrowing.kinds) : undefined;
  const named = narrowing.inside === undefined ? undefined : segment.resolve(narrowing.inside, true);
  // an area that an overlay answers for is still around what lies in it here
  const target = named && (segment.isArea(named.thing) || !segment.isHidden(named.thing)) ? named : undefined;
  const missing = narrowing.inside !== undefined && !target;
  const area = target && segment.isArea(target.thing) ? target.thing : -1;
  const street = target && !segment.isArea(target.thing) ? target.thing : -1;
  const { box } = narrowing;
  const isOpen = !countries && narrowing.inside === undefined;
  return {
    street,
    interpolates,
    building: target?.address ?? -1,
    allows: (thing) =>
      !segment.isHidden(thing) &&
      (isOpen ||
        (!missing &&
          (!countries || countries.has(segment.countryCode(thing))) &&
          (area < 0 || (thing !== area && segment.isInside(thing, area))) &&
          (street < 0 || thing === street))),
    allowsKind: (kind) => !kinds || kinds.has(kind),
    allowsPosition: (at) => !box || boxContains(box, at),
  };
}
