import { NONE } from "../index/index.ts";
import { type Candidate, compareCandidates, MARGIN } from "./candidates.ts";
import type { Indexed } from "./indexed.ts";
import { cutCompounds, isUnknown, mendLast, type ReadText } from "./interpret.ts";
import { compileFilter, type Narrowing } from "./query.ts";
import { HOPES, rank } from "./rank.ts";
import { COST, ORDER, QUALITY, TELLS } from "./weights.ts";

/** How a text is to be read. */
export interface SearchRequest {
  /** What was typed; the words have their places in it. */
  text: string;
  /** Reads it against what is stored. @param doubting see `InterpretOptions` */
  read(doubting: boolean): ReadText;
  /** True while the person is typing. */
  completing: boolean;
  /** True where a number between two others is an answer. */
  interpolates: boolean;
  /** How many candidates at most. */
  limit: number;
}

/** A second reading of a text is only requested what it explains as well as the first, but for this. */
const BETTER = 0.03;
/** Things looked at in one lookup: some twenty milliseconds of sixteen words that all are common. */
const MOST_LOOKS = 5000;

/**
 * Ranks what a text may mean, in every way it can be read: as typed, and with words that nothing has cut in two.
 * @param reading the text as it was read against what is stored
 * @returns the best few, best first, whatever their score
 */
export function search(
  indexed: Indexed,
  reading: ReadText,
  { text, read, completing, interpolates, limit }: SearchRequest,
  narrowing: Narrowing,
): Candidate[] {
  const filters = indexed.layers.map(({ segment }) => compileFilter(segment, narrowing, interpolates));
  const layersOf = (read: ReadText) =>
    indexed.layers.map((layer, i) => ({ indexed: layer, tokens: read[i], filter: filters[i] }));
  let all: readonly Candidate[] = [];
  const { segments } = indexed;
  const { near } = narrowing;
  const budget = { looks: MOST_LOOKS };
  // spelt out: copying objects by spreading them took a tenth of a lookup
  const ranked: Ranked = (one, floor, hopes) =>
    rank({ layers: layersOf(one), segments, limit, near, budget, floor, hopes });
  const add = (one: ReadText, hopes: readonly number[]) => {
    let floor = 0;
    for (const { order } of all) floor = Math.max(floor, order - BETTER);
    const found = ranked(one, floor, hopes);
    all = all.length ? [...all, ...found] : found;
  };
  const [tokens] = reading;
  const isByParts = tokens.some(({ part }) => part);
  const cut = isByParts ? undefined : cutCompounds(indexed, reading, completing);
  // the likelier reading first: it spares the other most of the way
  const isLost = tokens.some((token) => token.kind === "word" && isUnknown(token) && !token.role);
  // where a trusted word may be misspelt, that is tried before anything that explains little
  const mayDoubt = tokens.some(({ isTrusted }) => isTrusted);
  const hopes = mayDoubt ? HOPES.slice(0, 2) : HOPES;
  if (cut && isLost) add(cut, hopes);
  add(reading, hopes);
  if (cut && !isLost) add(cut, hopes);
  const isDoubtful = mayDoubt && leavesWords(best(indexed, all, limit)[0]);
  const readings = [reading, ...(cut ? [cut] : [])];
  if (isDoubtful) {
    const doubted = read(true);
    readings.push(doubted);
    // where no word is like another, what was hoped for is not to be had
    const isSame = doubted.every((list, s) =>
      list.every(({ ranges }, t) => ranges.length === reading[s][t].ranges.length),
    );
    add(doubted, isSame && !cut ? HOPES.slice(hopes.length) : HOPES);
  }
  const found = cut || isDoubtful ? best(indexed, all, limit) : [...all];
  return asSpelt(completing ? withMended(indexed, found, readings, ranked, limit) : found, text);
}

/** Ranks what one reading may mean. */
type Ranked = (reading: ReadText, floor: number, hopes: readonly number[]) => Candidate[];

/** Of equals, one whose name is spelt exactly as typed, accents and all, comes before the others: "Tōmoto", not "Tomoto". */
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

/** True for things of the same name, compared by the offsets of their names. */
function hasNameOf(one: Candidate, other: Candidate): boolean {
  const keyOf = ({ indexed: { segment }, thing }: Candidate) =>
    segment.sections.nameText[segment.sections.thingName[thing]];
  return one.indexed === other.indexed && keyOf(one) === keyOf(other);
}

/** What ends with a word misspelt of something far more important, before what the text is only the beginning of. */
function withMended(
  indexed: Indexed,
  found: Candidate[],
  readings: readonly ReadText[],
  ranked: Ranked,
  limit: number,
): Candidate[] {
  if (!found.length) return found;
  const [{ tokens, score, order }] = found;
  const importance = ({ indexed: { segment }, thing }: Candidate) => segment.sections.thingImportance[thing] / 65_535;
  const least = importance(found[0]) + ORDER.tenfold;
  const reading = readings.find((one) => one.some((list) => list === tokens));
  const mended = reading && mendLast(indexed, reading, least);
  if (!mended) return found;
  const all = tokens.reduce((sum, { weight }) => sum + weight, 0);
  const { weight } = tokens[tokens.length - 1];
  // as well explained, but for the error
  const floor = score - ((QUALITY.prefix - QUALITY.spelling) * weight) / all - COST.incomplete;
  const instead = ranked(mended, Math.max(0, floor), [0])
    .filter((one) => importance(one) >= least)
    .map((one) => ({ ...one, order: order + importance(one) * ORDER.importance }));
  return instead.length ? best(indexed, [...instead, ...found], limit) : found;
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
function best({ layers }: Indexed, all: readonly Candidate[], limit: number): Candidate[] {
  const found = new Map<string, Candidate>();
  const layerOf = ({ indexed }: Candidate) => layers.indexOf(indexed);
  for (const candidate of all) {
    const key = `${layerOf(candidate)} ${candidate.thing} ${candidate.address}`;
    if ((found.get(key)?.order ?? -1) < candidate.order) found.set(key, candidate);
  }
  const sorted = [...found.values()].sort(compareCandidates).slice(0, limit);
  return sorted.filter(({ order }) => order >= sorted[0].order - MARGIN);
}
