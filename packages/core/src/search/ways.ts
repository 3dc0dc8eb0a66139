import { GROUPS, NONE, REST, type Segment } from "../index/index.ts";
import type { QueryToken } from "./interpret.ts";
import type { Marks } from "./marks.ts";
import { QUALITY } from "./weights.ts";

/** How much later the readings with errors have their turn. */
const LATER = 8;

/** The dictionary words of one reading of one typed word, and the things they find. */
export interface Driver {
  token: number;
  from: number;
  to: number;
  quality: number;
  node?: number;
  /** How many postings. */
  size: number;
}

/** What lies inside the areas that a word may name. */
export interface Inside {
  token: number;
  /** Half-open ranges of things, one after the other. */
  ranges: Uint32Array;
  total: number;
}

/** Part of a list of things, with their hints. */
export interface List {
  things: Uint32Array;
  hints: Uint16Array;
  from: number;
  to: number;
}

/** All readings of all words, from the fewest things found to the most. */
export function sortDrivers(segment: Segment, tokens: readonly QueryToken[]): Driver[] {
  const { termPosting } = segment.sections;
  const drivers: Driver[] = [];
  for (let token = 0; token < tokens.length; token++)
    for (const { from, to, quality, node } of tokens[token].ranges) {
      // of a beginning areas and postcodes are counted too: they are few
      const first = node === undefined ? from * GROUPS + REST : from * GROUPS;
      const size = termPosting[node === undefined ? first + 1 : to * GROUPS] - termPosting[first];
      if (size > 0) drivers.push({ token, from, to, quality, node, size });
    }
  const turn = ({ size, quality }: Driver) => (quality < QUALITY.spelling + 1e-9 ? size * LATER : size);
  return drivers.sort((a, b) => turn(a) - turn(b) || a.token - b.token || a.from - b.from);
}

/** For each word the areas that it may name, and how much lies inside them; the least first. */
export function insidesOf(segment: Segment, tokens: readonly QueryToken[], marks: Marks): Inside[] {
  const { thingParent } = segment.sections;
  const isInAnother = (area: number, t: number) => {
    for (let above = thingParent[area]; above !== NONE; above = thingParent[above])
      if (marks.named(above, t) > 0) return true;
    return false;
  };
  const areas = marks.touched.filter((thing) => segment.isArea(thing)).sort((a, b) => a - b);
  if (!areas.length) return [];
  const insides = tokens.map((_, token): Inside => {
    const ranges: number[] = [];
    let total = 0;
    // areas in order, and none in another: so their ranges are in order too, first all of streets, then of places
    const add = ([from, to]: [number, number]) => {
      if (from === to) return;
      total += to - from;
      if (ranges[ranges.length - 1] === from) ranges[ranges.length - 1] = to;
      else ranges.push(from, to);
    };
    const named = areas.filter((area) => marks.named(area, token) > 0 && !isInAnother(area, token));
    for (const area of named) add(segment.streetsInside(area));
    for (const area of named) add(segment.placesInside(area));
    return { token, ranges: Uint32Array.from(ranges), total };
  });
  return insides.filter(({ total }) => total > 0).sort((a, b) => a.total - b.total);
}

/** True when one of some sorted half-open ranges has a thing. */
export function isWithin(ranges: Uint32Array, thing: number): boolean {
  let low = 0;
  let high = ranges.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (ranges[middle] <= thing) low = middle + 1;
    else high = middle;
  }
  return low % 2 === 1;
}

/** How many streets some postcodes have, those of several counted several times. */
export function streetsOf({ sections, firstPostcode }: Segment, postcodes: readonly number[]): number {
  const { postcodeStreet } = sections;
  let streets = 0;
  for (const postcode of postcodes) {
    const place = postcode - firstPostcode;
    streets += postcodeStreet[place + 1] - postcodeStreet[place];
  }
  return streets;
}
