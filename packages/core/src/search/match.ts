import { NONE, type Segment } from "../index/index.ts";
import { MAX_TOKENS } from "../text/index.ts";
import type { QueryToken } from "./interpret.ts";

/** Qualities are kept in a byte: 200 is 1. */
const STEPS = 200;

/**
 * Notes, for one lookup, how well each typed word fits each thing. One byte for every thing and word, allocated once
 * for a segment and cleared by the list of what was touched. What the areas around give is worked out once an area.
 */
export class Matches {
  readonly touched: number[] = [];
  /** Best quality (in steps) that an area or what is around it gives to each word, and which area gives it. */
  readonly #aroundQuality: Uint8Array;
  readonly #aroundBy: Uint32Array;
  readonly #aroundKnown: Uint8Array;
  readonly #areasKnown: number[] = [];
  readonly #quality: Uint8Array;
  readonly #isTouched: Uint8Array;
  /** What a thing's own names give to all words together, each by its weight. */
  readonly #ownSum: Float32Array;
  /** The same of an area and all that is around it, worked out once an area. */
  readonly #areaSum: Float32Array;
  #weights: number[] = [];
  /** The most that a house number can add. */
  #house = 0;
  #tokens = 0;

  constructor(private readonly segment: Segment) {
    const { things, areas } = segment.meta.counts;
    this.#quality = new Uint8Array(things * MAX_TOKENS);
    this.#isTouched = new Uint8Array(things);
    this.#ownSum = new Float32Array(things);
    this.#aroundQuality = new Uint8Array(areas * MAX_TOKENS);
    this.#aroundBy = new Uint32Array(areas * MAX_TOKENS);
    this.#aroundKnown = new Uint8Array(areas);
    this.#areaSum = new Float32Array(areas);
  }

  /**
   * Goes through the postings of every reading of every word.
   * @param heads how many things of each word are looked at; postings begin with the most important
   */
  fill(tokens: readonly QueryToken[], heads = Infinity): void {
    this.#clear();
    this.#tokens = tokens.length;
    this.#weights = tokens.map(({ weight }) => weight);
    this.#house = Math.max(0, ...tokens.filter(({ house }) => house).map(({ weight }) => weight));
    const { termPosting, posting, thingKind } = this.segment.sections;
    for (let t = 0; t < tokens.length; t++) {
      const { ranges, kinds, weight } = tokens[t];
      for (const { from, to, quality } of ranges) {
        const value = Math.round(quality * STEPS);
        for (let term = from, p = termPosting[from]; p < termPosting[to]; p++) {
          if (p === termPosting[term + 1]) term++;
          if (p - termPosting[term] >= heads) {
            p = termPosting[++term] - 1;
            continue;
          }
          const thing = posting[p];
          if (!(kinds & (1 << thingKind[thing]))) continue;
          const at = thing * MAX_TOKENS + t;
          if (this.#quality[at] < value) {
            this.#ownSum[thing] += (weight * (value - this.#quality[at])) / STEPS;
            this.#quality[at] = value;
          }
          if (!this.#isTouched[thing]) {
            this.#isTouched[thing] = 1;
            this.touched.push(thing);
          }
        }
      }
    }
  }

  /** The most that a thing can explain of all words, by weight; cheap, and never too low. */
  ceiling(thing: number): number {
    const { thingParent, thingPostcode } = this.segment.sections;
    const parent = thingParent[thing];
    const postcode = thingPostcode[thing];
    if (parent !== NONE) this.#workOut(parent);
    const around = (parent === NONE ? 0 : this.#areaSum[parent]) + (postcode === NONE ? 0 : this.#ownSum[postcode]);
    return this.#ownSum[thing] + around + this.#house;
  }

  /** How well a thing's own name fits a word, 0 to 1. */
  own(thing: number, token: number): number {
    return this.#quality[thing * MAX_TOKENS + token] / STEPS;
  }

  /**
   * How well a thing, its postcode or an area around it fits each word: qualities 0 to 1 and the thing that gives
   * them (NONE for nothing); the thing itself before what is around it, the narrow before the broad.
   */
  best(thing: number, qualities: Float64Array, by: Uint32Array): void {
    const { thingParent, thingPostcode } = this.segment.sections;
    const parent = thingParent[thing];
    const postcode = thingPostcode[thing];
    if (parent !== NONE) this.#workOut(parent);
    for (let t = 0; t < this.#tokens; t++) {
      let quality = this.#quality[thing * MAX_TOKENS + t];
      by[t] = quality > 0 ? thing : NONE;
      if (postcode !== NONE && this.#quality[postcode * MAX_TOKENS + t] > quality) {
        quality = this.#quality[postcode * MAX_TOKENS + t];
        by[t] = postcode;
      }
      if (parent !== NONE && this.#aroundQuality[parent * MAX_TOKENS + t] > quality) {
        quality = this.#aroundQuality[parent * MAX_TOKENS + t];
        by[t] = this.#aroundBy[parent * MAX_TOKENS + t];
      }
      qualities[t] = quality / STEPS;
    }
  }

  #workOut(area: number): void {
    if (this.#aroundKnown[area]) return;
    this.#aroundKnown[area] = 1;
    this.#areasKnown.push(area);
    const parent = this.segment.sections.thingParent[area];
    if (parent !== NONE) this.#workOut(parent);
    this.#areaSum[area] = 0;
    for (let t = 0; t < this.#tokens; t++) {
      const own = this.#quality[area * MAX_TOKENS + t];
      const around = parent === NONE ? 0 : this.#aroundQuality[parent * MAX_TOKENS + t];
      this.#aroundQuality[area * MAX_TOKENS + t] = Math.max(own, around);
      this.#areaSum[area] += (this.#weights[t] * Math.max(own, around)) / STEPS;
      this.#aroundBy[area * MAX_TOKENS + t] = own >= around ? area : this.#aroundBy[parent * MAX_TOKENS + t];
    }
  }

  #clear(): void {
    for (const thing of this.touched) {
      this.#isTouched[thing] = 0;
      this.#ownSum[thing] = 0;
      for (let i = thing * MAX_TOKENS; i < thing * MAX_TOKENS + this.#tokens; i++) this.#quality[i] = 0;
    }
    for (const area of this.#areasKnown) this.#aroundKnown[area] = 0;
    this.touched.length = 0;
    this.#areasKnown.length = 0;
  }
}
