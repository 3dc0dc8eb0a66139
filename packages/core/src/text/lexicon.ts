import { LANGUAGES, type LanguagePack, type NumberRole, type Within } from "./languages/index.ts";
import { countBits, lettersOf } from "./letter-sets.ts";

/** Kinds of street shorter than this are no sign of a compound. */
const SHORTEST_ENDING = 4;
/** Kinds of street shorter than this, and what is written for them, are taken as they are. */
const SHORTEST_WAY = 5;

/** Letters of a name from which on two errors leave no doubt of it. */
const SURE_WITH_TWO = 5;

/** What some languages together say of words. */
export class Lexicon {
  readonly #forms = new Map<string, string[]>();
  readonly #small = new Set<string>();
  readonly #ways = new Set<string>();
  /** Short forms of kinds of street, each with what it is short for. */
  readonly #endings: [short: string, long: string][] = [];
  /** Kinds of street that may be misspelt, with the set of their letters. */
  readonly #longWays: [way: string, letters: number][] = [];
  readonly #before = new Map<string, NumberRole>();
  readonly #after = new Map<string, NumberRole>();
  readonly #withinBefore = new Set<string>();
  readonly #withinAfter = new Set<string>();
  /** What lies in a house without a number, word by word, by the last one. */
  readonly #alone = new Map<string, string[][]>();
  readonly #followsStreet = new Set<string>();
  readonly #aloneBegin = new Set<string>();

  constructor(packs: readonly LanguagePack[]) {
    for (const { abbreviations, ordinals = [], small, ways, before, after = {}, within } of packs) {
      for (const [short, long] of [...abbreviations, ...ordinals]) {
        this.#add(short, long);
        this.#add(long, short);
      }
      for (const word of ways) this.#ways.add(word);
      for (const word of small) this.#small.add(word);
      for (const [role, words] of rolesOf(before)) for (const word of words) this.#before.set(word, role);
      for (const [role, words] of rolesOf(after)) for (const word of words) this.#after.set(word, role);
      if (within) this.#addWithin(within);
    }
    for (const way of this.#ways) if (way.length >= SHORTEST_WAY) this.#longWays.push([way, lettersOf(way)]);
    for (const way of this.#ways)
      for (const form of this.otherForms(way)) if (form.length < way.length) this.#endings.push([form, way]);
  }

  #addWithin({ before = [], after = [], alone, followsStreet }: Within): void {
    for (const word of before) this.#withinBefore.add(word);
    for (const word of after) this.#withinAfter.add(word);
    for (const phrase of alone) {
      if (followsStreet) this.#followsStreet.add(phrase);
      const words = phrase.split(" ");
      this.#aloneBegin.add(words[0]);
      const last = words[words.length - 1];
      this.#alone.set(last, [...(this.#alone.get(last) ?? []), words]);
    }
  }

  #add(word: string, form: string): void {
    const forms = this.#forms.get(word) ?? [];
    if (!forms.includes(form)) this.#forms.set(word, [...forms, form]);
  }

  /** The other written forms of a folded word: what it may be short for, and its short forms. */
  otherForms(word: string): readonly string[] {
    return this.#forms.get(word) ?? [];
  }

  /** True for a word that may be left out or added without changing what is meant. */
  isSmall(word: string): boolean {
    return this.#small.has(word);
  }

  /** True for a word that is nothing but a kind of street, short or long. */
  isBareWay(word: string): boolean {
    return this.#ways.has(word) || this.otherForms(word).some((form) => this.#ways.has(form));
  }

  /** True for a word for a kind of street, short or long, or ends with one ("millgasse"). */
  isWay(word: string): boolean {
    if (this.isBareWay(word)) return true;
    for (const way of this.#ways) if (way.length >= SHORTEST_ENDING && word.endsWith(way)) return true;
    return false;
  }

  /** A compound with the short kind of street at the end written out: "lindenstr" is "lindenstrasse"; by the longest that it may end with. */
  writtenOut(word: string): string[] {
    const fitting = this.#endings.filter(
      ([short]) => word.length >= short.length + SHORTEST_ENDING && word.endsWith(short),
    );
    const longest = Math.max(...fitting.map(([short]) => short.length));
    return fitting.flatMap(([short, long]) => (short.length === longest ? [word.slice(0, -short.length) + long] : []));
  }

  /**
   * True for two compounds of one kind of street that are too far apart to be one name: "storgränd" is no "østergränd", where
   * "bahnhofstrasse" may be meant by "banhofsstrasse". What they share says nothing of which of them is meant.
   */
  isOtherCompound(word: string, held: string): boolean {
    let shared = "";
    for (const way of this.#ways)
      if (way.length > shared.length && word.endsWith(way) && held.endsWith(way)) shared = way;
    if (shared.length < SHORTEST_ENDING) return false;
    const [own, other] = [word.slice(0, -shared.length), held.slice(0, -shared.length)];
    // hardly anybody misspells the first letter
    if (own[0] === other[0] || Math.min(own.length, other.length) >= SURE_WITH_TWO) return false;
    return errorsBetween(own, other) > 1;
  }

  /** True for a word that one error parts from a small one: "dp la" for "de la". */
  isLikeSmall(word: string): boolean {
    if (word.length < 2 || word.length > 4) return false;
    for (const small of this.#small) if (small.length > 1 && errorsBetween(word, small) === 1) return true;
    return false;
  }

  /** True for a short kind of street that one error parts from a word: "ra" for "rua". */
  isLikeWay(word: string, way: string): boolean {
    return word.length > 1 && word.length < SHORTEST_WAY && this.isBareWay(way) && errorsBetween(word, way) === 1;
  }

  /** The kinds of street that a misspelt word of five letters and more may be: two errors are nothing rare in "drive". */
  waysLike(word: string): string[] {
    if (word.length < SHORTEST_WAY) return [];
    const letters = lettersOf(word);
    const found: string[] = [];
    // two errors change at most four letters of a set, which differ for nearly all kinds of street
    for (const [way, words] of this.#longWays)
      if (Math.abs(way.length - word.length) <= 2 && countBits(letters ^ words) <= 4 && errorsBetween(word, way) <= 2)
        found.push(way);
    return found;
  }

  /** What a number behind the word is ("flat 3"), or before it ("3 floor"). */
  roleBefore(word: string): NumberRole | undefined {
    return this.#before.get(word);
  }

  roleAfter(word: string): NumberRole | undefined {
    return this.#after.get(word);
  }

  /** True for a word before a number or a letter of what lies in a house ("Flat 3", "Haus 3"). */
  isBeforeWithin(word: string): boolean {
    return this.#withinBefore.has(word) || isWithin(this.#before.get(word));
  }

  /** True for a word behind what lies in a house: "links", or a floor's own. */
  isAfterWithin(word: string): boolean {
    return this.#withinAfter.has(word) || isWithin(this.#after.get(word)) || isWithin(this.#before.get(word));
  }

  /** True for a word that what lies in a house without a number may begin with. */
  beginsAlone(word: string): boolean {
    return this.#aloneBegin.has(word);
  }

  /** True for what lies in a house without a number and may follow a street's name; "principal" is of the name there. */
  mayFollowStreet(phrase: readonly string[]): boolean {
    return this.#followsStreet.has(phrase.join(" "));
  }

  /** What lies in a house without a number, word by word, that may end with a word. */
  aloneWithin(last: string): readonly (readonly string[])[] {
    return this.#alone.get(last) ?? [];
  }
}

const isWithin = (role: NumberRole | undefined) => role === "unit" || role === "floor";

/** Letters replaced, left out or added, and neighbours swapped, that part two words: the restricted edit distance. */
function errorsBetween(one: string, other: string): number {
  if (Math.abs(one.length - other.length) > 2) return Number.POSITIVE_INFINITY;
  let [before, last]: number[][] = [[], Array.from({ length: other.length + 1 }, (_, i) => i)];
  for (let i = 1; i <= one.length; i++) {
    const row = [i];
    for (let j = 1; j <= other.length; j++) {
      row[j] = Math.min(row[j - 1] + 1, last[j] + 1, last[j - 1] + Number(one[i - 1] !== other[j - 1]));
      const isSwapped = i > 1 && j > 1 && one[i - 1] === other[j - 2] && one[i - 2] === other[j - 1];
      if (isSwapped) row[j] = Math.min(row[j], before[j - 2] + 1);
    }
    [before, last] = [last, row];
  }
  return last[other.length];
}

function rolesOf(roles: LanguagePack["before"]): [NumberRole, readonly string[]][] {
  return Object.entries(roles) as [NumberRole, readonly string[]][];
}

const known = new Map<string, Lexicon>();

/** The words of some languages (BCP 47; script and region do not matter). Languages without a pack add nothing. */
export function lexiconOf(langs: readonly string[]): Lexicon {
  const wanted = new Set(langs.map((lang) => lang.split("-")[0].toLowerCase()));
  const packs = LANGUAGES.filter(({ lang }) => wanted.has(lang));
  const key = packs.map(({ lang }) => lang).join();
  let lexicon = known.get(key);
  if (!lexicon) {
    lexicon = new Lexicon(packs);
    known.set(key, lexicon);
  }
  return lexicon;
}
