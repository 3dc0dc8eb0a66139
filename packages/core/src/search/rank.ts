import { type Position, sphereDistance } from "../geo/index.ts";
import { NONE, type Segment } from "../index/index.ts";
import { MAX_TOKENS } from "../text/index.ts";
import { type How, QUALITY, type QueryToken } from "./interpret.ts";
import type { Matches } from "./match.ts";
import { findNumber } from "./numbers.ts";
import type { Filter } from "./query.ts";

/** Which record explains a typed word. */
export interface Explained {
  /** The thing whose name it is part of; NONE when it is the number, or nothing. */
  by: number;
  how?: How;
}

/** A record that may be meant. */
export interface Candidate {
  thing: number;
  /** The address in the street, or NONE. */
  address: number;
  /** 0 to 1: how much of what was typed it explains, and how well. */
  score: number;
  /** Score with importance and nearness: the order. */
  order: number;
  /** For each typed word. */
  explained: Explained[];
}

const IMPORTANCE_SHARE = 0.03;
const NEARNESS_SHARE = 0.03;
/** Metres at which nearness has lost half its weight. */
const NEARNESS_HALF = 5000;
/** What the words of a name that were not typed cost at most. */
const INCOMPLETE_COST = 0.06;

/** What it costs when the number stands in the middle of the name: "block 7 4" means block 7, rather than block 4. */
const INTERRUPTED_COST = 0.02;

/** Weighs the touched things of one lookup; its working memory is used again for each. */
class Scale {
  readonly qualities = new Float64Array(MAX_TOKENS);
  readonly by = new Uint32Array(MAX_TOKENS);
  /** The word taken as a house number, how, and the address it led to. */
  numberToken = -1;
  numberHow: How = "absent";
  address = NONE;
  /** The weight of all words together. */
  readonly all: number;

  constructor(
    private readonly segment: Segment,
    private readonly tokens: readonly QueryToken[],
    private readonly matches: Matches,
  ) {
    this.all = tokens.reduce((sum, token) => sum + token.weight, 0);
  }

  /** The score of a thing; 0 when none of its own words was typed. */
  weigh(thing: number): number {
    const { tokens, qualities, by } = this;
    this.matches.best(thing, qualities, by);
    this.numberToken = -1;
    this.address = NONE;
    let ownWords = 0;
    for (let t = 0; t < tokens.length; t++) if (by[t] === thing) ownWords += tokens[t].weight >= 0.5 ? 1 : 0.2;
    if (ownWords === 0) return 0;
    if (this.segment.isStreet(thing)) this.#takeNumber(thing);
    let got = 0;
    for (let t = 0; t < tokens.length; t++) got += tokens[t].weight * qualities[t];
    const complete = Math.min(1, ownWords / Math.max(1, this.segment.sections.thingWords[thing]));
    const interrupted = this.numberToken >= 0 && this.#interrupts(thing) ? INTERRUPTED_COST : 0;
    return Math.max(0, got / this.all - INCOMPLETE_COST * (1 - complete) - interrupted);
  }

  /** Gives the first number that nothing else explains to the street's houses. */
  #takeNumber(street: number): void {
    for (let t = 0; t < this.tokens.length; t++) {
      const token = this.tokens[t];
      if (!token.house || this.qualities[t] === 1) continue;
      const match = findNumber(this.segment, street, token.house);
      const how: How = match?.how ?? "absent";
      if (QUALITY[how] <= this.qualities[t]) continue;
      this.qualities[t] = QUALITY[how];
      this.by[t] = NONE;
      this.numberToken = t;
      this.numberHow = how;
      this.address = match?.address ?? NONE;
      return;
    }
  }

  /** True when words of the thing's own name stand on both sides of the number. */
  #interrupts(thing: number): boolean {
    const { by, numberToken, tokens } = this;
    let before = false;
    for (let t = 0; t < tokens.length; t++) {
      if (by[t] !== thing) continue;
      if (t < numberToken) before = true;
      else return before;
    }
    return false;
  }

  explain(): Explained[] {
    return this.tokens.map((_, t) => (t === this.numberToken ? { by: NONE, how: this.numberHow } : { by: this.by[t] }));
  }
}

/** Ranks all touched things; keeps the best few, best first, equal ones by number. */
export function rank(
  segment: Segment,
  tokens: readonly QueryToken[],
  matches: Matches,
  filter: Filter,
  limit: number,
  near?: Position,
): Candidate[] {
  const scale = new Scale(segment, tokens, matches);
  const kept: Candidate[] = [];
  // most things cannot come among the best few, and the most they can explain says so at a glance
  const ceilings = Float32Array.from(matches.touched, (thing) => Math.min(1, matches.ceiling(thing) / scale.all));
  for (const i of highestFirst(ceilings)) {
    const thing = matches.touched[i];
    const bonus = importanceBonus(segment, thing) + (near ? NEARNESS_SHARE : 0);
    const worst = kept.length === limit ? kept[limit - 1] : undefined;
    if (worst && ceilings[i] + IMPORTANCE_SHARE + NEARNESS_SHARE < worst.order - 1 / STEPS) break;
    if (worst && isBeyond(ceilings[i] + bonus, thing, worst)) continue;
    if (!filter.allows(thing)) continue;
    const score = scale.weigh(thing);
    if (score === 0 || (worst && score + bonus < worst.order)) continue;
    const { address } = scale;
    if (!filter.allowsKind(address === NONE ? segment.kindOf(thing) : "address")) continue;
    const at = address === NONE ? segment.positionOf(thing) : segment.addressPosition(address);
    if (!filter.allowsPosition(at)) continue;
    const order = score + importanceBonus(segment, thing) + (near ? nearnessBonus(at, near) : 0);
    if (kept.length === limit && !isBefore(order, thing, kept[limit - 1])) continue;
    insert(kept, { thing, address, score, order, explained: scale.explain() }, limit);
  }
  return kept;
}

function importanceBonus(segment: Segment, thing: number): number {
  return (segment.sections.thingImportance[thing] / 65535) * IMPORTANCE_SHARE;
}

function nearnessBonus(at: Position, near: Position): number {
  return NEARNESS_SHARE * (NEARNESS_HALF / (NEARNESS_HALF + sphereDistance(near, at)));
}

function isBefore(order: number, thing: number, other: Candidate): boolean {
  return order > other.order || (order === other.order && thing < other.thing);
}

/** Steps into which ceilings are sorted. */
const STEPS = 64;

/** Places of some values between 0 and 1, the highest first, to within a step (a counting sort). */
function highestFirst(values: Float32Array): Uint32Array {
  const starts = new Uint32Array(STEPS + 2);
  const stepOf = (value: number) => STEPS - Math.floor(value * STEPS);
  for (const value of values) starts[stepOf(value) + 1]++;
  for (let step = 1; step < starts.length; step++) starts[step] += starts[step - 1];
  const order = new Uint32Array(values.length);
  for (let i = 0; i < values.length; i++) order[starts[stepOf(values[i])]++] = i;
  return order;
}

/** True when even the highest order a thing can reach does not bring it before another. */
function isBeyond(highest: number, thing: number, other: Candidate): boolean {
  return highest < other.order - 1e-6 || (highest < other.order + 1e-6 && thing > other.thing);
}

function insert(kept: Candidate[], candidate: Candidate, limit: number): void {
  let place = kept.length;
  while (place > 0 && isBefore(candidate.order, candidate.thing, kept[place - 1])) place--;
  kept.splice(place, 0, candidate);
  if (kept.length > limit) kept.pop();
}
