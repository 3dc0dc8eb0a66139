import { AREAS, GROUPS, hintOf, NONE, POSTCODES, REST, type Segment } from "../index/index.ts";
import { KINDS } from "../place/index.ts";
import { MAX_TOKENS } from "../text/index.ts";
import type { QueryToken } from "./interpret.ts";

/** Areas whose names are not those of the segment any more. */
export interface ChangedNames {
  areas: ReadonlySet<number>;
  /** How well a typed word fits the names they have now, 0 to 1. */
  fits(token: QueryToken): Iterable<readonly [area: number, quality: number]>;
}

const POSTCODE = 1 << KINDS.indexOf("postcode");

/** A beginning of more words than these is no evidence for a postcode: it is a letter or two. */
const MOST_CODES = 5000;

/** Qualities are kept in a byte: 200 is 1. */
export const STEPS = 200;

/**
 * Notes, for one lookup, how well each typed word fits each word of the dictionary, and the names of areas and
 * postcodes. Allocated once for a segment, cleared by what was touched. Streets, places and houses are not noted here:
 * they are asked one by one (see Scale), by way of their own words.
 */
export class Marks {
  /** Bit set of the typed words that a term fits. */
  readonly termTokens: Uint16Array;
  readonly #termQuality: Uint8Array;
  /** For each typed word the bits of the terms it fits (see `hintOf`). */
  readonly hints = new Uint16Array(MAX_TOKENS);
  /** Areas and postcodes that some word fits. */
  readonly touched: number[] = [];
  readonly #isTouched: Uint8Array;
  readonly #quality: Uint8Array;
  /** Best quality that an area or what is around it gives to each word, and which area gives it. */
  readonly #aroundQuality: Uint8Array;
  readonly #aroundBy: Uint32Array;
  readonly #aroundKnown: Uint8Array;
  /** What an area and all around it give to all words together, each by weight. */
  readonly #aroundSum: Float32Array;
  /** The most that some postcode gives to all words together, each by weight. */
  mostOfPostcode = 0;
  /** Room for one thing that is weighed (see `Taken`), for each word: made once, since making it takes longer than weighing. */
  readonly room = {
    qualities: new Float64Array(MAX_TOKENS),
    by: new Uint32Array(MAX_TOKENS),
    own: new Uint8Array(MAX_TOKENS),
    place: new Uint32Array(MAX_TOKENS),
  };
  readonly #areasKnown: number[] = [];
  /** Lookup in which each thing was last looked at. */
  readonly #seen: Uint32Array;
  #lookup = 0;
  #tokens: readonly QueryToken[] = [];

  constructor(
    private readonly segment: Segment,
    private readonly changed?: ChangedNames,
  ) {
    const { things, areas } = segment.meta.counts;
    const terms = segment.sections.termLength.length;
    this.termTokens = new Uint16Array(terms);
    this.#termQuality = new Uint8Array(terms * MAX_TOKENS);
    this.#isTouched = new Uint8Array(segment.firstStreet);
    this.#quality = new Uint8Array(segment.firstStreet * MAX_TOKENS);
    this.#aroundQuality = new Uint8Array(areas * MAX_TOKENS);
    this.#aroundBy = new Uint32Array(areas * MAX_TOKENS);
    this.#aroundKnown = new Uint8Array(areas);
    this.#aroundSum = new Float32Array(areas);
    this.#seen = new Uint32Array(things);
  }

  /** Notes what the words of a lookup fit. */
  fill(tokens: readonly QueryToken[]): void {
    this.#clear();
    this.#tokens = tokens;
    tokens.forEach((token, t) => {
      for (const { from, to, quality } of token.ranges) this.#fillTerms(t, from, to, Math.round(quality * STEPS));
    });
    tokens.forEach((token, t) => {
      const { ranges, kinds } = token;
      for (const { from, to, quality } of ranges) this.#fillNames(t, from, to, Math.round(quality * STEPS), kinds);
      for (const [area, quality] of this.changed?.fits(token) ?? [])
        if (kinds & (1 << this.segment.sections.thingKind[area])) this.#note(area, t, Math.round(quality * STEPS));
    });
    for (const thing of this.touched)
      if (!this.segment.isArea(thing)) this.mostOfPostcode = Math.max(this.mostOfPostcode, this.namedSum(thing));
  }

  #fillTerms(t: number, from: number, to: number, value: number): void {
    for (let term = from; term < to; term++) {
      this.termTokens[term] |= 1 << t;
      this.hints[t] |= hintOf(term);
      const at = term * MAX_TOKENS + t;
      if (this.#termQuality[at] < value) this.#termQuality[at] = value;
    }
  }

  /** Notes the areas and postcodes that have some words in their names. */
  #fillNames(t: number, from: number, to: number, value: number, kinds: number): void {
    const { termPosting, posting, thingKind } = this.segment.sections;
    const isTooMany = to - from > MOST_CODES;
    for (let term = from; term < to; term++) {
      if (this.#termQuality[term * MAX_TOKENS + t] > value) continue;
      const middle = termPosting[term * GROUPS + POSTCODES];
      for (let p = termPosting[term * GROUPS + AREAS]; p < middle; p++) {
        const area = posting[p];
        if (kinds & (1 << thingKind[area]) && !this.changed?.areas.has(area)) this.#note(area, t, value);
      }
      if (!(kinds & POSTCODE) || isTooMany) continue;
      const end = termPosting[term * GROUPS + REST];
      for (let p = middle; p < end; p++) if (this.#isBegun(posting[p])) this.#note(posting[p], t, value);
    }
  }

  /** The second half of a postcode alone is no evidence: it is the same in many towns. */
  #isBegun(postcode: number): boolean {
    if (this.#isTouched[postcode]) return true;
    const { thingWords, thingTerm, termOfThing } = this.segment.sections;
    if (thingWords[postcode] < 2) return true;
    const last = thingTerm[postcode + 1] - 1;
    return this.termTokens[termOfThing[thingTerm[postcode]]] > 0 || this.termTokens[termOfThing[last]] > 0;
  }

  #untouch(thing: number): void {
    this.#isTouched[thing] = 0;
    this.#quality.fill(0, thing * MAX_TOKENS, (thing + 1) * MAX_TOKENS);
  }

  /** Notes that a word fits the name of an area or postcode. */
  #note(thing: number, t: number, value: number): void {
    const place = thing * MAX_TOKENS + t;
    if (this.#quality[place] < value) this.#quality[place] = value;
    if (this.#isTouched[thing]) return;
    this.#isTouched[thing] = 1;
    this.touched.push(thing);
  }

  /** How well a typed word fits a term, in steps. */
  term(term: number, token: number): number {
    return this.#termQuality[term * MAX_TOKENS + token];
  }

  /** How well a typed word fits the names of an area or a postcode, in steps. */
  named(thing: number, token: number): number {
    return this.#quality[thing * MAX_TOKENS + token];
  }

  /** True for an area or a postcode that some typed word fits. */
  isTouched(thing: number): boolean {
    return this.#isTouched[thing] === 1;
  }

  /** How well a typed word fits an area or what is around it, in steps. */
  around(area: number, token: number): number {
    return this.#aroundQuality[area * MAX_TOKENS + token];
  }

  /** The area that gives this quality: the narrowest. */
  aroundBy(area: number, token: number): number {
    return this.#aroundBy[area * MAX_TOKENS + token];
  }

  /** What the names of an area or postcode give to all words together, each by weight. */
  namedSum(thing: number): number {
    if (!this.#isTouched[thing]) return 0;
    let sum = 0;
    for (let t = 0; t < this.#tokens.length; t++)
      sum += (this.#tokens[t].weight * this.#quality[thing * MAX_TOKENS + t]) / STEPS;
    return sum;
  }

  /** The same of an area with all that is around it; makes `around` and `aroundBy` known for it. */
  aroundSum(area: number): number {
    if (!this.#aroundKnown[area]) this.#workOut(area);
    return this.#aroundSum[area];
  }

  /** Works out an area and what is around it, once a lookup. */
  #workOut(area: number): void {
    if (this.#aroundKnown[area]) return;
    this.#aroundKnown[area] = 1;
    this.#areasKnown.push(area);
    const parent = this.segment.sections.thingParent[area];
    if (parent !== NONE) this.#workOut(parent);
    let sum = 0;
    for (let t = 0; t < this.#tokens.length; t++) {
      const own = this.#quality[area * MAX_TOKENS + t];
      const above = parent === NONE ? 0 : this.#aroundQuality[parent * MAX_TOKENS + t];
      this.#aroundQuality[area * MAX_TOKENS + t] = Math.max(own, above);
      this.#aroundBy[area * MAX_TOKENS + t] = own >= above ? area : this.#aroundBy[parent * MAX_TOKENS + t];
      sum += (this.#tokens[t].weight * Math.max(own, above)) / STEPS;
    }
    this.#aroundSum[area] = sum + 1e-6;
  }

  /** True when it was requested of a thing in this lookup whether it is new. */
  isSeen(thing: number): boolean {
    return this.#seen[thing] === this.#lookup;
  }

  /** True the first time in a lookup that it is asked of a thing. */
  isNew(thing: number): boolean {
    if (this.#seen[thing] === this.#lookup) return false;
    this.#seen[thing] = this.#lookup;
    return true;
  }

  /** Lets everything be new again. */
  forget(): void {
    this.#lookup++;
  }

  #clear(): void {
    this.#lookup++;
    this.#tokens.forEach(({ ranges }, t) => {
      for (const { from, to } of ranges) {
        this.termTokens.fill(0, from, to);
        for (let term = from; term < to; term++) this.#termQuality[term * MAX_TOKENS + t] = 0;
      }
    });
    this.hints.fill(0);
    for (const thing of this.touched) this.#untouch(thing);
    for (const area of this.#areasKnown) this.#aroundKnown[area] = 0;
    this.touched.length = 0;
    this.mostOfPostcode = 0;
    this.#areasKnown.length = 0;
  }
}
