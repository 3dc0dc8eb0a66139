import { NONE, type Segment } from "../index/index.ts";
import type { QueryToken } from "./interpret.ts";
import { type Marks, STEPS } from "./marks.ts";
import { mayHaveNumber } from "./numbers.ts";
import { QUALITY } from "./weights.ts";

/** More ways than these of being explained by what lies around are taken together. */
const MOST_AREAS = 12;
const MOST_CODES = 4;
/** No bound. */
const UNKNOWN = -1;

/** What lies around a thing may give, within one country. */
interface Around {
  /** Qualities by word, and behind them what each word can be worth as a number of a house there. */
  areas: Float64Array[];
  /** Qualities by word, of postcodes that were typed in full, and of those typed in part. */
  codes: Float64Array[];
  parts: Float64Array[];
}

/**
 * The highest score that a thing not looked at yet can have: what its own words can still give, with what some area
 * and some postcode of one country give together.
 */
export class Bound {
  /** The most that a name not looked at yet can give to each word. */
  readonly #left: Float64Array;
  /** The postcodes that were typed in full. */
  readonly wholeCodes: number[] = [];
  /** Those of which only a part was. */
  readonly partCodes: number[] = [];
  readonly #around: Around[];
  readonly #without: Float64Array;
  #areWholeDone = false;
  #arePartsDone = false;
  readonly #all: number;
  /** What each word comes to, in the way that is being looked at. */
  readonly #got: Float64Array;
  /** True for words whose areas have been gone through. */
  readonly #isDone: Uint8Array;
  /** What was worked out since something changed: the bound without each word, and with all. */
  readonly #known: Float64Array;

  constructor(
    segment: Segment,
    private readonly tokens: readonly QueryToken[],
    marks: Marks,
  ) {
    this.#left = new Float64Array(tokens.length);
    this.#got = new Float64Array(tokens.length);
    this.#isDone = new Uint8Array(tokens.length);
    this.#all = tokens.reduce((sum, { weight }) => sum + weight, 0);
    this.#without = new Float64Array(tokens.length);
    this.#known = new Float64Array(tokens.length + 1).fill(UNKNOWN);
    this.#around = aroundByCountry(segment, tokens, marks, this);
  }

  /** Notes the most that a name not looked at yet can give to each word. */
  setLeft(qualities: Float64Array): void {
    this.#left.set(qualities);
    this.#known.fill(UNKNOWN);
  }

  /** True where a name not looked at yet may have a word. */
  isLeft(token: number): boolean {
    return this.#left[token] > 0;
  }

  /** What lies in the areas that a word names has been looked at. */
  closeAreas(token: number): void {
    this.#isDone[token] = 1;
    this.#known.fill(UNKNOWN);
  }

  /** The streets of the postcodes that were typed in full have been visited. */
  closeWholeCodes(): void {
    this.#areWholeDone = true;
    this.#known.fill(UNKNOWN);
  }

  /** The same of those of which a part was. */
  closePartCodes(): void {
    this.#arePartsDone = true;
    this.#known.fill(UNKNOWN);
  }

  /** All may be looked at again. */
  reopen(): void {
    this.#isDone.fill(0);
    this.#areWholeDone = false;
    this.#arePartsDone = false;
    this.#known.fill(UNKNOWN);
  }

  /** @param without a word that is not of the thing's own name */
  most(without = -1): number {
    const place = without + 1;
    if (this.#known[place] === UNKNOWN) this.#known[place] = this.#workOut(without, -1);
    return this.#known[place];
  }

  /** @param token a word whose areas the thing does not lie in */
  mostOutside(token: number): number {
    return this.#workOut(-1, token);
  }

  #workOut(without: number, outside: number): number {
    let most = 0;
    for (const { areas, codes, parts } of this.#around) {
      for (const area of areas) {
        most = Math.max(most, this.#with(area, this.#without, without, outside));
        if (!this.#arePartsDone)
          for (const code of parts) most = Math.max(most, this.#with(area, code, without, outside));
        if (!this.#areWholeDone)
          for (const code of codes) most = Math.max(most, this.#with(area, code, without, outside));
      }
    }
    return Math.min(1, most / this.#all);
  }

  #with(area: Float64Array, code: Float64Array, without: number, outside: number): number {
    const { tokens } = this;
    const left = this.#left;
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
      const quality = area[tokens.length + t];
      const more = weight * quality - got[t] + (mate === undefined ? 0 : tokens[mate].weight - got[mate]);
      if (more > house) house = more;
    }
    return sum + house;
  }
}

/** @param typed takes the postcodes */
function aroundByCountry(
  segment: Segment,
  tokens: readonly QueryToken[],
  marks: Marks,
  typed: Pick<Bound, "wholeCodes" | "partCodes">,
): Around[] {
  const words = tokens.length;
  const found = new Map<number, Around>();
  const open = (country: number, homes: readonly number[]) => {
    const around: Around = { areas: [new Float64Array(2 * words)], codes: [], parts: [] };
    for (const home of homes) addNumbers(around.areas[0], segment, tokens, home);
    found.set(country, around);
    return around;
  };
  const area = new Float64Array(2 * words);
  const code = new Float64Array(words);
  // a thing of any country may be explained by its own words alone
  open(NONE, segment.countries());
  for (const thing of marks.touched) {
    const country = segment.countryOf(thing);
    const around = found.get(country) ?? open(country, [country]);
    if (segment.isArea(thing)) {
      marks.aroundSum(thing);
      for (let t = 0; t < words; t++) area[t] = marks.around(thing, t) / STEPS;
      area.fill(0, words);
      addNumbers(area, segment, tokens, thing);
      keepBest(around.areas, area, MOST_AREAS);
    } else {
      let own = 0;
      for (let t = 0; t < words; t++) {
        code[t] = marks.named(thing, t) / STEPS;
        if (code[t] >= QUALITY.joined) own++;
      }
      const isWhole = own >= segment.sections.thingWords[thing];
      (isWhole ? typed.wholeCodes : typed.partCodes).push(thing);
      keepBest(isWhole ? around.codes : around.parts, code, MOST_CODES);
    }
  }
  return [...found.values()];
}

/** Notes what each word can be worth as a number of a house in some area. */
function addNumbers(qualities: Float64Array, segment: Segment, tokens: readonly QueryToken[], area: number): void {
  tokens.forEach(({ house }, t) => {
    if (!house) return;
    const quality = mayHaveNumber(segment, area, house) ? 1 : QUALITY.absent;
    qualities[tokens.length + t] = Math.max(qualities[tokens.length + t], quality);
  });
}

/** Adds qualities to a list of such, where none of the list is at least as good for every word. */
function keepBest(list: Float64Array[], added: Float64Array, most: number): void {
  for (const one of list) if (covers(one, added)) return;
  let kept = 0;
  for (const one of list) if (!covers(added, one)) list[kept++] = one;
  list.length = kept;
  if (kept < most) list.push(added.slice());
  else for (let t = 0; t < added.length; t++) list[0][t] = Math.max(list[0][t], added[t]);
}

function covers(one: Float64Array, other: Float64Array): boolean {
  for (let t = 0; t < one.length; t++) if (other[t] > one[t]) return false;
  return true;
}
