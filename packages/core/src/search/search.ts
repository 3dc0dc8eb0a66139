import { NONE } from "../index/index.ts";
import type { Indexed } from "./indexed.ts";
import { cutCompounds, mendLast, type QueryToken } from "./interpret.ts";
import { compileFilter, type Narrowing } from "./query.ts";
import { type Candidate, HOPES, MARGIN, rank } from "./rank.ts";
import { COST, ORDER, QUALITY, TELLS } from "./weights.ts";

/** How a text is to be read. */
export interface SearchRequest {
  /** What was typed; the words have their places in it. */
  text: string;
  /** Reads it against a dictionary; the words are the same for each. @param doubting see `Manner` */
  read(indexed: Indexed, doubting: boolean): QueryToken[];
  /** True while the person is typing. */
  completing: boolean;
  /** True where a number between two others is an answer. */
  interpolates: boolean;
  /** How many candidates at most. */
  limit: number;
}

/**
 * Ranks what a text may mean, in every way it can be read: as typed, and with words that nothing has cut in two.
 * @param tokens the text as it was read against what is stored
 * @returns the best few, best first, whatever their score
 */
export function search(
  indexed: Indexed,
  tokens: QueryToken[],
  wanted: SearchRequest,
  narrowing: Narrowing,
): Candidate[] {
  const found = indexed.layers.map((layer) => {
    // what a word tells is for the whole to say, not for the few changed records
    const read = (doubting: boolean) =>
      layer === indexed ? wanted.read(layer, doubting) : weighed(wanted.read(layer, doubting), tokens);
    return searchLayer(layer, layer === indexed ? tokens : read(false), () => read(true), wanted, narrowing);
  });
  if (found.length === 1) return asSpelt(found[0], wanted.text);
  const all = found.flat().sort((a, b) => b.order - a.order);
  return asSpelt(
    all.slice(0, wanted.limit).filter(({ order }) => order >= all[0].order - MARGIN),
    wanted.text,
  );
}

/** Of equals, one whose name has the very letters that were typed, accents and all, comes before the others: "Tōmoto", not "Tomoto". */
function asSpelt(found: Candidate[], text: string): Candidate[] {
  if (found.length < 2 || found[1].order < found[0].order - ORDER.spelt) return found;
  const tied = found.filter(({ order }) => order >= found[0].order - ORDER.spelt);
  if (tied.every((one) => hasNameOf(one, found[0]))) return found;
  const plain = (letters: string) => letters.toLowerCase().normalize("NFC");
  const isSpelt = ({ indexed: { segment }, thing, tokens, explained }: Candidate) => {
    const own = tokens.filter((_, t) => explained[t].by === thing);
    const names = segment.namesOf(thing).map(({ name }) => plain(name));
    return (
      own.length > 0 &&
      own.every(({ start, end }) => names.some((name) => name.includes(plain(text.slice(start, end)))))
    );
  };
  const orderOf = new Map(found.map((one) => [one, one.order + (isSpelt(one) ? ORDER.spelt : 0)]));
  return found.sort((a, b) => orderOf.get(b)! - orderOf.get(a)!);
}

/** True for things that are called the same, told by where their names are kept. */
function hasNameOf(one: Candidate, other: Candidate): boolean {
  const keyOf = ({ indexed: { segment }, thing }: Candidate) =>
    segment.sections.nameText[segment.sections.thingName[thing]];
  return one.indexed === other.indexed && keyOf(one) === keyOf(other);
}

const weighed = (tokens: readonly QueryToken[], as: readonly QueryToken[]) =>
  tokens.map((token, i) => ({ ...token, weight: as[i].weight }));

/** A second reading of a text is only requested what it explains as well as the first, but for this. */
const BETTER = 0.03;
/** Things looked at in one lookup: some twenty milliseconds of sixteen words that all are common. */
const MOST_LOOKS = 5000;

function searchLayer(
  indexed: Indexed,
  tokens: readonly QueryToken[],
  doubt: () => readonly QueryToken[],
  { completing, interpolates, limit }: SearchRequest,
  narrowing: Narrowing,
): Candidate[] {
  const filter = compileFilter(indexed.segment, narrowing, interpolates);
  const all: Candidate[] = [];
  const budget = { looks: MOST_LOOKS };
  const add = (reading: readonly QueryToken[], hopes: readonly number[]) => {
    const floor = all.reduce((most, { order }) => Math.max(most, order - BETTER), 0);
    all.push(...rank({ indexed, tokens: reading, filter, limit, near: narrowing.near, floor, hopes, budget }));
  };
  const isByParts = tokens.some(({ part }) => part);
  const cut = isByParts ? undefined : cutCompounds(indexed, tokens, completing);
  // the likelier reading first: it spares the other most of the way
  const isLost = tokens.some(({ kind, ranges, role }) => kind === "word" && !ranges.length && !role);
  // where a trusted word may be misspelt, that is tried before anything that explains little
  const mayDoubt = tokens.some(({ isTrusted }) => isTrusted);
  const hopes = mayDoubt ? HOPES.slice(0, 2) : HOPES;
  if (cut && isLost) add(cut, hopes);
  add(tokens, hopes);
  if (cut && !isLost) add(cut, hopes);
  const isDoubtful = mayDoubt && leavesWords(best(all, limit)[0]);
  if (isDoubtful) {
    const doubted = doubt();
    // where no word is like another, what was hoped for is not to be had
    const isSame = doubted.every(({ ranges }, t) => ranges.length === tokens[t].ranges.length);
    add(doubted, isSame && !cut ? HOPES.slice(hopes.length) : HOPES);
  }
  const found = cut || isDoubtful ? best(all, limit) : all;
  return completing ? withMended(indexed, found, { filter, limit, near: narrowing.near, budget }) : found;
}

/** What ends with a word misspelt of something far more important, before what the text is only the beginning of. */
function withMended(
  indexed: Indexed,
  found: Candidate[],
  params: Pick<Parameters<typeof rank>[0], "filter" | "limit" | "near" | "budget">,
): Candidate[] {
  if (!found.length) return found;
  const [{ tokens, score, order }] = found;
  const importance = ({ thing }: Candidate) => indexed.segment.sections.thingImportance[thing] / 65_535;
  const least = importance(found[0]) + ORDER.tenfold;
  const mended = mendLast(indexed, tokens, least);
  if (!mended) return found;
  const all = tokens.reduce((sum, { weight }) => sum + weight, 0);
  const { weight } = tokens[tokens.length - 1];
  // as well explained, but for the error
  const floor = score - ((QUALITY.prefix - QUALITY.spelling) * weight) / all - COST.incomplete;
  const instead = rank({ indexed, tokens: mended, ...params, floor: Math.max(0, floor), hopes: [0] })
    .filter((one) => importance(one) >= least)
    .map((one) => ({ ...one, order: order + importance(one) * ORDER.importance }));
  return instead.length ? best([...instead, ...found], params.limit) : found;
}

/** True when the best that was found leaves a word over that is spelt like one of the dictionary. */
function leavesWords(candidate: Candidate | undefined): boolean {
  if (!candidate) return true;
  const { tokens, explained } = candidate;
  return tokens.some(
    ({ isTrusted, weight }, t) => isTrusted && weight > TELLS.nothing && explained[t].by === NONE && !explained[t].as,
  );
}

/** The best few, each thing once. */
function best(all: readonly Candidate[], limit: number): Candidate[] {
  const found = new Map<string, Candidate>();
  for (const candidate of all) {
    const key = `${candidate.thing} ${candidate.address}`;
    if ((found.get(key)?.order ?? -1) < candidate.order) found.set(key, candidate);
  }
  const sorted = [...found.values()].sort((a, b) => b.order - a.order || a.thing - b.thing).slice(0, limit);
  return sorted.filter(({ order }) => order >= sorted[0].order - MARGIN);
}
