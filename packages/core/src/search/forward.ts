import { type Position, readPosition } from "../geo/index.ts";
import { NONE, type Segment } from "../index/index.ts";
import { type Difference, type Outcome, PARTS, type PartName, profileOf } from "../place/index.ts";
import { addressIn, MAX_TOKENS } from "../text/index.ts";
import { advise, partIn } from "./advice.ts";
import type { Candidate } from "./candidates.ts";
import { type Contradiction, contradictionsOf, differencesOf, shareTakenTwice } from "./contradictions.ts";
import { type Gloss, glossOf, withScripts } from "./gloss.ts";
import type { Indexed } from "./indexed.ts";
import { interpret, isUnknown, type QueryToken, type ReadText, stretchesOf } from "./interpret.ts";
import type { ForwardQuery } from "./query.ts";
import {
  type AnswerRecord,
  type BriefRecord,
  brief,
  briefBetween,
  describe,
  describeBetween,
  type Shown,
} from "./record.ts";
import { reverse } from "./reverse.ts";
import { type SearchRequest, search } from "./search.ts";
import { profileFor, type Reading, splitByProfile } from "./unmatched.ts";
import { weigh } from "./verdict.ts";
import { TELLS, VERDICT } from "./weights.ts";

/** A record that may be meant, with why. */
export interface ScoredRecord extends AnswerRecord {
  /**
   * The chance, 0 to 1, that this is the record that was meant; the chance that none of those returned is meant is subtracted, so
   * that the scores of all candidates are at most 1 together.
   */
  score: number;
  /** What was written and is not so in it; empty when there is nothing. */
  differences: Difference[];
  gloss: Gloss[];
}

export interface ForwardAnswer {
  outcome: Outcome;
  candidates: ScoredRecord[];
  /** What the person could do, in words, when the answer is not a clear one. */
  advice: string[];
  /** The text split by the shape of the words, where nothing was found. */
  reading?: Reading;
}

/** The record that is meant most likely, by itself. */
export interface LikeliestAnswer {
  outcome: Outcome;
  first: (BriefRecord & { score: number; differences: Difference[] }) | undefined;
  /** How many more may be meant. */
  others: number;
}

const DEFAULT_LIMIT = 5;
/** So many are compared, whatever is wanted of them: how many fit equally well does not depend on that. */
const COMPARED = 16;
/** The same where nothing but the one that is meant is wanted. */
const FEW = 8;

/** Candidates for an address as free text, by parts, or both, best first. */
export function forward(indexed: Indexed, query: ForwardQuery): ForwardAnswer {
  const at = query.q === undefined ? undefined : readPosition(query.q);
  if (at) return atPosition(indexed, query, query.q!, at);
  const meant = meantBy(indexed, query);
  if (!meant)
    return { outcome: "none", candidates: [], advice: [advise(query.langs ?? [], "Enter at least one word.")] };
  const { text, outcome, found } = meant;
  const returned = outcome === "none" ? [] : found.slice(0, query.limit ?? DEFAULT_LIMIT);
  const candidates = returned.map(
    ({ candidate, chance, contradictions = contradictionsOf(candidate) }): ScoredRecord => {
      const record = recordOf(candidate, { langs: query.langs, typed: text }, describe, describeBetween);
      const gloss = withScripts(glossOf(candidate.indexed, candidate, record.parts, text));
      return Object.assign(record, {
        score: chance,
        differences: differencesOf(contradictions, record.parts, text),
        gloss,
      });
    },
  );
  const unknown = outcome === "none" ? unknownIn(indexed, query, text) : [];
  return {
    outcome,
    candidates,
    advice: adviceFor(outcome, unknown, candidates, query.langs ?? []),
    ...(outcome === "none" ? { reading: readingOf(indexed, query, text, unknown) } : {}),
  };
}

/** What `forward` puts first, without all that is not kept of it: a third of a lookup's time. */
export function likeliest(indexed: Indexed, query: ForwardQuery): LikeliestAnswer {
  const at = query.q === undefined ? undefined : readPosition(query.q);
  if (at) {
    const { outcome, candidates } = atPosition(indexed, query, query.q!, at);
    return { outcome, first: candidates[0], others: Math.max(0, candidates.length - 1) };
  }
  const meant = meantBy(indexed, query);
  if (!meant || meant.outcome === "none") return { outcome: "none", first: undefined, others: 0 };
  const { text, outcome, found } = meant;
  const [{ candidate, chance, contradictions = [] }] = found;
  const first = recordOf(candidate, { langs: query.langs, typed: text }, brief, briefBetween);
  const differences = differencesOf(contradictions, first.parts, text);
  return { outcome, first: { ...first, score: chance, differences }, others: found.length - 1 };
}

/** Ref of the one record that a text means, when `forward` is `matched`; undefined when it is not. */
export function matchedBy(indexed: Indexed, query: ForwardQuery): string | undefined {
  const meant = meantBy(indexed, { ...query, limit: FEW }, FEW);
  if (meant?.outcome !== "matched") return undefined;
  const { indexed: layer, thing, address, between } = meant.found[0].candidate;
  if (between) return undefined;
  return address === NONE ? layer.segment.thingRef(thing) : layer.segment.addressRef(address, thing);
}

interface Meant {
  text: string;
  outcome: Outcome;
  /** Likeliest first. */
  found: { candidate: Candidate; chance: number; contradictions: Contradiction[] | undefined }[];
}

/** All that may be meant by a query; undefined when it is empty. */
function meantBy(indexed: Indexed, query: ForwardQuery, compared = COMPARED): Meant | undefined {
  const { text, reading } = readQuery(indexed, query, false);
  const [tokens] = reading;
  if (!tokens.length) return undefined;
  const limit = Math.max(compared, query.limit ?? DEFAULT_LIMIT);
  const ask = (change: (tokens: QueryToken[]) => QueryToken[]) => {
    const read: SearchRequest["read"] = (doubting) => readQuery(indexed, query, doubting).reading.map(change);
    const wanted = { text, read, completing: false, interpolates: true, limit };
    const ranked = search(indexed, reading.map(change), wanted, query);
    const fitting = ranked.filter((candidate) => candidate.score >= VERDICT.found);
    return { fitting, weighed: weigh(fitting.slice(0, compared)) };
  };
  let params = ask((own) => own);
  // another town may have been written than the street lies in: then all that lies in that town comes before it
  if (params.weighed.outcome === "none" && stretchesOf(tokens).includes(1)) {
    const instead = ask(withoutTheRest);
    if (instead.weighed.outcome !== "none") params = instead;
  }
  // the street's word may be the town's as well, where the register has the street without its kind
  if (params.weighed.outcome !== "none" && params.fitting.slice(0, 1).some((best) => shareTakenTwice(best) > 0)) {
    const isKind = (token: QueryToken) => indexed.lexicon.isBareWay(token.text);
    const instead = ask((own) => own.map((token) => (isKind(token) ? { ...token, weight: TELLS.nothing } : token)));
    if (instead.weighed.outcome === "matched") params = instead;
  }
  const { chances, contradictions, outcome } = params.weighed;
  const found = params.fitting.map((candidate, i) => ({
    candidate,
    chance: chances[i] ?? 0,
    contradictions: contradictions[i],
  }));
  return { text, outcome, found: found.sort((a, b) => b.chance - a.chance) };
}

/** The words of the stretch that has a house's number, or of the first; the rest, but for postcodes, tells little. */
function withoutTheRest(tokens: QueryToken[]): QueryToken[] {
  const stretches = stretchesOf(tokens);
  const number = tokens.findIndex(({ house, isCode }) => house && !isCode);
  const own = number < 0 ? 0 : stretches[number];
  const isOwn = (t: number) => stretches[t] === own || tokens[t].isCode || tokens[t].part === "street";
  return tokens.map((token, t) => (isOwn(t) ? token : { ...token, weight: token.weight * TELLS.rest }));
}

/** A position typed as text is a reverse lookup; all of the text was taken for it. */
function atPosition(indexed: Indexed, query: ForwardQuery, text: string, at: Position): ForwardAnswer {
  const { outcome, candidates, advice } = reverse(indexed, { ...query, at });
  return {
    outcome,
    candidates: candidates.map((candidate) => ({
      ...candidate,
      score: 1,
      differences: [],
      gloss: [{ typed: text, span: [0, text.length], how: "same" }],
    })),
    advice:
      outcome === "none"
        ? advice
        : [advise(query.langs ?? [], "Read as a position: {at}.", { at: `${at.lat}, ${at.lon}` })],
  };
}

/** Words that no name holds, as they were typed. */
function unknownIn(indexed: Indexed, query: ForwardQuery, text: string): string[] {
  const [tokens] = readQuery(indexed, query, true).reading;
  return tokens
    .filter((token) => token.kind === "word" && isUnknown(token) && !token.role)
    .map(({ start, end }) => text.slice(start, end));
}

const identityOf = ({ segment, country }: { segment: Segment; country: number }) =>
  segment.sections.thingIdentity[country];

function readingOf(
  { bases, lexicon }: Indexed,
  query: ForwardQuery,
  text: string,
  unknown: string[],
): Reading | undefined {
  const countries = bases
    .flatMap((segment) => segment.countries().map((country) => ({ segment, country })))
    .sort((a, b) => identityOf(a) - identityOf(b))
    .map(({ segment, country }) => ({
      profile: profileOf(segment.countryCode(country)),
      names: segment.namesOf(country).map(({ name }) => name),
    }));
  const inCountries = countries.filter(({ profile }) =>
    query.countries?.some((code) => code.toUpperCase() === profile.code),
  );
  const among = inCountries.length ? inCountries : countries;
  if (!among.length) return undefined;
  if (query.q === undefined && query.parts) {
    const parts = Object.fromEntries(Object.entries(query.parts).map(([part, name]) => [part, { name }]));
    return { country: among[0].profile.code, parts, unknown, gloss: [] };
  }
  const address = addressIn(text);
  return { ...splitByProfile(address, profileFor(address, among), lexicon, text), unknown };
}

function recordOf<T>(
  candidate: Candidate,
  shown: Shown,
  describeWhole: (...of: Parameters<typeof describe>) => T,
  interpolated: (...of: Parameters<typeof describeBetween>) => T,
): T {
  const { segment } = candidate.indexed;
  const { thing, address, between, tokens, explained } = candidate;
  const number = tokens[explained.findIndex(({ as }) => as === "house")]?.house;
  return between && number
    ? interpolated(segment, thing, between, number, shown)
    : describeWhole(segment, thing, address, shown);
}

/** Towns that are named at most. */
const TOWNS_NAMED = 3;

/** The advice where all that is returned lies in another town than was written: not to add the town once more. */
function elsewhereIn(candidates: readonly ScoredRecord[], langs: readonly string[]): string | undefined {
  const townOf = ({ differences }: ScoredRecord) => differences.find(({ part }) => part === "town");
  const [first] = candidates;
  const town = first && townOf(first);
  if (!town || !candidates.every((one) => townOf(one)?.written === town.written)) return undefined;
  const { street, block, place } = first.parts;
  const name = (street ?? block ?? place)?.name;
  const towns = [...new Set(candidates.flatMap(({ parts }) => parts.town?.name ?? []))].slice(0, TOWNS_NAMED);
  if (!name || !towns.length) return undefined;
  const values = { town: town.written, name, towns: towns.join(", ") };
  return town.how === "unknown"
    ? advise(langs, "There is no town “{town}” in the data. “{name}” is in {towns}.", values)
    : advise(langs, "There is nothing like it in “{town}”. “{name}” is in {towns}.", values);
}

/** Parts that people add to tell records apart, in the order in which they would. */
const ADDED = ["town", "postcode", "county", "region", "country"] as const;

/** What would tell those apart that fit equally well, and was not written yet. */
function whichOf(candidates: readonly ScoredRecord[], langs: readonly string[]): string {
  const likely = candidates.filter(({ score }) => score * VERDICT.factor >= candidates[0].score);
  const isWritten = (part: PartName) => candidates[0].gloss.some((one) => one.part === part);
  const namesOf = (part: PartName) => new Set(likely.map(({ parts }) => parts[part]?.name)).size;
  const added = ADDED.filter((part) => !isWritten(part) && namesOf(part) > 1);
  const telling = added.filter((part) => namesOf(part) === likely.length);
  const [first, second] = telling.length ? telling : added;
  if (likely.length < 2) return advise(langs, "Several match equally well: enter more of the address.");
  if (namesOf("street") === likely.length)
    return advise(langs, "Several streets match equally well: enter the full street name.");
  if (!first) return advise(langs, "Several match equally well: choose one.");
  const part = partIn(langs, first);
  return second
    ? advise(langs, "Several match equally well: add the {part} or the {other}.", {
        part,
        other: partIn(langs, second),
      })
    : advise(langs, "Several match equally well: add the {part}.", { part });
}

/** Free text and parts become one list of words; the words of a part may only be part of names of the kind. */
function readQuery(indexed: Indexed, query: ForwardQuery, doubting: boolean): { text: string; reading: ReadText } {
  let text = query.q ?? "";
  const reading = interpret(indexed, text, { completing: false, doubting });
  for (const part of PARTS) {
    const given = query.parts?.[part]?.trim();
    if (!given) continue;
    const offset = text.length + (text ? 1 : 0);
    text += (text ? " " : "") + given;
    const hasNumber = part === "street" && !query.parts?.house && !query.parts?.building;
    const own = interpret(indexed, given, { completing: false, doubting, part, hasNumber });
    reading.forEach((tokens, s) => {
      for (const token of own[s]) tokens.push({ ...token, start: token.start + offset, end: token.end + offset });
    });
  }
  return { text, reading: reading.map((tokens) => tokens.slice(0, MAX_TOKENS)) };
}

function adviceFor(
  outcome: Outcome,
  unknown: readonly string[],
  candidates: readonly ScoredRecord[],
  langs: readonly string[],
): string[] {
  const elsewhere = elsewhereIn(candidates, langs);
  if (elsewhere) return [elsewhere];
  if (outcome === "ambiguous") return [whichOf(candidates, langs)];
  if (outcome === "differs") return [advise(langs, "Something differs from what was entered: see the differences.")];
  if (outcome === "matched") return [];
  if (!unknown.length) return [advise(langs, "These words are known, but not together: check the town or postcode.")];
  return [advise(langs, "Unknown: {words}. Check the spelling.", { words: unknown.join(", ") })];
}
