import { type Position, sphereDistance } from "../geo/index.ts";
import { GROUPS, NONE, REST, type Segment } from "../index/index.ts";
import type { Held } from "./held.ts";
import { QUALITY, type QueryToken } from "./interpret.ts";
import { type Marks, STEPS } from "./marks.ts";
import type { Between } from "./numbers.ts";
import type { Filter } from "./query.ts";
import { type Explained, Scale } from "./scale.ts";

/** A record that may be meant. */
export interface Candidate {
  /** Where it was found. */
  held: Held;
  thing: number;
  /** The address in the street, or NONE. */
  address: number;
  /** Where the number lies that was typed and is missing in the street. */
  between?: Between;
  /** 0 to 1: how much of what was typed it explains, and how well. */
  score: number;
  /** Score with importance and nearness: the order. */
  order: number;
  /** For each typed word. */
  explained: Explained[];
  /** The words as they were read. */
  tokens: readonly QueryToken[];
}

const IMPORTANCE_SHARE = 0.03;
const NEARNESS_SHARE = 0.03;
/** What stands this far behind the first is no answer beside it. */
export const MARGIN = 0.15;
/** Metres at which nearness has lost half its weight. */
const NEARNESS_HALF = 5000;

/** Of beginnings with more postings only the most important things are gone through. */
const LONG = 1024;
/** How much later the readings with errors have their turn, and how much quicker a thing is passed inside an area. */
const LATER = 8;
const QUICKER = 4;
/** What lies inside a typed area is gone through before anything else where it is no more than this. */
const FEW_INSIDE = 1000;
/** Things that are looked at one by one in all, the most important first, when nothing ends the search before. */
const MOST_LOOKED_AT = 1500;
/** Most things inside the areas that were typed that are gone through one by one. */
const MOST_INSIDE = 8000;
/** Most postcodes whose streets are gone through. */
const MOST_POSTCODES = 100;
/** An area this small around the nearness clue is gone through whole. */
const MOST_AROUND = 3000;

/** The dictionary words of one reading of one typed word, and the things they find. */
interface Driver {
  token: number;
  from: number;
  to: number;
  quality: number;
  node?: number;
  /** How many postings. */
  size: number;
}

/**
 * Ranks the things that a reading of a text may mean; keeps the best few, best first, equal ones by number.
 *
 * Every answer has at least one of its own words typed, so the postings of the typed words hold them all. They are
 * gone through from the rarest word to the most common, and no further than something can still come among the best:
 * what was not seen yet cannot have the words that are done, and in each posting list the most important come first.
 */
export function rank(
  held: Held,
  tokens: readonly QueryToken[],
  filter: Filter,
  limit: number,
  near?: Position,
): Candidate[] {
  held.marks.fill(tokens);
  return new Ranking(held, tokens, filter, limit, near).run();
}

/** What lies inside the areas that a word may name. */
interface Inside {
  token: number;
  ranges: [from: number, to: number][];
  total: number;
}

class Ranking {
  readonly #scale: Scale;
  readonly #kept: Candidate[] = [];
  /** The most that a name not looked at yet can give to each word, and the most that an area or postcode can. */
  readonly #left: Float64Array;
  readonly #inArea: Float64Array;
  readonly #inPostcode: Float64Array;
  readonly #house: number;
  readonly #nearest: number;
  #looked = 0;

  private readonly segment: Segment;
  private readonly marks: Marks;

  constructor(
    private readonly held: Held,
    private readonly tokens: readonly QueryToken[],
    private readonly filter: Filter,
    private readonly limit: number,
    private readonly near?: Position,
  ) {
    this.segment = held.segment;
    this.marks = held.marks;
    this.#scale = new Scale(this.segment, tokens, this.marks);
    this.#left = new Float64Array(tokens.length);
    this.#inArea = new Float64Array(tokens.length);
    this.#inPostcode = new Float64Array(tokens.length);
    this.#house = tokens.reduce((most, { house, weight }) => Math.max(most, house ? weight : 0), 0);
    this.#nearest = near ? NEARNESS_SHARE : 0;
  }

  run(): Candidate[] {
    const { marks } = this;
    this.#noteAround();
    for (const thing of marks.touched) this.#consider(thing);
    if (this.#house > 0) this.#goThroughPostcodes();
    const drivers = this.#drivers();
    const insides = this.#insides();
    let isNearDone = !this.near;
    for (let i = 0; i < drivers.length; i++) {
      const { size } = drivers[i];
      this.#setLeft(drivers, i);
      if (this.#isBeyond(this.#bound(), 1)) break;
      while (insides.length && insides[0].total < Math.max(FEW_INSIDE, size * QUICKER))
        this.#goInside(insides.shift()!);
      if (!isNearDone && size > LONG) {
        isNearDone = true;
        this.#goAround(this.near!);
      }
      if (this.#isBeyond(this.#bound(), 1)) break;
      this.#goThrough(drivers[i]);
    }
    return this.#kept.filter(({ order }) => order >= this.#kept[0].order - MARGIN);
  }

  /** A postcode and a number alone may mean a house: "12, HT4 29". */
  #goThroughPostcodes(): void {
    const { segment, marks } = this;
    const { postcodeStreet, streetOfPostcode } = segment.sections;
    const isWhole = (postcode: number) =>
      this.#scale.ownWords(postcode) >= segment.sections.thingWords[postcode] &&
      this.tokens.some((_, t) => marks.named(postcode, t) >= QUALITY.joined * STEPS);
    const postcodes = marks.touched.filter((thing) => segment.isPostcode(thing) && isWhole(thing));
    if (postcodes.length > MOST_POSTCODES) return;
    for (const postcode of postcodes) {
      const place = postcode - segment.firstPostcode;
      for (let i = postcodeStreet[place]; i < postcodeStreet[place + 1]; i++) this.#consider(streetOfPostcode[i], true);
    }
  }

  /** All readings of all words, from the fewest things found to the most. */
  #drivers(): Driver[] {
    const { termPosting } = this.segment.sections;
    const drivers = this.tokens.flatMap(({ ranges }, token) =>
      ranges.map(({ from, to, quality, node }): Driver => {
        let size = 0;
        for (let term = from; term < to; term++)
          size += termPosting[term * GROUPS + REST + 1] - termPosting[term * GROUPS + REST];
        return { token, from, to, quality, node, size };
      }),
    );
    const turn = ({ size, quality }: Driver) => (quality < QUALITY.spelling + 1e-9 ? size * LATER : size);
    return drivers
      .filter(({ size }) => size > 0)
      .sort((a, b) => turn(a) - turn(b) || a.token - b.token || a.from - b.from);
  }

  /** Notes what the readings from some driver on can still give. */
  #setLeft(drivers: readonly Driver[], from: number): void {
    this.#left.fill(0);
    for (let i = from; i < drivers.length; i++) {
      const { token, quality } = drivers[i];
      if (quality > this.#left[token]) this.#left[token] = quality;
    }
  }

  /** The highest score that a thing not looked at yet can have. */
  #bound(): number {
    const { tokens } = this;
    let sum = 0;
    let house = 0;
    for (let t = 0; t < tokens.length; t++) {
      const { weight, role } = tokens[t];
      const most = role ? 1 : Math.max(this.#left[t], this.#inArea[t], this.#inPostcode[t]);
      sum += weight * most;
      if (tokens[t].house) house = Math.max(house, weight * (1 - most));
      if (tokens[t].mate !== undefined) house = Math.max(house, weight * (1 - most) + 1);
    }
    return Math.min(1, (sum + house) / this.#scale.all);
  }

  /** True when a score, with some importance (0 to 1), cannot come among the best any more. */
  #isBeyond(score: number, importance: number): boolean {
    if (this.#kept.length === 0) return false;
    const last = this.#kept.length < this.limit ? 0 : this.#kept[this.limit - 1].order;
    const least = Math.max(last, this.#kept[0].order - MARGIN);
    return score + importance * IMPORTANCE_SHARE + this.#nearest < least - 1e-6;
  }

  /** Notes what the typed areas and postcodes can give. */
  #noteAround(): void {
    const { marks, tokens, segment } = this;
    for (const thing of marks.touched) {
      const most = segment.isArea(thing) ? this.#inArea : this.#inPostcode;
      for (let t = 0; t < tokens.length; t++) {
        const quality = marks.named(thing, t) / STEPS;
        if (quality > most[t]) most[t] = quality;
      }
    }
  }

  /** For each word the areas that it may name, and how much lies inside them; the least first. */
  #insides(): Inside[] {
    const { marks, tokens, segment } = this;
    const { thingParent } = segment.sections;
    const isInAnother = (area: number, t: number) => {
      for (let above = thingParent[area]; above !== NONE; above = thingParent[above])
        if (marks.named(above, t) > 0) return true;
      return false;
    };
    const insides = tokens.map((_, token): Inside => {
      const ranges: [number, number][] = [];
      let total = 0;
      for (const area of marks.touched) {
        if (!segment.isArea(area) || marks.named(area, token) === 0 || isInAnother(area, token)) continue;
        for (const range of [segment.streetsInside(area), segment.placesInside(area)]) {
          ranges.push(range);
          total += range[1] - range[0];
        }
        if (total > MOST_INSIDE) break;
      }
      return { token, ranges, total };
    });
    return insides.filter(({ total }) => total > 0 && total <= MOST_INSIDE).sort((a, b) => a.total - b.total);
  }

  /** Goes through what lies inside some areas; what is not seen then cannot have the word that names them. */
  #goInside({ token, ranges }: Inside): void {
    for (const [from, to] of ranges) this.#considerRange(from, to);
    this.#inArea[token] = 0;
  }

  #goAround(near: Position): void {
    for (const area of this.segment.areasAt(near)) {
      const ranges = [this.segment.streetsInside(area), this.segment.placesInside(area)];
      if (ranges.reduce((sum, [from, to]) => sum + to - from, 0) > MOST_AROUND) continue;
      for (const [from, to] of ranges) this.#considerRange(from, to);
      return;
    }
  }

  /** Considers the things of a range that have a typed word in their name. */
  #considerRange(from: number, to: number): void {
    const { thingTerm, termOfThing } = this.segment.sections;
    for (let thing = from; thing < to; thing++) {
      for (let i = thingTerm[thing]; i < thingTerm[thing + 1]; i++) {
        if (this.marks.termTokens[termOfThing[i]] === 0) continue;
        this.#consider(thing);
        break;
      }
    }
  }

  #goThrough({ from, to, node, size }: Driver): void {
    const { termPosting, posting, thingOfHead } = this.segment.sections;
    const heads = node !== undefined && size > LONG ? this.segment.headsOf(node) : undefined;
    if (heads) {
      this.#goThroughList(thingOfHead, heads[0], heads[1]);
      return;
    }
    for (let term = from; term < to; term++) {
      this.#goThroughList(posting, termPosting[term * GROUPS + REST], termPosting[term * GROUPS + REST + 1]);
    }
  }

  /** Goes through a list whose most important things come first, until the rest cannot come among the best. */
  #goThroughList(list: Uint32Array, from: number, to: number): void {
    const { thingImportance } = this.segment.sections;
    const bound = this.#bound();
    for (let p = from; p < to; p++) {
      const thing = list[p];
      if (this.#isBeyond(bound, thingImportance[thing] / 65_535)) return;
      if (this.#looked >= MOST_LOOKED_AT) return;
      if (this.#consider(thing)) this.#looked++;
    }
  }

  /** Weighs a thing, if it was not looked at yet and nothing forbids it. @returns true when it was weighed */
  #consider(thing: number, byPostcode = false): boolean {
    const { segment, filter } = this;
    const scale = this.#scale;
    if (!this.marks.isNew(thing) || !filter.allows(thing)) return false;
    const ceiling = scale.ceiling(thing, byPostcode);
    const importance = segment.sections.thingImportance[thing] / 65_535;
    if (ceiling === 0 || this.#isBeyond(ceiling, importance)) return true;
    const score = scale.weigh(thing);
    if (score === 0) return true;
    const { address } = scale;
    const isAddress = address !== NONE || (filter.interpolates && scale.between !== undefined);
    if (!filter.allowsKind(isAddress ? "address" : segment.kindOf(thing))) return true;
    const at = address === NONE ? segment.positionOf(thing) : segment.addressPosition(address);
    if (!filter.allowsPosition(at)) return true;
    const order = score + importance * IMPORTANCE_SHARE + (this.near ? nearnessBonus(at, this.near) : 0);
    this.#keep(thing, address, score, order);
    return true;
  }

  #keep(thing: number, address: number, score: number, order: number): void {
    const { segment, tokens, limit } = this;
    const kept = this.#kept;
    if (kept.length === limit && !isBefore(order, thing, kept[limit - 1])) return;
    const explained = this.#scale.explain(thing);
    // a house found by its name is an address of its street
    const owner = thing >= segment.firstHouse ? segment.streetOf(address) : thing;
    const same = address === NONE ? -1 : kept.findIndex((candidate) => candidate.address === address);
    if (same >= 0) {
      if (kept[same].order >= order) return;
      kept.splice(same, 1);
    }
    let place = kept.length;
    while (place > 0 && isBefore(order, owner, kept[place - 1])) place--;
    const { between } = this.#scale;
    kept.splice(place, 0, { held: this.held, thing: owner, address, score, order, explained, tokens, between });
    if (kept.length > limit) kept.pop();
  }
}

function nearnessBonus(at: Position, near: Position): number {
  return NEARNESS_SHARE * (NEARNESS_HALF / (NEARNESS_HALF + sphereDistance(near, at)));
}

function isBefore(order: number, thing: number, other: Candidate): boolean {
  return order > other.order || (order === other.order && thing < other.thing);
}
