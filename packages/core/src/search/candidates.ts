import type { Segment } from "../index/index.ts";
import type { Indexed } from "./indexed.ts";
import type { QueryToken } from "./interpret.ts";
import type { Between } from "./numbers.ts";
import type { Explained } from "./scale.ts";

/** A record that may be meant. */
export interface Candidate {
  /** Where it was found. */
  indexed: Indexed;
  thing: number;
  /** The address in the street, or NONE. */
  address: number;
  /** Where the number lies that was typed and is missing in the street. */
  between?: Between;
  /** 0 to 1: how much of what was typed it explains, and how well. */
  score: number;
  /** Score with importance and nearness: the order. */
  order: number;
  /** For each typed word. */
  explained: Explained[];
  /** The words as they were read. */
  tokens: readonly QueryToken[];
  /** All segments that they were read against. */
  segments: readonly Segment[];
}

/** What stands this far behind the first is no answer beside it. */
export const MARGIN = 0.15;

/** What differs by less is the same but for rounding. */
export const ALIKE = 1e-6;
/** The order that it takes to come among the best. @param kept best first */
export function leastOf(kept: readonly Candidate[], { floor, limit }: { floor: number; limit: number }): number {
  if (!kept.length) return floor;
  return Math.max(floor, kept.length < limit ? 0 : kept[limit - 1].order, kept[0].order - MARGIN);
}

/** Best first; equals in the order in which one segment would number them, in however many they are. */
export function compareCandidates(a: Candidate, b: Candidate): number {
  if (a.order !== b.order) return b.order - a.order;
  if (a.indexed === b.indexed) return a.thing - b.thing;
  return groupOf(a) - groupOf(b) || countryOf(a) - countryOf(b);
}

/** Areas come first, then postcodes, streets, and places. */
function groupOf({ indexed: { segment }, thing }: Candidate): number {
  return [segment.firstPostcode, segment.firstStreet, segment.firstPlace].filter((first) => thing >= first).length;
}

/** Identity of the country that a candidate lies in: what lies in one comes before what lies in another. */
function countryOf({ indexed: { segment }, thing }: Candidate): number {
  return segment.sections.thingIdentity[segment.countryOf(thing)];
}
