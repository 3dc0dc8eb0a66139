import { NONE, type Segment } from "../index/index.ts";
import type { QueryToken } from "./interpret.ts";
import { type Marks, STEPS } from "./marks.ts";

/** More ways than these of being explained by what lies around are taken together. */
const MOST_AREAS = 12;
const MOST_CODES = 4;

/** What lies around a thing may give: qualities by word, of areas and of postcodes, within one country. */
interface Around {
  areas: Float64Array[];
  codes: Float64Array[];
}

/**
 * The highest score that a thing not looked at yet can have: what its own words can still give, with what some area
 * and some postcode of one country give together.
 */
export class Bound {
  /** The most that a name not looked at yet can give to each word. */
  readonly left: Float64Array;
  readonly #around: Around[];
  readonly #all: number;
  /** What each word comes to, in the way that is being looked at. */
  readonly #got: Float64Array;
  /** True for words whose areas have been gone through. */
  readonly #isDone: Uint8Array;

  constructor(
    segment: Segment,
    private readonly tokens: readonly QueryToken[],
    marks: Marks,
  ) {
    this.left = new Float64Array(tokens.length);
    this.#got = new Float64Array(tokens.length);
    this.#isDone = new Uint8Array(tokens.length);
    this.#all = tokens.reduce((sum, { weight }) => sum + weight, 0);
    this.#around = aroundByCountry(segment, tokens.length, marks);
  }

  /** What lies in the areas that a word names has been looked at. */
  closeAreas(token: number): void {
    this.#isDone[token] = 1;
  }

  /** All areas may be looked at again. */
  reopen(): void {
    this.#isDone.fill(0);
  }

  /**
   * @param without a word that is not of the thing's own name
   * @param outside a word whose areas the thing does not lie in
   */
  most(without = -1, outside = -1): number {
    let most = 0;
    for (const { areas, codes } of this.#around) {
      for (const area of areas)
        for (const code of codes) most = Math.max(most, this.#with(area, code, without, outside));
    }
    return Math.min(1, most / this.#all);
  }

  #with(area: Float64Array, code: Float64Array, without: number, outside: number): number {
    const { tokens, left } = this;
    const got = this.#got;
    let sum = 0;
    for (let t = 0; t < tokens.length; t++) {
      let quality = 1;
      if (!tokens[t].role) {
        quality = t === without ? 0 : left[t];
        if (code[t] > quality) quality = code[t];
        if (area[t] > quality && t !== outside && !this.#isDone[t]) quality = area[t];
      }
      got[t] = tokens[t].weight * quality;
      sum += got[t];
    }
    // one number may be a house's, with the letter behind it
    let house = 0;
    for (let t = 0; t < tokens.length; t++) {
      const { weight, mate } = tokens[t];
      if (!tokens[t].house) continue;
      const more = weight - got[t] + (mate === undefined ? 0 : tokens[mate].weight - got[mate]);
      if (more > house) house = more;
    }
    return sum + house;
  }
}

function aroundByCountry(segment: Segment, words: number, marks: Marks): Around[] {
  const found = new Map<number, Around>();
  // a thing of any country may be explained by its own words alone
  found.set(NONE, { areas: [new Float64Array(words)], codes: [new Float64Array(words)] });
  for (const thing of marks.touched) {
    const country = segment.countryOf(thing);
    let around = found.get(country);
    if (!around) {
      around = { areas: [], codes: [new Float64Array(words)] };
      found.set(country, around);
    }
    const isArea = segment.isArea(thing);
    const qualities = new Float64Array(words);
    if (isArea) marks.aroundSum(thing);
    for (let t = 0; t < words; t++) qualities[t] = (isArea ? marks.around(thing, t) : marks.named(thing, t)) / STEPS;
    if (isArea) keepBest(around.areas, qualities, MOST_AREAS);
    else keepBest(around.codes, qualities, MOST_CODES);
  }
  for (const around of found.values()) if (!around.areas.length) around.areas.push(new Float64Array(words));
  return [...found.values()];
}

/** Adds qualities to a list of such, where none of the list is at least as good for every word. */
function keepBest(list: Float64Array[], added: Float64Array, most: number): void {
  const isCovered = (a: Float64Array, b: Float64Array) => a.every((quality, t) => quality <= b[t]);
  if (list.some((one) => isCovered(added, one))) return;
  let kept = 0;
  for (const one of list) if (!isCovered(one, added)) list[kept++] = one;
  list.length = kept;
  if (kept < most) list.push(added);
  else for (let t = 0; t < added.length; t++) list[0][t] = Math.max(list[0][t], added[t]);
}
