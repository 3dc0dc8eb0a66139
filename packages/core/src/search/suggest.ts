import type { Position } from "../geo/index.ts";
import { NONE } from "../index/index.ts";
import type { Kind } from "../place/index.ts";
import { glossOf, marksIn } from "./gloss.ts";
import type { Held } from "./held.ts";
import { interpret } from "./interpret.ts";
import { numbersStarting } from "./numbers.ts";
import { compileFilter, type Narrowing, OUTCOME } from "./query.ts";
import { type Candidate, rank } from "./rank.ts";
import { partsOf, suggestionLine } from "./record.ts";

/** A line to choose from while typing. */
export interface Suggestion {
  ref: string;
  kind: Kind;
  line: string;
  /** What it lies in. */
  within: string;
  /** Half-open UTF-16 ranges of `line` that answer to what was typed, sorted. */
  marks: [start: number, end: number][];
  at: Position;
  /** How many numbers or units are inside: ask again with `inside`. */
  more: number;
}

export interface SuggestAnswer {
  outcome: "matched" | "none";
  suggestions: Suggestion[];
}

export interface SuggestQuery extends Narrowing {
  q: string;
}

const DEFAULT_LIMIT = 7;
/** Things of each name that are looked at while little is typed. */
const HEADS = 300;

/** Lines that the text so far may become, the likeliest first. */
export function suggest(held: Held, query: SuggestQuery): SuggestAnswer {
  const { segment, matches } = held;
  const limit = query.limit ?? DEFAULT_LIMIT;
  const filter = compileFilter(segment, query);
  if (filter.street >= 0 && segment.isStreet(filter.street)) return suggestNumbers(held, query, filter.street, limit);
  const tokens = interpret(segment, query.q, true);
  if (!tokens.length) return { outcome: "none", suggestions: [] };
  matches.fill(tokens, isWide(query, tokens) ? HEADS : Infinity);
  const best = rank(segment, tokens, matches, filter, limit, query.near).filter((c) => c.score >= OUTCOME.found);
  const suggestions = best.map((candidate) => toSuggestion(held, query, candidate, tokens));
  return { outcome: suggestions.length ? "matched" : "none", suggestions };
}

/** One word with nothing to narrow it fits so much that only the most important of each name can come first. */
function isWide(query: SuggestQuery, tokens: ReturnType<typeof interpret>): boolean {
  const isNarrowed = query.near || query.box || query.inside || query.countries?.length || query.kinds?.length;
  return !isNarrowed && tokens.filter(({ kind }) => kind === "word").length < 2;
}

function toSuggestion(
  held: Held,
  query: SuggestQuery,
  candidate: Candidate,
  tokens: ReturnType<typeof interpret>,
): Suggestion {
  const { segment } = held;
  const { thing, address } = candidate;
  const parts = partsOf(segment, thing, address, { langs: query.langs, typed: query.q });
  const { line, within } = suggestionLine(segment, thing, parts);
  const inStreet = segment.isStreet(thing) && address === NONE;
  const [from, to] = inStreet ? segment.addressesOf(thing) : [0, 0];
  return {
    ref: address === NONE ? segment.thingRef(thing) : segment.addressRef(address),
    kind: address === NONE ? segment.kindOf(thing) : "address",
    line,
    within,
    marks: marksIn(line, glossOf(segment, tokens, candidate, parts, query.q)),
    at: address === NONE ? segment.positionOf(thing) : segment.addressPosition(address),
    more: to - from,
  };
}

/** The numbers of a street, or those that begin with the typed digits. */
function suggestNumbers(held: Held, query: SuggestQuery, street: number, limit: number): SuggestAnswer {
  const { segment } = held;
  const digits = /\d+[^\s,]*/.exec(query.q)?.[0].toLowerCase() ?? "";
  const suggestions = numbersStarting(segment, street, digits, limit).map((address): Suggestion => {
    const parts = partsOf(segment, street, address, { langs: query.langs, typed: query.q });
    const { line, within } = suggestionLine(segment, street, parts);
    const at = digits ? line.toLowerCase().indexOf(digits) : -1;
    return {
      ref: segment.addressRef(address),
      kind: "address",
      line,
      within,
      marks: at < 0 ? [] : [[at, at + digits.length]],
      at: segment.addressPosition(address),
      more: 0,
    };
  });
  return { outcome: suggestions.length ? "matched" : "none", suggestions };
}
