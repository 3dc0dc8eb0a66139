import { descend, GROUPS, NONE, POSTCODES, type Segment } from "../index/index.ts";
import { tokenize } from "../text/index.ts";
import type { Indexed } from "./indexed.ts";
import type { Narrowing } from "./query.ts";
import { type AnswerRecord, describe } from "./record.ts";

export interface PostcodesQuery extends Pick<Narrowing, "langs" | "limit"> {
  /** ISO 3166 code. */
  country: string;
  /** A postcode or the beginning of one; spaces, dashes and case do not matter. */
  starts: string;
}

export interface PostcodesAnswer {
  outcome: "matched" | "none";
  /** The areas and streets that carry the postcodes: each postcode, then what it covers. */
  candidates: (AnswerRecord & { covers: string[] })[];
  /** How many postcodes begin like this in all. */
  total: number;
}

const DEFAULT_LIMIT = 20;
/** Names of what a postcode covers, at most. */
const MOST_COVERED = 12;

/** The postcodes of a country that begin with some characters, in order, each with the towns and streets it covers. */
export function postcodes(indexed: Indexed, query: PostcodesQuery): PostcodesAnswer {
  const wanted = bare(query.starts);
  const country = query.country.toUpperCase();
  const found = indexed.layers.flatMap(({ segment }) => postcodesStarting(segment, wanted, country));
  found.sort((a, b) => (a.code < b.code ? -1 : 1));
  const shown = { langs: query.langs };
  const candidates = found.slice(0, query.limit ?? DEFAULT_LIMIT).map(({ segment, postcode }) => ({
    ...describe(segment, postcode, NONE, shown),
    covers: streetsOf(indexed, segment.sections.thingIdentity[postcode]),
  }));
  return { outcome: candidates.length ? "matched" : "none", candidates, total: found.length };
}

function postcodesStarting(segment: Segment, wanted: string, country: string) {
  const found: { segment: Segment; postcode: number; code: string }[] = [];
  // postcodes stand in the dictionary as one word too, so a beginning is a range of words
  const node = descend(segment.sections, 0, wanted);
  const seen = new Set<number>();
  for (const postcode of node < 0 ? [] : postcodesBelow(segment, node)) {
    if (seen.has(postcode) || segment.isHidden(postcode) || segment.countryCode(postcode) !== country) continue;
    seen.add(postcode);
    const code = segment.namesOf(postcode)[0].name;
    if (bare(code).startsWith(wanted)) found.push({ segment, postcode, code });
  }
  return found;
}

function* postcodesBelow({ sections }: Segment, node: number): Iterable<number> {
  const { termPosting, posting, nodeTermFrom, nodeTermTo } = sections;
  for (let term = nodeTermFrom[node]; term < nodeTermTo[node]; term++) {
    const slot = term * GROUPS + POSTCODES;
    for (let p = termPosting[slot]; p < termPosting[slot + 1]; p++) yield posting[p];
  }
}

/** Names of the streets of a postcode, wherever they are stored. */
function streetsOf({ layers }: Indexed, identity: number): string[] {
  const names = layers.flatMap(({ segment }) => {
    const thing = segment.find(identity)?.thing;
    if (thing === undefined) return [];
    const { postcodeStreet, streetOfPostcode } = segment.sections;
    const place = thing - segment.firstPostcode;
    const streets = streetOfPostcode.subarray(postcodeStreet[place], postcodeStreet[place + 1]);
    return [...streets.filter((street) => !segment.isHidden(street)).subarray(0, MOST_COVERED)].map(
      (street) => segment.namesOf(street)[0].name,
    );
  });
  return names.slice(0, MOST_COVERED);
}

/** A postcode as it is compared: folded, without what parts its words. */
const bare = (code: string) =>
  tokenize(code)
    .map((token) => token.text)
    .join("");
