import { type Position, readPosition } from "../geo/index.ts";
import { NONE, type Segment } from "../index/index.ts";
import { isOnlyUnit, type Kind } from "../place/index.ts";
import type { Candidate } from "./candidates.ts";
import { contradictionsOf } from "./contradictions.ts";
import { matchedBy } from "./forward.ts";
import { glossOf, marksIn } from "./gloss.ts";
import type { Indexed } from "./indexed.ts";
import { interpret, isLikeAnother, isUnknown, type QueryToken, type TermRange } from "./interpret.ts";
import { numbersStarting } from "./numbers.ts";
import { compileFilter, type Narrowing } from "./query.ts";
import { partsOf, suggestionLine } from "./record.ts";
import { type NearRecord, reverse } from "./reverse.ts";
import type { Explained } from "./scale.ts";
import { type SearchRequest, search } from "./search.ts";
import { isCredible, type Weighed, weigh } from "./verdict.ts";
import { QUALITY, VERDICT } from "./weights.ts";

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
  /** Only true: `forward` is `matched` to it for the same text and narrowing. */
  sure?: true;
}

export interface SuggestAnswer {
  outcome: "matched" | "none";
  suggestions: Suggestion[];
}

export interface SuggestQuery extends Narrowing {
  q: string;
}

const DEFAULT_LIMIT = 7;

/** Lines that the text so far may become, the likeliest first. */
export function suggest(indexed: Indexed, query: SuggestQuery): SuggestAnswer {
  const limit = query.limit ?? DEFAULT_LIMIT;
  const listed = query.inside === undefined ? undefined : suggestInside(indexed, query, limit);
  if (listed) return answer(listed, matchedBy(indexed, query));
  const at = readPosition(query.q);
  if (at) return atPosition(indexed, query, at);
  const read: SearchRequest["read"] = (doubting) => interpret(indexed, query.q, { completing: true, doubting });
  const reading = read(false);
  if (!reading[0].length) return answer([]);
  const best = search(indexed, reading, { text: query.q, read, completing: true, interpolates: false, limit }, query);
  const found = best.filter(({ score }) => score >= VERDICT.found);
  const weighed = weigh(found);
  const fitting = found.filter((candidate, i) => {
    const contradictions = weighed.contradictions[i] ?? contradictionsOf(candidate);
    if (isCredible(contradictions)) return true;
    // only what ends with a word of the name may yet be another
    const { by } = candidate.explained[candidate.explained.length - 1];
    return by === candidate.thing && isCredible(contradictionsOf(candidate, true));
  });
  const suggestions = fitting.map((candidate) => toSuggestion(query, candidate));
  if (!fitting.length) return answer(suggestions);
  const readingOf = ({ tokens }: Candidate) => tokens[tokens.length - 1].rangesBySegment;
  const isOneReading = best.every((one) => readingOf(one) === readingOf(best[0]));
  return answer(suggestions, sureOf(indexed, query, found, fitting, weighed, isOneReading && best.length < limit));
}

/**
 * Ref of the line that `forward` would be `matched` to. It need not be sent where the list itself tells: when nothing was
 * left out of it, all of it was read in one way, and the last word, which is all that is read otherwise there, is whole in the likeliest line.
 */
function sureOf(
  indexed: Indexed,
  query: SuggestQuery,
  found: readonly Candidate[],
  fitting: readonly Candidate[],
  { outcome, chances }: Weighed,
  isWhole: boolean,
): string | undefined {
  if (outcome === "differs" || outcome === "none") return undefined;
  if (outcome !== "matched") return isTied(indexed, fitting) ? undefined : matchedBy(indexed, query);
  if (!isWhole) return matchedBy(indexed, query);
  const likeliest = found[chances.indexOf(Math.max(...chances))];
  if (isOtherNumber(likeliest)) return undefined;
  return endsClearly(indexed, likeliest, found) ? refOf(likeliest) : matchedBy(indexed, query);
}

/** True when a text ends with a number that is complete, but for a code that may go on, and not so in the line. */
function isOtherNumber(likeliest: Candidate): boolean {
  const { tokens, explained } = likeliest;
  const last = tokens.length - 1;
  const { by, as } = explained[last];
  if (tokens[last].kind !== "number" || by !== NONE || as) return false;
  const finished = { ...likeliest, tokens: tokens.with(last, { ...tokens[last], unfinished: false }) };
  return contradictionsOf(finished).some((one) => !isOnlyUnit(one));
}

const isHouse = ({ as, how }: Explained) => as === "house" && how === "same";

/** What lies this far behind the best is not what is meant, however the last word is read. */
const BEHIND = 0.1;
/** Characters of a complete word, and of a beginning, that are few enough to be one of anything. */
const SHORT = { word: 1, beginning: 2 };

/**
 * True when the last word of a text is whole in the likeliest line, or begins a word of it alone, and a number in the
 * text is the house's or a name's.
 */
function endsClearly(indexed: Indexed, likeliest: Candidate, found: readonly Candidate[]): boolean {
  const { tokens, explained, score } = likeliest;
  // a number may be another one's between two houses, which is offered to nobody who types
  if (tokens.some(({ house }, t) => house && !isHouse(explained[t]) && explained[t].by === NONE)) return false;
  const last = tokens.length - 1;
  // no other line has the number in the name
  if (isHouse(explained[last])) return found.every((one) => one.explained[one.tokens.length - 1].by === NONE);
  const { kind, text, isCut } = tokens[last];
  if (isCut || text.length <= SHORT.word) return false;
  const mayBegin = kind === "word" && text.length > SHORT.beginning;
  const isAlone = mayBegin && found.every((one) => one === likeliest || one.score < score - BEHIND);
  return (
    isLastTakenAs(likeliest, ({ node, quality }) => node === undefined && quality >= QUALITY.spelling) ||
    (isAlone &&
      isLastTakenAs(likeliest, ({ node, quality }) => node !== undefined && quality === QUALITY.prefix) &&
      isOnlyBegun(indexed, tokens))
  );
}

/**
 * True for a last word that to `forward` too is no more than the beginning of a name: as a whole it is like no other word,
 * and it does not begin one that was written before it.
 */
function isOnlyBegun(indexed: Indexed, tokens: readonly QueryToken[]): boolean {
  const last = tokens[tokens.length - 1];
  const isSame = (one: TermRange, other: TermRange) => one.from < other.to && other.from < one.to;
  const begun = last.ranges.filter(({ node }) => node !== undefined);
  const isWritten = tokens.some(
    (token) => token !== last && token.ranges.some((one) => begun.some((other) => isSame(one, other))),
  );
  return !isWritten && !isLikeAnother(indexed, last);
}

/** True when the last word of a text can be taken in some way for one of the name that explains it. */
function isLastTakenAs({ indexed, tokens, explained }: Candidate, is: (range: TermRange) => boolean): boolean {
  const last = tokens.length - 1;
  const { by } = explained[last];
  if (by === NONE) return false;
  const { thingTerm, termOfThing } = indexed.segment.sections;
  const ranges = tokens[last].ranges.filter(is);
  for (let i = thingTerm[by]; i < thingTerm[by + 1]; i++)
    if (ranges.some(({ from, to }) => termOfThing[i] >= from && termOfThing[i] < to)) return true;
  return false;
}

function refOf({ indexed: { segment }, thing, address }: Candidate): string {
  return address === NONE ? segment.thingRef(thing) : segment.addressRef(address, thing);
}

/** What lies this near to the best has the same words explained in the same way. */
const TIED = 1e-6;

/**
 * True where nothing is offered but streets or numbers in them, two of which say all that was typed equally well, and not
 * by a word that is only begun in a way that `forward` does not know: it cannot tell them apart either, and need not be
 * asked.
 */
function isTied(indexed: Indexed, fitting: readonly Candidate[]): boolean {
  if (!fitting.length) return false;
  const best = fitting.reduce((most, { score }) => Math.max(most, score), 0);
  const tied = fitting.filter(({ score }) => score > best - TIED);
  const [{ tokens }] = tied;
  const { kind, text } = tokens[tokens.length - 1];
  return (
    tied.length > 1 &&
    (kind === "number" || text.length > SHORT.word) &&
    fitting.every(({ indexed: { segment }, thing }) => segment.isStreet(thing)) &&
    !isLastTakenAs(tied[0], ({ node, quality }) => node !== undefined && quality < QUALITY.prefix) &&
    !tokens.some((token) => token.kind === "word" && isUnknown(token)) &&
    (isLastTakenAs(tied[0], ({ node }) => node === undefined) || isOnlyBegun(indexed, tokens))
  );
}

/** The numbers of a street or the units of a building; undefined inside anything else. */
function suggestInside(indexed: Indexed, query: SuggestQuery, limit: number): Suggestion[] | undefined {
  for (const layer of indexed.layers) {
    const filter = compileFilter(layer.segment, query);
    const { building, street } = filter;
    if (building < 0 && (street < 0 || !layer.segment.isStreet(street))) continue;
    if (!filter.allows(street) || !filter.allowsKind("address")) return [];
    const lines = building >= 0 ? suggestUnits(layer, query, building) : suggestNumbers(layer, query, street);
    return lines.filter(({ at }) => filter.allowsPosition(at)).slice(0, limit);
  }
  return undefined;
}

/** @param sure ref of the line that is meant without a doubt, if there is one */
function answer(suggestions: Suggestion[], sure?: string): SuggestAnswer {
  const meant = sure === undefined ? undefined : suggestions.find(({ ref }) => ref === sure);
  if (meant) meant.sure = true;
  return { outcome: suggestions.length ? "matched" : "none", suggestions };
}

/** The address at a typed position, as `forward` reads it. */
function atPosition(indexed: Indexed, query: SuggestQuery, at: Position): SuggestAnswer {
  const { outcome, candidates } = reverse(indexed, { ...query, at, limit: 1 });
  return answer(
    candidates.map((near) => asLine(indexed, near)),
    outcome === "matched" ? candidates[0].ref : undefined,
  );
}

function asLine({ layers }: Indexed, { ref, kind, at }: NearRecord): Suggestion {
  const { segment } = layers.find((layer) => layer.segment.resolve(ref))!;
  const { thing, address = NONE } = segment.resolve(ref)!;
  const { line, within } = suggestionLine(segment, thing, partsOf(segment, thing, address, {}));
  return { ref, kind, line, within, marks: [], at, more: 0 };
}

function toSuggestion(query: SuggestQuery, candidate: Candidate): Suggestion {
  const { indexed, thing, address } = candidate;
  const { segment } = indexed;
  const parts = partsOf(segment, thing, address, { langs: query.langs, typed: query.q });
  const { line, within } = suggestionLine(segment, thing, parts);
  return {
    ref: refOf(candidate),
    kind: address === NONE ? segment.kindOf(thing) : "address",
    line,
    within,
    marks: marksIn(line, glossOf(indexed, candidate, parts, query.q)),
    at: address === NONE ? segment.positionOf(thing) : segment.addressPosition(address),
    more: inside(segment, thing, address),
  };
}

/** How many numbers a street has, or units a building. */
function inside(segment: Segment, thing: number, address: number): number {
  if (!segment.isStreet(thing)) return 0;
  const [from, to] = address === NONE ? segment.addressesOf(thing) : segment.unitsOf(thing, address);
  return from < to && (address === NONE || segment.detailOf(address).unit === undefined) ? to - from : 0;
}

/** The numbers of a street, or those that begin with the typed digits. */
function suggestNumbers(indexed: Indexed, query: SuggestQuery, street: number): Suggestion[] {
  const { segment } = indexed;
  const digits = /\d+[^\s,]*/.exec(query.q)?.[0].toLowerCase() ?? "";
  const most = query.box ? Infinity : (query.limit ?? DEFAULT_LIMIT);
  const addresses = numbersStarting(segment, street, digits, most);
  return addresses.map((address) => toLine(indexed, query, street, address, digits));
}

/** The units of a building, or those with a word that begins like the last one typed. */
function suggestUnits(indexed: Indexed, query: SuggestQuery, building: number): Suggestion[] {
  const { segment } = indexed;
  const street = segment.streetOf(building);
  const wanted = /[\p{L}\p{N}]+$/u.exec(query.q)?.[0].toLowerCase() ?? "";
  const [from, to] = segment.unitsOf(street, building);
  const addresses: number[] = [];
  const most = query.box ? Infinity : (query.limit ?? DEFAULT_LIMIT);
  for (let address = from; address < to && addresses.length < most; address++) {
    const words =
      segment
        .detailOf(address)
        .unit?.toLowerCase()
        .split(/[^\p{L}\p{N}]+/u) ?? [];
    if (words.some((word) => word.startsWith(wanted))) addresses.push(address);
  }
  return addresses.map((address) => toLine(indexed, query, street, address, wanted));
}

function toLine({ segment }: Indexed, query: SuggestQuery, street: number, address: number, typed: string): Suggestion {
  const parts = partsOf(segment, street, address, { langs: query.langs, typed: query.q });
  const { line, within } = suggestionLine(segment, street, parts);
  const at = typed ? line.toLowerCase().indexOf(typed) : -1;
  return {
    ref: segment.addressRef(address, street),
    kind: "address",
    line,
    within,
    marks: at < 0 ? [] : [[at, at + typed.length]],
    at: segment.addressPosition(address),
    more: inside(segment, street, address),
  };
}
