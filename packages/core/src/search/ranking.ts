import { type Position, sphereDistance } from "../geo/index.ts";
import { GROUPS, NONE, REST, type Segment } from "../index/index.ts";
import { Bound } from "./bound.ts";
import { ALIKE, type Candidate, leastOf } from "./candidates.ts";
import type { Indexed } from "./indexed.ts";
import type { QueryToken } from "./interpret.ts";
import type { Marks } from "./marks.ts";
import type { Filter } from "./query.ts";
import { Scale, type Taken, type WeighedThing } from "./scale.ts";
import { type Driver, type Inside, insidesOf, isWithin, type List, sortDrivers, streetsOf } from "./ways.ts";
import { ORDER } from "./weights.ts";

/** Of beginnings with more postings only the most important things are gone through. */
const LONG = 1024;
/** How many postings are passed in the time in which one thing of an area is looked at. */
const QUICKER = 4;
/** Things that are looked at one by one in all, the most important first, when nothing ends the search before. */
const MOST_LOOKED_AT = 1500;
/** As many of them in one pass even where the lookup has used up its time. */
const LEAST_LOOKED_AT = 200;
/** What passing a thing counts that lacks a word it would need, and where its hint alone tells so. */
const SKIPPED = 0.1;
const PASSED = 0.02;
/** The hint of a word that may stand for very many. */
const ALL_BITS = 0xffff;
/** Most things inside the areas that were typed that are gone through one by one. */
const MOST_INSIDE = 8000;
/** Most postings that are passed to find those inside the areas that were typed. */
const MOST_PASSED = 16_384;
/** Most postcodes whose streets are gone through. */
const MOST_POSTCODES = 100;
/** An area this small around the nearness clue is searched completely. */
const MOST_AROUND = 3000;

/** How many things a lookup may still visit, in all its passes: no text keeps other lookups waiting. */
interface Budget {
  looks: number;
}

/** A segment that is ranked, and what the words mean in it. */
interface RankedLayer {
  indexed: Indexed;
  tokens: readonly QueryToken[];
  filter: Filter;
}

/** What is to be ranked, and how far. */
export interface RankRequest {
  layers: readonly RankedLayer[];
  /** All segments that the words were read against. */
  segments: readonly Segment[];
  /** How many candidates at most. */
  limit: number;
  near: Position | undefined;
  /** An order below which nothing is wanted. */
  floor: number;
  /** How well something must be explained, as shares of the best that could be, tried one after the other. */
  hopes: readonly number[];
  /** Of the lookup; what this takes is subtracted. */
  budget: Budget;
}

/** Words that a thing must have in its own name to come among the best. */
interface Need {
  /** Of the typed words. */
  bits: number;
  /** For each of them the bits of the terms, where they tell anything. */
  hints: readonly number[];
}

const NO_NEED: Need = { bits: 0, hints: [] };

/** The way through one segment: what in it may be meant, see `rank`. */
export class Ranking {
  readonly #scale: Scale;
  readonly #kept: Candidate[] = [];
  readonly #bound: Bound;
  readonly #mayBeHouse: boolean;
  readonly #nearest: number;
  #drivers: Driver[] = [];
  #looked = 0;
  #mostLooked = MOST_LOOKED_AT;
  /** The order that it takes to come among the best. */
  #leastOrder: number;
  /** The most that a name here can give to each word. */
  readonly left: Float64Array;

  private readonly segment: Segment;
  private readonly marks: Marks;
  private readonly tokens: readonly QueryToken[];
  private readonly near: Position | undefined;

  constructor(
    private readonly layer: RankedLayer,
    private readonly params: RankRequest,
  ) {
    const { indexed, tokens } = layer;
    const { near } = params;
    indexed.marks.fill(tokens);
    this.#leastOrder = params.floor;
    this.tokens = tokens;
    this.near = near;
    this.segment = indexed.segment;
    this.marks = indexed.marks;
    this.#scale = new Scale(this.segment, tokens, this.marks);
    this.#bound = new Bound(this.segment, tokens, this.marks);
    this.#mayBeHouse = tokens.some(({ house }) => house);
    this.#nearest = near ? ORDER.nearness : 0;
    this.#drivers = sortDrivers(this.segment, this.tokens);
    this.left = this.#leftFrom(0);
  }

  /** The highest score that the words allow. @param left the most that a name can give to each */
  mostWith(left: Float64Array): number {
    this.#bound.setLeft(left);
    return this.#bound.most();
  }

  /** The best few that have some order at least. */
  pass(least: number): readonly Candidate[] {
    this.#goThroughAll(least);
    this.params.budget.looks -= this.#looked;
    return this.#kept;
  }

  /** Goes through all that may have some order. */
  #goThroughAll(least: number): void {
    const { marks } = this;
    const drivers = this.#drivers;
    marks.forget();
    this.#kept.length = 0;
    this.#looked = 0;
    this.#mostLooked = Math.max(LEAST_LOOKED_AT, Math.min(MOST_LOOKED_AT, this.params.budget.looks));
    this.#leastOrder = least;
    this.#bound.reopen();
    this.#setLeft(0);
    for (const thing of marks.touched) this.#consider(thing);
    this.#goThroughWholeCodes();
    const insides = insidesOf(this.segment, this.tokens, this.marks);
    let partCodes = streetsOf(this.segment, this.#bound.partCodes);
    let isNearDone = !this.near;
    for (let i = 0; i < drivers.length; i++) {
      const { size, token } = drivers[i];
      this.#setLeft(i);
      if (this.#isBeyond(this.#bound.most(), 1)) break;
      while (insides.length && insides[0].total <= Math.min(MOST_INSIDE, this.#costOf(drivers[i])))
        this.#goInside(insides.shift()!);
      if (partCodes > 0 && partCodes <= Math.min(MOST_INSIDE, this.#costOf(drivers[i]))) {
        partCodes = 0;
        this.#goThroughPartCodes();
      }
      if (!isNearDone && size > LONG) {
        isNearDone = true;
        this.#goAround(this.near!);
      }
      if (this.#isBeyond(this.#bound.most(), 1)) break;
      const around = insides.find((inside) => inside.token !== token);
      this.#goThrough(drivers[i], around);
    }
  }

  /** A postcode and a number alone may mean a house: "12, HT4 29". */
  #goThroughWholeCodes(): void {
    const { wholeCodes } = this.#bound;
    if (wholeCodes.length > MOST_POSTCODES) return;
    for (const postcode of wholeCodes) this.#goThroughStreets(postcode, this.#mayBeHouse);
    this.#bound.closeWholeCodes();
  }

  #goThroughPartCodes(): void {
    for (const postcode of this.#bound.partCodes) this.#goThroughStreets(postcode, false);
    this.#bound.closePartCodes();
  }

  /** @param byPostcode true where a street needs none of its own words typed */
  #goThroughStreets(postcode: number, byPostcode: boolean): void {
    const { postcodeStreet, streetOfPostcode } = this.segment.sections;
    const place = postcode - this.segment.firstPostcode;
    let need = this.#needOf(NONE);
    for (let i = postcodeStreet[place]; i < postcodeStreet[place + 1]; i++) {
      const street = streetOfPostcode[i];
      if (!byPostcode && !isEnough(this.#ownWords(street), need)) continue;
      if (this.#consider(street, byPostcode)) need = this.#needOf(NONE);
    }
  }

  /** Notes what the readings from some driver on can still give. */
  #setLeft(from: number): void {
    this.#bound.setLeft(this.#leftFrom(from));
  }

  #leftFrom(from: number): Float64Array {
    const left = new Float64Array(this.tokens.length);
    for (let i = from; i < this.#drivers.length; i++) {
      const { token, quality } = this.#drivers[i];
      if (quality > left[token]) left[token] = quality;
    }
    return left;
  }

  /** True when a score, with some importance (0 to 1), cannot come among the best any more. */
  #isBeyond(score: number, importance: number): boolean {
    return score + importance * ORDER.importance + this.#nearest < this.#leastOrder - ALIKE;
  }

  /** How many things of an area are looked at in the time in which a list is gone through. */
  #costOf({ token, size }: Driver): number {
    return this.#needOf(token).bits ? size / QUICKER : size;
  }

  /** Goes through what lies inside some areas; what is not seen then cannot have the word that names them. */
  #goInside({ token, ranges }: Inside): void {
    for (let i = 0; i < ranges.length; i += 2) this.#considerRange(ranges[i], ranges[i + 1]);
    this.#bound.closeAreas(token);
  }

  #goAround(near: Position): void {
    for (const area of this.segment.areasAt(near)) {
      const ranges = [this.segment.streetsInside(area), this.segment.placesInside(area)];
      if (ranges.reduce((sum, [from, to]) => sum + to - from, 0) > MOST_AROUND) continue;
      for (const [from, to] of ranges) this.#considerRange(from, to);
      return;
    }
  }

  /** Considers the things of a range that have the typed words they need in their name, one at the least. */
  #considerRange(from: number, to: number): void {
    let need = this.#needOf(NONE);
    this.#looked += PASSED * (to - from);
    for (let thing = from; thing < to; thing++) {
      const own = this.#ownWords(thing);
      if (isEnough(own, need) && !this.#isHopeless(thing, own) && this.#consider(thing)) need = this.#needOf(NONE);
    }
  }

  #goThrough({ token, from, to, node, size }: Driver, inside: Inside | undefined): void {
    const { termPosting, posting, postingHint, thingOfHead, hintOfHead } = this.segment.sections;
    const bound = this.#bound.most();
    const listOf = (term: number): List => {
      const slot = term * GROUPS + REST;
      return { things: posting, hints: postingHint, from: termPosting[slot], to: termPosting[slot + 1] };
    };
    // what lies in a typed area first: after that, the rest is seldom worth visiting
    if (inside && size <= Math.min(MOST_PASSED, inside.total * QUICKER)) {
      for (let term = from; term < to; term++) this.#goThroughList(token, bound, listOf(term), inside.ranges);
      if (this.#isBeyond(this.#bound.mostOutside(inside.token), 1)) return;
    }
    const heads = node !== undefined && size > LONG ? this.segment.headsOf(node) : undefined;
    if (heads) {
      const list = { things: thingOfHead, hints: hintOfHead, from: heads[0], to: heads[1] };
      this.#goThroughList(token, bound, list);
    } else for (let term = from; term < to; term++) this.#goThroughList(token, bound, listOf(term));
  }

  /**
   * Goes through a list whose most important things come first, until the rest cannot come among the best.
   * @param token the word that found the list
   * @param bound the highest score that any of it can have
   * @param within only what lies in these ranges
   */
  #goThroughList(token: number, bound: number, { things, hints, from, to }: List, within?: Uint32Array): void {
    const { thingImportance } = this.segment.sections;
    let least = this.#least(bound);
    let need = this.#needOf(token);
    for (let p = from; p < to; p++) {
      if (within && !isWithin(within, things[p])) continue;
      if (!mayBeEnough(hints[p], need)) {
        this.#looked += PASSED;
        continue;
      }
      const thing = things[p];
      if (thingImportance[thing] < least || this.#looked >= this.#mostLooked) return;
      const own = this.#ownWords(thing);
      if (!isEnough(own, need) || this.#isHopeless(thing, own)) {
        this.#looked += SKIPPED;
        continue;
      }
      this.#looked += this.marks.isSeen(thing) ? SKIPPED : 1;
      if (!this.#consider(thing)) continue;
      least = this.#least(bound);
      need = this.#needOf(token);
    }
  }

  /** The least importance (0 to 65535) with which a thing with some score can still come among the best. */
  #least(score: number): number {
    return (65_535 * (this.#leastOrder - ALIKE - score - this.#nearest)) / ORDER.importance;
  }

  /** The words without which a thing cannot come among the best now. @param token one that it has */
  #needOf(token: number): Need {
    if (this.#leastOrder <= 0) return NO_NEED;
    let bits = 0;
    const hints: number[] = [];
    for (let t = 0; t < this.tokens.length; t++) {
      if (t === token || !this.#bound.isLeft(t) || !this.#isBeyond(this.#bound.most(t), 1)) continue;
      bits |= 1 << t;
      if (this.marks.hints[t] !== ALL_BITS) hints.push(this.marks.hints[t]);
    }
    return bits ? { bits, hints } : NO_NEED;
  }

  /** The typed words, as bits, that stand in a thing's own name in whatever way. */
  #ownWords(thing: number): number {
    const { thingTerm, termOfThing } = this.segment.sections;
    const { termTokens } = this.marks;
    let own = 0;
    const end = thingTerm[thing + 1];
    for (let i = thingTerm[thing]; i < end; i++) own |= termTokens[termOfThing[i]];
    return own;
  }

  /**
   * True when the words that a thing has, with all that may lie around it, are too few: decided without scoring it.
   * @param own the typed words, as bits, that stand in the name
   */
  #isHopeless(thing: number, own: number): boolean {
    const importance = this.segment.sections.thingImportance[thing] / 65_535;
    return this.#isBeyond(this.#scale.glance(thing, own), importance);
  }

  /** Weighs a thing, if it was not looked at yet and nothing forbids it. @returns true when it takes more now to be kept */
  #consider(thing: number, byPostcode = false): boolean {
    const { segment } = this;
    const { filter } = this.layer;
    if (!this.marks.isNew(thing) || !filter.allows(thing)) return false;
    const importance = segment.sections.thingImportance[thing] / 65_535;
    const least = this.#leastOrder - ALIKE - importance * ORDER.importance - this.#nearest;
    const taken = this.#scale.take(thing);
    const ceiling = taken.ceiling(byPostcode, least);
    if (ceiling === 0 || ceiling < least || this.#isBeyond(ceiling, importance)) return false;
    const weighed = taken.weigh();
    if (!weighed) return false;
    const { address, between, score } = weighed;
    const isAddress = address !== NONE || (filter.interpolates && between !== undefined);
    if (!filter.allowsKind(isAddress ? "address" : segment.kindOf(thing))) return false;
    const at = address === NONE ? segment.positionOf(thing) : segment.addressPosition(address);
    if (!filter.allowsPosition(at)) return false;
    const order = score + importance * ORDER.importance + (this.near ? nearnessBonus(at, this.near) : 0);
    const before = this.#leastOrder;
    this.#keep(thing, weighed, order, taken);
    return this.#leastOrder > before;
  }

  #keep(thing: number, { address, between, score }: WeighedThing, order: number, taken: Taken): void {
    const { segment, tokens } = this;
    const { indexed } = this.layer;
    const { limit, segments } = this.params;
    const kept = this.#kept;
    if (order < this.#leastOrder - ALIKE || (kept.length === limit && !isBefore(order, thing, kept[limit - 1]))) return;
    // a house found by name is an address of the street
    const owner = thing >= segment.firstHouse ? segment.streetOf(address) : thing;
    const same = address === NONE ? -1 : kept.findIndex((candidate) => candidate.address === address);
    if (same >= 0) {
      if (kept[same].order >= order) return;
      kept.splice(same, 1);
    }
    let place = kept.length;
    while (place > 0 && isBefore(order, owner, kept[place - 1])) place--;
    const explained = taken.explain();
    kept.splice(place, 0, { indexed, thing: owner, address, score, order, explained, tokens, segments, between });
    if (kept.length > limit) kept.pop();
    this.#leastOrder = leastOf(kept, this.params);
  }
}

/** True when a thing has all words that it needs, and one of any in any case. */
const isEnough = (own: number, { bits }: Need) => own !== 0 && (own & bits) === bits;

/** False when a thing lacks a word that it needs: decided by the bits of the terms alone. */
function mayBeEnough(hint: number, { hints }: Need): boolean {
  for (const wanted of hints) if ((hint & wanted) === 0) return false;
  return true;
}

function nearnessBonus(at: Position, near: Position): number {
  return ORDER.nearness * (ORDER.nearnessHalf / (ORDER.nearnessHalf + sphereDistance(near, at)));
}

function isBefore(order: number, thing: number, other: Candidate): boolean {
  return order > other.order || (order === other.order && thing < other.thing);
}
