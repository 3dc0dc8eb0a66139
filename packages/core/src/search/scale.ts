import { NONE, type Segment } from "../index/index.ts";
import { type HouseNumber, KINDS, type Kind } from "../place/index.ts";
import type { QueryToken } from "./interpret.ts";
import { type Marks, STEPS } from "./marks.ts";
import { type Between, findBetween, findNumber, findUnit, mayHaveNumber } from "./numbers.ts";
import { SHORTEST_CODE } from "./pieces.ts";
import { COST, type How, NUMBER, QUALITY, TELLS } from "./weights.ts";

/** Which record explains a typed word. */
export interface Explained {
  /** The thing whose name it is part of; NONE when it is a number or unit, or nothing. */
  by: number;
  how?: How;
  /** What a number was taken for. */
  as?: "house" | "unit";
}

/** What came of weighing a thing. */
export interface WeighedThing {
  /** 0 to 1: how much of what was typed it explains, and how well. */
  score: number;
  /** The address that it led to, or NONE. */
  address: number;
  /** Where its missing number lies between two others. */
  between: Between | undefined;
}

/** What weighing things against the words of one lookup is on. */
export class Scale {
  /** The weight of all words together. */
  readonly all: number;
  /** The weight of what is not explained by names: a house number, a unit. */
  readonly freeWeight: number;
  /** Of that, what is no house number. */
  readonly freeRoles: number;
  /** The lowest number that was typed. */
  readonly lowest: HouseNumber | undefined;
  /** True where a number may be a postcode that is not in the data. */
  readonly mayHaveCode: boolean;
  /** Place of a unit, or -1. */
  readonly unitToken: number;
  /** One for all things, each taken in the turn: weighing allocates nothing. */
  readonly #taken: Taken;

  constructor(
    readonly segment: Segment,
    readonly tokens: readonly QueryToken[],
    readonly marks: Marks,
  ) {
    this.all = tokens.reduce((sum, token) => sum + token.weight, 0);
    this.freeRoles = tokens.reduce((sum, { role, isLabel, weight }) => sum + (role && !isLabel ? weight : 0), 0);
    const houses = tokens.map(({ house, weight, mate }) => (house ? weight + (mate ? 1 : 0) : 0));
    this.freeWeight = this.freeRoles + Math.max(0, ...houses);
    for (const { house } of tokens) if (house && house.number < (this.lowest?.number ?? Infinity)) this.lowest = house;
    this.mayHaveCode = tokens.some(({ mayBeCode }) => mayBeCode);
    this.unitToken = tokens.findIndex(({ role, isLabel }) => role === "unit" && !isLabel);
    this.#taken = new Taken(this);
  }

  /**
   * @param own the typed words, as bits, that stand in the name in whatever way
   * @returns never less than its ceiling can be
   */
  glance(thing: number, own: number): number {
    const { marks, tokens } = this;
    const parent = this.segment.sections.thingParent[thing];
    let sum = parent === NONE ? 0 : marks.aroundSum(parent);
    sum += this.segment.isStreet(thing) ? this.freeWeight + marks.mostOfPostcode : this.freeRoles;
    for (let bits = own; bits; bits &= bits - 1) sum += tokens[31 - Math.clz32(bits & -bits)].weight;
    return Math.min(1, sum / this.all);
  }

  /** Takes up a thing; what is taken is good until the next one. */
  take(thing: number): Taken {
    this.#taken.take(thing);
    return this.#taken;
  }
}

/** One thing against the words of a lookup. */
export class Taken {
  #thing = NONE;
  /** For each word the best quality, and the thing that gives it. */
  readonly #qualities: Float64Array;
  readonly #by: Uint32Array;
  /** What the thing's own words give. */
  readonly #own: Uint8Array;
  /** Where in the name each of them stands. */
  readonly #place: Uint32Array;
  #ownTerms = 0;
  #ownSum = 0;
  #numberToken = -1;
  #numberHow: How = "absent";
  #unitHow: How = "absent";
  #address = NONE;
  #between: Between | undefined;

  private readonly segment: Segment;
  private readonly tokens: readonly QueryToken[];
  private readonly marks: Marks;

  constructor(private readonly scale: Scale) {
    this.segment = scale.segment;
    this.tokens = scale.tokens;
    this.marks = scale.marks;
    const { qualities, by, own, place } = scale.marks.room;
    this.#qualities = qualities;
    this.#by = by;
    this.#own = own;
    this.#place = place;
  }

  /** Reads the words of its own names. */
  take(thing: number): void {
    this.#thing = thing;
    this.#readOwn(thing);
  }

  /**
   * Looks at its own words and, at a glance, at what is around it.
   * @param byPostcode true when a street may also be meant by its postcode and a number alone
   * @param least the score that is needed; what cannot reach it is not scored
   * @returns never less than its score can be; 0 when none of its own words was typed
   */
  ceiling(byPostcode: boolean, least: number): number {
    const { segment, marks } = this;
    const thing = this.#thing;
    if (this.#ownTerms === 0 && !byPostcode) return 0;
    const parent = segment.sections.thingParent[thing];
    const cost = this.#incomplete(thing);
    const isStreet = segment.isStreet(thing);
    const code = isStreet ? marks.mostOfPostcode : 0;
    const around = parent === NONE ? 0 : marks.aroundSum(parent);
    const free = isStreet ? this.scale.freeWeight : this.scale.freeRoles;
    const ceiling = Math.min(1, (this.#ownSum + free + around + code) / this.scale.all) - cost;
    if (ceiling < least) return ceiling;
    const sum = this.#closerSum(parent, isStreet);
    const closer = Math.min(1, (sum + code) / this.scale.all) - cost;
    return closer < least || code === 0
      ? closer
      : Math.min(1, (sum + this.#mostOfPostcodes(thing)) / this.scale.all) - cost;
  }

  /** The most that a postcode of a street gives to the words that nothing else explains as well. */
  #mostOfPostcodes(street: number): number {
    const { segment, marks, tokens } = this;
    const [from, to] = segment.postcodesOf(street);
    const parent = segment.sections.thingParent[street];
    let most = 0;
    for (let i = from; i < to; i++) {
      const postcode = segment.sections.postcodeOfStreet[i];
      if (!marks.isTouched(postcode)) continue;
      let sum = 0;
      for (let t = 0; t < tokens.length; t++) {
        const more = marks.named(postcode, t) - Math.max(this.#own[t], marks.around(parent, t));
        if (more > 0) sum += (tokens[t].weight * more) / STEPS;
      }
      if (sum > most) most = sum;
    }
    return most;
  }

  /** What the own words, the area around and a number give together, each word counted once. */
  #closerSum(parent: number, mayBeHouse: boolean): number {
    const { segment, marks, tokens } = this;
    const cap =
      !this.scale.lowest || parent === NONE || mayHaveNumber(segment, parent, this.scale.lowest) ? 1 : QUALITY.absent;
    let sum = this.scale.freeRoles;
    let house = 0;
    for (let t = 0; t < tokens.length; t++) {
      const { weight, mate } = tokens[t];
      const quality = Math.max(this.#own[t], parent === NONE ? 0 : marks.around(parent, t));
      const got = (weight * quality) / STEPS;
      sum += got;
      if (tokens[t].house && mayBeHouse)
        house = Math.max(house, weight * cap - got + (mate === undefined ? 0 : tokens[mate].weight));
    }
    return sum + house;
  }

  /** What the words of the thing's name that were not typed cost. */
  #incomplete(thing: number): number {
    return COST.incomplete * (1 - Math.min(1, this.#ownTerms / Math.max(1, this.segment.sections.thingWords[thing])));
  }

  /** The best quality for each word: the thing's own, else its postcode's, else of an area around it, narrow to broad. */
  #gather(thing: number): void {
    const { segment, tokens, marks } = this;
    const parent = segment.sections.thingParent[thing];
    const [from, to] = marks.mostOfPostcode > 0 && segment.isStreet(thing) ? segment.postcodesOf(thing) : [0, 0];
    for (let t = 0; t < tokens.length; t++) {
      let best = this.#own[t];
      let by = best > 0 ? thing : NONE;
      for (let i = from; i < to && best < STEPS; i++) {
        const postcode = segment.sections.postcodeOfStreet[i];
        const quality = marks.named(postcode, t);
        if (quality > best) [best, by] = [quality, postcode];
      }
      if (parent !== NONE && marks.around(parent, t) > best) {
        best = marks.around(parent, t);
        by = marks.aroundBy(parent, t);
      }
      this.#qualities[t] = best / STEPS;
      this.#by[t] = by;
    }
    this.#partTwins(thing);
  }

  /**
   * A number typed twice ("block 5, 5", "18 … RN1 18", "17 … 84017"): one name explains it once, the other may be the
   * house.
   */
  #partTwins(thing: number): void {
    const { tokens } = this;
    for (let t = 0; t < tokens.length; t++) {
      if (!tokens[t].house || this.#by[t] === NONE) continue;
      const isPart = this.segment.isPostcode(this.#by[t]) && tokens.some((_, other) => this.#isLonger(other, t));
      if (isPart) {
        this.#qualities[t] = 0;
        this.#by[t] = NONE;
        continue;
      }
      for (let first = 0; first < t; first++) {
        if (tokens[first].text !== tokens[t].text || this.#by[first] !== this.#by[t]) continue;
        // a name's own number is next to the name, before the house's; a postcode is behind it
        const left = this.#by[t] === thing ? t : first;
        this.#qualities[left] = 0;
        this.#by[left] = NONE;
      }
    }
  }

  /** True for a whole postcode of which another number is the end: "84017" and "17", not the two of "540 40". */
  #isLonger(code: number, end: number): boolean {
    const [whole, part] = [this.tokens[code].text, this.tokens[end].text];
    const isWhole = whole.length >= SHORTEST_CODE && whole.length > part.length;
    return isWhole && this.#by[code] === this.#by[end] && whole.endsWith(part);
  }

  /** The words of its own names that were typed. */
  #readOwn(thing: number): void {
    const { segment, tokens, marks } = this;
    for (let t = 0; t < tokens.length; t++) this.#own[t] = 0;
    this.#ownTerms = 0;
    this.#ownSum = 0;
    const kind = 1 << segment.sections.thingKind[thing];
    if (thing < segment.firstStreet) {
      for (let t = 0; t < tokens.length; t++) {
        this.#own[t] = marks.named(thing, t);
        if (this.#own[t] > 0) this.#ownTerms += ownShare(tokens[t]);
      }
      this.#ownSum = marks.namedSum(thing);
      return;
    }
    const { thingTerm, termOfThing } = segment.sections;
    for (let i = thingTerm[thing]; i < thingTerm[thing + 1]; i++) {
      const term = termOfThing[i];
      let share = 0;
      const all = marks.termTokens[term];
      const least = all & (all - 1) ? this.#leastOfTwins(term, all) : 0;
      for (let bits = all; bits; bits &= bits - 1) {
        const t = 31 - Math.clz32(bits & -bits);
        if (!(tokens[t].kinds & (kind | (kind & ADDRESS ? STREETS : 0)))) continue;
        const quality = marks.term(term, t);
        if (quality < least) continue;
        if (quality > this.#own[t]) {
          this.#ownSum += (tokens[t].weight * (quality - this.#own[t])) / STEPS;
          this.#own[t] = quality;
          this.#place[t] = i;
        }
        share = Math.max(share, ownShare(tokens[t]));
      }
      this.#ownTerms += share;
    }
  }

  /** Where one of several typed words is a word of the name, the others are no misspelt ones: "Fonte 23, Monte Fria". */
  #leastOfTwins(term: number, all: number): number {
    let most = 0;
    for (let bits = all; bits; bits &= bits - 1)
      most = Math.max(most, this.marks.term(term, 31 - Math.clz32(bits & -bits)));
    return most > QUALITY.spelling * STEPS ? QUALITY.spelling * STEPS + 1 : 0;
  }

  /** Weighs it closely; undefined when nothing of it was typed. */
  weigh(): WeighedThing | undefined {
    const { segment, tokens } = this;
    const thing = this.#thing;
    this.#gather(thing);
    this.#numberToken = -1;
    this.#address = NONE;
    this.#between = undefined;
    if (segment.isStreet(thing)) this.#takeNumber(thing);
    else if (thing >= segment.firstHouse) this.#address = segment.sections.houseAddress[thing - segment.firstHouse];
    if (this.#ownTerms === 0 && (this.#address === NONE || this.#numberHow !== "same")) return undefined;
    if (this.#address !== NONE && segment.isStreet(thing)) this.#keepPostcodeOf(thing, this.#address);
    if (this.#address !== NONE && this.scale.unitToken >= 0) this.#takeUnit(segment.streetOf(this.#address));
    let got = 0;
    for (let t = 0; t < tokens.length; t++) got += tokens[t].weight * this.#qualities[t];
    if (this.#numberToken >= 0 && this.#isOnlyCommon(thing)) {
      got -= tokens[this.#numberToken].weight * this.#qualities[this.#numberToken] * (1 - NUMBER.ofCommon);
    } else if (this.#between)
      got += tokens[this.#numberToken].weight * (NUMBER.between - this.#qualities[this.#numberToken]);
    const disorder = this.#isDisordered(thing) || (this.#numberToken >= 0 && this.#interrupts(thing));
    const cost = this.#incomplete(thing) + (disorder ? COST.disorder : 0) + this.#broadCost(thing);
    const score = got / this.scale.all - cost;
    return score > 0 ? { score, address: this.#address, between: this.#between } : undefined;
  }

  /** True when nothing but common words of the name were typed ("street"), and some other word is of no use here. */
  #isOnlyCommon(thing: number): boolean {
    let isLost = false;
    for (let t = 0; t < this.tokens.length; t++) {
      const { weight } = this.tokens[t];
      if (this.#by[t] === thing && weight >= TELLS.apart) return false;
      if (this.#qualities[t] === 0 && weight >= TELLS.apart) isLost = true;
    }
    return isLost;
  }

  /** Gives the first number that nothing else explains to the street's houses. */
  #takeNumber(street: number): void {
    const isOther = (t: number) =>
      this.tokens[t].house !== undefined && !this.tokens[t].mayBeCode && this.#qualities[t] < 1;
    const hasOther = this.scale.mayHaveCode && this.tokens.some((_, t) => isOther(t));
    for (let t = 0; t < this.tokens.length; t++) {
      const { house, mate, mayBeCode } = this.tokens[t];
      if (!house || this.#qualities[t] === 1 || (mayBeCode && hasOther)) continue;
      const withMate =
        mate !== undefined && this.#qualities[mate] < 1
          ? findNumber(this.segment, street, { number: house.number, suffix: this.tokens[mate].text })
          : undefined;
      const match = withMate?.how === "same" ? withMate : findNumber(this.segment, street, house);
      const how: How = match?.how ?? "absent";
      if (QUALITY[how] <= this.#qualities[t]) continue;
      this.#setNumber(t, how);
      if (match === withMate && match && mate !== undefined) {
        this.#qualities[mate] = 1;
        this.#by[mate] = NONE;
      }
      this.#address = match?.address ?? NONE;
      if (!match) this.#between = findBetween(this.segment, street, house.number);
      return;
    }
  }

  #setNumber(token: number, how: How): void {
    this.#qualities[token] = QUALITY[how];
    this.#by[token] = NONE;
    this.#numberToken = token;
    this.#numberHow = how;
  }

  /** Once the house is known, only its own postcode counts. */
  #keepPostcodeOf(street: number, address: number): void {
    const { segment, marks } = this;
    const own = segment.postcodeOf(street, address);
    for (let t = 0; t < this.tokens.length; t++) {
      if (this.#by[t] === NONE || !segment.isPostcode(this.#by[t]) || this.#by[t] === own) continue;
      const parent = segment.sections.thingParent[street];
      const around = parent === NONE ? 0 : marks.around(parent, t);
      const named = own === NONE ? 0 : marks.named(own, t);
      this.#qualities[t] = Math.max(named, around) / STEPS;
      this.#by[t] = named === 0 && around === 0 ? NONE : named >= around ? own : marks.aroundBy(parent, t);
    }
  }

  #takeUnit(street: number): void {
    const t = this.scale.unitToken;
    const unit = findUnit(this.segment, street, this.#address, this.tokens[t].text);
    this.#unitHow = unit === NONE ? "absent" : "same";
    this.#qualities[t] = unit === NONE ? NUMBER.unknownUnit : 1;
    this.#by[t] = NONE;
    if (unit !== NONE) this.#address = unit;
  }

  #broadCost(thing: number): number {
    const { segment } = this;
    let cost = 0;
    for (let t = 0; t < this.tokens.length; t++) {
      const by = this.#by[t];
      if (by === thing || by === NONE || !segment.isArea(by)) continue;
      cost = Math.max(cost, broadCost(segment.kindOf(by)));
    }
    return cost;
  }

  /** True when words of the thing's own name were typed in another order than it has. */
  #isDisordered(thing: number): boolean {
    if (thing < this.segment.firstStreet) return false;
    let last = 0;
    for (let t = 0; t < this.tokens.length; t++) {
      if (this.#by[t] !== thing || this.tokens[t].weight < TELLS.inOrder) continue;
      if (this.#place[t] < last) return true;
      last = this.#place[t];
    }
    return false;
  }

  /** True when words of the thing's own name stand on both sides of the number. */
  #interrupts(thing: number): boolean {
    let before = false;
    for (let t = 0; t < this.tokens.length; t++) {
      if (this.#by[t] !== thing) continue;
      if (t < this.#numberToken) before = true;
      else return before;
    }
    return false;
  }

  /** What explains each word, once it is weighed. */
  explain(): Explained[] {
    const thing = this.#thing;
    const mate = this.tokens[this.#numberToken]?.mate;
    return this.tokens.map((_, t): Explained => {
      if (t === this.#numberToken) return { by: NONE, how: this.#between ? "nearby" : this.#numberHow, as: "house" };
      if (t === mate && this.#by[t] === NONE && this.#qualities[t] === 1)
        return { by: NONE, how: this.#numberHow, as: "house" };
      if (t === this.scale.unitToken && this.#address !== NONE) return { by: NONE, how: this.#unitHow, as: "unit" };
      return { by: this.#by[t] === thing ? this.#ownerOf(thing, t) : this.#by[t] };
    });
  }

  /** The house itself, or its street when the word is of the street's name. */
  #ownerOf(thing: number, token: number): number {
    const { segment, marks } = this;
    if (thing < segment.firstHouse) return thing;
    const street = segment.streetOf(segment.sections.houseAddress[thing - segment.firstHouse]);
    const { thingTerm, termOfThing } = segment.sections;
    for (let i = thingTerm[street]; i < thingTerm[street + 1]; i++) {
      if (marks.term(termOfThing[i], token) === this.#own[token]) return street;
    }
    return thing;
  }
}

const ADDRESS = 1 << KINDS.indexOf("address");
const STREETS = (1 << KINDS.indexOf("street")) | (1 << KINDS.indexOf("block"));

/** How much a typed word tells of a name. */
const ownShare = (token: QueryToken) => (token.weight >= TELLS.ofName ? 1 : TELLS.smallShare);

const broadCost = (kind: Kind) => (kind === "county" || kind === "region" || kind === "country" ? COST[kind] : 0);
