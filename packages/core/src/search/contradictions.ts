import { AREAS, GROUPS, NONE, POSTCODES, type Segment } from "../index/index.ts";
import {
  type CountryProfile,
  type Difference,
  type DifferenceHow,
  formatHouseNumber,
  type PartName,
  type Parts,
  postcodeShape,
  profileOf,
} from "../place/index.ts";
import { tokenize } from "../text/index.ts";
import type { Candidate } from "./candidates.ts";
import { isUnknown, type QueryToken, stretchesOf } from "./interpret.ts";
import { nameWords } from "./name-words.ts";
import { MENDED, QUALITY, TELLS } from "./weights.ts";

/** Something written that is not so in a record, before the record's names are read. `span` is half open. */
export interface Contradiction {
  part: PartName;
  span: readonly [start: number, end: number];
  how: DifferenceHow;
}

/** Parts that tell records apart; what was written of others is no difference. */
const TELLING: ReadonlySet<PartName> = new Set([
  "house",
  "building",
  "block",
  "street",
  "place",
  "town",
  "postcode",
  "country",
  "unit",
]);
/** Most areas of a name that are compared with what was typed. */
const MOST_AREAS = 16;

/**
 * What was written and is not so in a candidate.
 * @param isTyping true for a text that may go on: what a street is called may yet follow "Rue de la"
 */
export function contradictionsOf(candidate: Candidate, isTyping = false): Contradiction[] {
  return isAllExplained(candidate) ? NOTHING : new Comparison(candidate, isTyping).contradictions();
}

const NOTHING: Contradiction[] = [];
const NO_WORDS: readonly number[] = [];

/** Places of the words of which something is true: asked of nearly every candidate, and seldom true. */
function wordsThat(tokens: readonly QueryToken[], is: (t: number) => boolean): readonly number[] {
  let found: number[] | undefined;
  for (let t = 0; t < tokens.length; t++) {
    if (!is(t)) continue;
    if (found) found.push(t);
    else found = [t];
  }
  return found ?? NO_WORDS;
}

/** True for a record that explains all that was written, as most do: nothing needs to be scored in detail. */
function isAllExplained(candidate: Candidate): boolean {
  const { tokens, explained, thing, indexed } = candidate;
  // the words of a street's name may be no more than its kind
  let isNamed = indexed.segment.kindOf(thing) !== "street";
  let isMeant = false;
  for (let t = 0; t < tokens.length; t++) {
    const { by, how, as } = explained[t];
    const { isLabel, weight, unfinished, text } = tokens[t];
    if (as ? how !== "same" : by === NONE && !isLabel && !unfinished && weight > TELLS.nothing) return false;
    // a longer name than was written, or one that was mended into it, may be another town's than is meant
    if (by !== NONE && by !== thing && by < indexed.segment.firstPostcode) {
      const isLonger = indexed.segment.sections.thingWords[by] > 1;
      if (isLonger ? !isWholeName(candidate, by) : !isAsWritten(candidate, t)) return false;
    }
    if (by !== thing) continue;
    if (isOtherCompound(candidate, t)) return false;
    isMeant = true;
    isNamed ||= weight >= TELLS.apart && !indexed.lexicon.isBareWay(text);
  }
  if (isMeant && !isNamed) return false;
  return !boxesIn(candidate).length && !repeatedIn(candidate).length && !mixedIn(candidate).length;
}

/** True for a word that was mended into one of a street's name, and shares with it little more than the kind of street. */
function isOtherCompound({ explained, tokens, thing, indexed: { segment, lexicon } }: Candidate, t: number): boolean {
  const { rangesBySegment, text, kind } = tokens[t];
  if (explained[t].by !== thing || kind !== "word" || segment.kindOf(thing) !== "street") return false;
  for (const ranges of rangesBySegment) for (const { quality } of ranges) if (quality > MENDED.twoErrors) return false;
  const written = [text, ...lexicon.writtenOut(text)];
  const held = nameWords(segment, thing).flat();
  return held.length > 0 && written.every((one) => held.some((word) => lexicon.isOtherCompound(one, word)));
}

/** Words of a street's name that were written once before, which the street explains again. */
function repeatedIn({ tokens, explained, thing, indexed: { segment } }: Candidate): readonly number[] {
  if (segment.kindOf(thing) !== "street") return NO_WORDS;
  return wordsThat(tokens, (t) => {
    if (explained[t].by !== thing || tokens[t].kind !== "word") return false;
    for (let other = 0; other < t; other++)
      if (tokens[other].text === tokens[t].text && explained[other].by === thing) return true;
    return false;
  });
}

/**
 * The share of a text that its candidate explains twice with one word where it names a town that is not the candidate's:
 * "Lipová 3, Lipová" of a Lipová in another town. 0 for nearly all.
 */
export function shareTakenTwice(candidate: Candidate): number {
  const repeated = repeatedIn(candidate);
  if (!repeated.length || !new Comparison(candidate, false).isOtherTown(repeated)) return 0;
  const weigh = (sum: number, { weight }: QueryToken) => sum + weight;
  return repeated.map((t) => candidate.tokens[t]).reduce(weigh, 0) / candidate.tokens.reduce(weigh, 0);
}

/** True when as many words of an area's name were written as it has. */
function isWholeName({ explained, indexed: { segment } }: Candidate, area: number): boolean {
  let written = 0;
  for (const { by } of explained) if (by === area) written++;
  return written >= segment.sections.thingWords[area];
}

/** True for a word by which the area that explains it is found as it stands: nothing was mended or completed. */
function isAsWritten({ explained, tokens, segments, indexed: { segment } }: Candidate, t: number): boolean {
  const { termPosting, posting } = segment.sections;
  const least = tokens[t].unfinished ? MENDED.wholeSoFar : QUALITY.abbreviation;
  for (const { from, to, node, quality } of tokens[t].rangesBySegment[segments.indexOf(segment)]) {
    if (node !== undefined || quality < least) continue;
    for (let term = from; term < to; term++)
      for (let p = termPosting[term * GROUPS + AREAS]; p < termPosting[term * GROUPS + POSTCODES]; p++)
        if (posting[p] === explained[t].by) return true;
  }
  return false;
}

/** The stretches of words alone of which a street explains some and what it lies in the others: nobody writes them like that. */
function mixedIn({ explained, tokens, thing, indexed }: Candidate): (readonly number[])[] {
  if (!tokens.some(isParting)) return [];
  const stretches = stretchesOf(tokens);
  const mixed: (readonly number[])[] = [];
  for (let stretch = 0; stretch <= stretches[stretches.length - 1]; stretch++) {
    const words = wordsThat(tokens, (t) => stretches[t] === stretch && tokens[t].kind === "word");
    const of = (isOwn: boolean) => words.some((t) => explained[t].by !== NONE && (explained[t].by === thing) === isOwn);
    if (words.length < 2 || !of(true) || !of(false)) continue;
    if (!words.some((t) => tokens[t].isLabel || indexed.lexicon.isBareWay(tokens[t].text))) mixed.push(words);
  }
  return mixed;
}

/** True for the first word of a stretch other than the first. */
const isParting = ({ isParted, part }: QueryToken, t: number, tokens: readonly QueryToken[]) =>
  t > 0 && (isParted || part !== tokens[t - 1].part);

/** Places of box numbers, for a record without houses: nothing is known of where a box is. */
function boxesIn({ tokens, thing, indexed: { segment } }: Candidate): readonly number[] {
  if (thing >= segment.firstStreet) return NO_WORDS;
  return wordsThat(tokens, (t) => tokens[t].role === "box" && !tokens[t].isLabel);
}

/** The same with what the record holds instead. @param parts of the record */
export function differencesOf(found: readonly Contradiction[], parts: Parts, text: string): Difference[] {
  return found.map(({ part, span: [start, end], how }) => {
    const difference: Difference = { part, written: text.slice(start, end).trim(), how };
    const written = parts[part]?.name;
    if (written !== undefined && how !== "absent") difference.held = written;
    return difference;
  });
}

/** The words of one text as one record explains them. */
class Comparison {
  readonly #segment: Segment;
  readonly #profile: CountryProfile;
  readonly #shape: RegExp | undefined;
  /** For each word the stretch between separators that contains it. */
  readonly #stretch: readonly number[];
  /** Words that were dealt with. */
  readonly #done = new Set<number>();
  readonly #found: Contradiction[] = [];
  /** Words of the record's own name, and its number. */
  #core: number[] = [];

  constructor(
    private readonly candidate: Candidate,
    private readonly isTyping: boolean,
  ) {
    const { indexed, tokens, explained, thing } = candidate;
    this.#segment = indexed.segment;
    this.#profile = profileOf(this.#segment.countryCode(thing));
    this.#shape = postcodeShape(this.#profile);
    this.#stretch = stretchesOf(tokens);
    tokens.forEach((_, t) => {
      const { by, as } = explained[t];
      if (as === "house" || by === thing || (by !== NONE && by >= this.#segment.firstHouse)) this.#core.push(t);
    });
    const isApart = this.#core.some((t) => this.#stretch[t] !== this.#stretch[this.#core[0]]);
    const namesOf = isApart ? this.#namesByStretch() : [];
    const echoes = isApart ? this.#core.filter((t) => this.#isEcho(t, namesOf)) : [];
    if (echoes.length) this.#core = this.#core.filter((t) => !echoes.includes(t));
  }

  /** True for a word of the name in a stretch that only repeats some of it: "Mill Road Garage, 12 Mill Road". */
  #isEcho(t: number, namesOf: readonly string[][]): boolean {
    if (this.candidate.explained[t].by === NONE) return false;
    const own = namesOf[this.#stretch[t]];
    // of two that are the same, the one with the number is the street's, and the later one where neither has it
    const house = this.#stretch[this.candidate.explained.findIndex(({ as }) => as === "house")];
    const isFirst = (one: number, other: number) => one === house || (other !== house && one > other);
    return this.#core.some((c) => {
      const other = this.#stretch[c] === this.#stretch[t] ? [] : namesOf[this.#stretch[c]];
      const isMore =
        other.length > own.length || (other.length === own.length && isFirst(this.#stretch[c], this.#stretch[t]));
      return isMore && own.every((text) => other.includes(text));
    });
  }

  /** For each stretch the words of the record's own name in it. */
  #namesByStretch(): string[][] {
    const { tokens, explained } = this.candidate;
    const names = tokens.map((): string[] => []);
    for (const c of this.#core) if (explained[c].by !== NONE) names[this.#stretch[c]].push(tokens[c].text);
    return names;
  }

  contradictions(): Contradiction[] {
    this.#leaveOwnWords();
    this.#leaveSlips();
    this.#leaveKinds();
    this.#readName();
    this.#readCompounds();
    this.#readPostcode();
    this.#readNumber();
    this.#readUnit();
    this.#readParts();
    this.#readTown();
    this.#readMixed();
    this.#readRepeated();
    this.#readWords();
    return this.#found.sort((a, b) => a.span[0] - b.span[0]);
  }

  /** A word that the record has itself contradicts nothing, by whatever way the record was found. */
  #leaveOwnWords(): void {
    const { indexed, tokens } = this.candidate;
    let own: ReadonlySet<string> | undefined;
    tokens.forEach(({ text }, t) => {
      if (!this.#isLeft(t)) return;
      own ??= this.#ownWords();
      if (own.has(text) || indexed.lexicon.otherForms(text).some((form) => own?.has(form))) this.#done.add(t);
    });
  }

  /** A slip in a word too short to be mended: "Avenida dp la Alameda", "Ra do Mercado". */
  #leaveSlips(): void {
    const { indexed, tokens, explained, thing } = this.candidate;
    const named = this.#core.filter((t) => explained[t].by === thing);
    const [first, last] = [named[0], named[named.length - 1]];
    tokens.forEach(({ text, kind }, t) => {
      if (kind !== "word" || !this.#isLeft(t)) return;
      const isWithin = t > first && t < last && indexed.lexicon.isLikeSmall(text);
      const isAhead = t === first - 1 && [...this.#ownWords()].some((way) => indexed.lexicon.isLikeWay(text, way));
      if (isWithin || isAhead) this.#done.add(t);
    });
  }

  /** A kind of street beside a name that its register has without one: "ul. Lipová" is Lipová, "Οδός Πλατάνου" is Πλατάνου. */
  #leaveKinds(): void {
    const { indexed, tokens, explained, thing } = this.candidate;
    const { lexicon } = indexed;
    const named = this.#core.filter((t) => explained[t].by === thing);
    if (!named.length || this.#segment.kindOf(thing) !== "street") return;
    const beside = [named[0] - 1, named[named.length - 1] + 1].filter(
      (t) =>
        tokens[t] &&
        this.#isLeft(t) &&
        lexicon.isBareWay(tokens[t].text) &&
        this.#stretch[t] === this.#stretch[named[0]],
    );
    if (!beside.length) return;
    const hasKind = nameWords(this.#segment, thing).some((words) => words.some((word) => lexicon.isWay(word)));
    if (!hasKind) for (const t of beside) this.#done.add(t);
  }

  /** "Rue de Montclair, Montclair" is no Rue des Lilas: of the name nothing was written but what kind of street it is. */
  #readName(): void {
    const { indexed, tokens, thing, explained } = this.candidate;
    const segment = this.#segment;
    const own = this.#core.filter((t) => explained[t].by === thing);
    // "Pärmgränd" tells more than its kind, though it ends with it
    const isKind = (word: string) => indexed.lexicon.isSmall(word) || indexed.lexicon.isBareWay(word);
    if (segment.kindOf(thing) !== "street" || !own.length || !own.every((t) => isKind(tokens[t].text))) return;
    if (this.isTyping && own[own.length - 1] === tokens.length - 1) return;
    // "Ravn gränd" is Ravngränd, though there is a town called Ravn
    const isTogether = (one: QueryToken | undefined, next: QueryToken | undefined, word: string) =>
      one !== undefined && next !== undefined && !next.isParted && one.text + next.text === word;
    const isWritten = (word: string) =>
      own.some(
        (t) =>
          tokens[t].text === word ||
          indexed.lexicon.otherForms(tokens[t].text).includes(word) ||
          isTogether(tokens[t - 1], tokens[t], word) ||
          isTogether(tokens[t], tokens[t + 1], word),
      );
    const isNamed = nameWords(segment, thing).some((words) => {
      const telling = words.filter((word) => !isKind(word));
      return !telling.length || telling.some(isWritten);
    });
    if (!isNamed) this.#say("street", own, "other");
  }

  /** "Storgränd" is not Østergränd. */
  #readCompounds(): void {
    const others = this.#core.filter((t) => isOtherCompound(this.candidate, t));
    if (others.length) this.#say("street", others, "other");
  }

  #ownWords(): Set<string> {
    const { thing, address } = this.candidate;
    const segment = this.#segment;
    const own = new Set<string>();
    const add = (words: readonly string[]) => {
      for (const word of words) own.add(word);
    };
    for (let one = thing; one !== NONE; one = segment.sections.thingParent[one]) nameWords(segment, one).forEach(add);
    const at = segment.kindOf(thing) === "place" ? segment.addressOfPlace(thing) : address;
    if (at !== NONE) {
      nameWords(segment, segment.streetOf(at)).forEach(add);
      for (const name of detailsOf(segment, at, this.#profile)) add(tokenize(name).map(({ text }) => text));
    }
    return own;
  }

  #say(part: PartName, words: readonly number[], how: DifferenceHow): void {
    for (const t of words) this.#done.add(t);
    const { tokens } = this.candidate;
    const span = [
      Math.min(...words.map((t) => tokens[t].start)),
      Math.max(...words.map((t) => tokens[t].end)),
    ] as const;
    this.#found.push({ part, span, how });
  }

  /** True for a word that nothing of the record explains, and that means something. */
  #isLeft(t: number): boolean {
    const { tokens, explained } = this.candidate;
    const { by, as } = explained[t];
    const { isLabel, weight, unfinished } = tokens[t];
    return by === NONE && as === undefined && !this.#done.has(t) && !isLabel && !unfinished && weight > TELLS.nothing;
  }

  #howOf(words: readonly number[]): DifferenceHow {
    return words.some((t) => isUnknown(this.candidate.tokens[t])) ? "unknown" : "other";
  }

  /** Another postcode than the record has. One of a record that has none contradicts nothing. */
  #readPostcode(): void {
    const { tokens, thing, address } = this.candidate;
    const segment = this.#segment;
    const codes = wordsThat(tokens, (t) => this.#isOfCode(tokens[t], t));
    if (!codes.some((t) => this.#isLeft(t))) return;
    if (segment.isStreet(thing)) {
      const [from, to] = segment.postcodesOf(thing);
      if (address === NONE ? from === to : segment.postcodeOf(thing, address) === NONE) {
        for (const t of codes) this.#done.add(t);
        return;
      }
    }
    this.#say("postcode", codes, this.#howOf(codes.filter((t) => this.#isLeft(t))));
  }

  #isOfCode(token: QueryToken, t: number): boolean {
    if (token.isCode || token.part === "postcode") return true;
    if (this.#isDate(t)) return false;
    const { by, as } = this.candidate.explained[t];
    return token.part === undefined && !as && by === NONE && this.#shape?.test(token.text) === true && !token.role;
  }

  /** A number with what belongs to it, where the record has another or none. */
  #readNumber(): void {
    const { tokens, explained, between, address } = this.candidate;
    const part = this.#profile.number.part;
    const boxes = boxesIn(this.candidate);
    if (boxes.length) this.#say(part, boxes, "absent");
    const taken = explained.findIndex(({ as }) => as === "house");
    if (taken < 0) {
      if (address !== NONE && this.#core.some((t) => explained[t].by >= this.#segment.firstHouse)) return;
      const numbers = wordsThat(tokens, (t) => {
        const { house, role, part: given } = tokens[t];
        const isOfHouse = house && (role ?? "house") === "house" && (given ?? part) !== "street";
        return isOfHouse === true && this.#isLeft(t);
      });
      const meant = numbers.filter((t) => !this.#isAside(t));
      if (meant.length) this.#say(part, meant.slice(0, 1), "absent");
      for (const t of numbers) this.#done.add(t);
      return;
    }
    const words = [...wordsThat(tokens, (t) => explained[t].as === "house")];
    const behind = words[words.length - 1] + 1;
    const isSuffix = this.#isLeft(behind < tokens.length ? behind : taken) && this.#isBeside(taken, behind);
    if (isSuffix) words.push(behind);
    const how = explained[taken].how;
    if (how === "same" && !isSuffix) return;
    this.#say(part, words, between || how === "absent" ? "absent" : "nearby");
  }

  /** True for a letter or a fraction that comes right after the number: "12 b", "4816 1/2". */
  #isBeside(number: number, behind: number): boolean {
    const { tokens } = this.candidate;
    const token = tokens[behind];
    if (!token || this.#stretch[behind] !== this.#stretch[number] || token.role || token.isCode) return false;
    return token.kind === "number" ? token.text.includes("/") : tokens[number].mate === behind;
  }

  #readUnit(): void {
    const { explained } = this.candidate;
    const t = explained.findIndex(({ as }) => as === "unit");
    if (t >= 0 && explained[t].how === "absent") this.#say("unit", [t], "absent");
  }

  /** What was given as a part, and is another in the record. */
  #readParts(): void {
    const { tokens, thing } = this.candidate;
    const given = new Map<PartName, number[]>();
    tokens.forEach(({ part }, t) => {
      if (part && TELLING.has(part)) given.set(part, [...(given.get(part) ?? []), t]);
    });
    for (const [part, words] of given) {
      if (!words.some((t) => this.#isLeft(t))) continue;
      const isCode =
        part === "country" &&
        words.length === 1 &&
        tokens[words[0]].text.toUpperCase() === this.#segment.countryCode(thing);
      if (isCode) for (const t of words) this.#done.add(t);
      else this.#say(part, words, this.#howOf(words.filter((t) => this.#isLeft(t))));
    }
  }

  /** "Fontenelle" is not Fontenelle-sur-Lise where a town is called so, and "Lipová" not Lipovica. */
  #readTown(): void {
    const { tokens, explained } = this.candidate;
    const isFirst = (t: number) => explained.findIndex(({ by }) => by === explained[t].by) === t;
    const firsts = wordsThat(tokens, (t) => this.#isTown(explained[t].by) && isFirst(t));
    for (const first of firsts) {
      const town = explained[first].by;
      const words = wordsThat(tokens, (t) => explained[t].by === town);
      // what was mended into this town and is another town as it stands
      const names = nameWords(this.#segment, town);
      const isMended = !words.some((t) => names.some((name) => name.includes(tokens[t].text)));
      if (!isMended && (isWholeName(this.candidate, town) || this.#isTelling(town))) continue;
      const stretch = wordsThat(tokens, (t) => this.#stretch[t] === this.#stretch[first]);
      const beside = stretch.filter((t) => words.includes(t) || this.#isLeft(t));
      if (this.#areaNamedBy(words, beside) === "town") this.#say("town", beside, "other");
    }
  }

  /** "Monte Fria" is not Fonte, Ribeira Fria, where a town is called so. */
  #readMixed(): void {
    const { tokens } = this.candidate;
    for (const words of mixedIn(this.candidate)) {
      const own = this.#ownWords();
      const isMended = words.some((t) => !own.has(tokens[t].text));
      if (isMended && this.#areaNamedBy(words, words, true) === "town") this.#say("town", words, "other");
    }
  }

  #readRepeated(): void {
    const repeated = repeatedIn(this.candidate);
    if (repeated.length && this.isOtherTown(repeated)) this.#say("town", repeated, "other");
  }

  /** True for words that are a town's full name, and that of no area that the record lies in. */
  isOtherTown(words: readonly number[]): boolean {
    const { tokens, thing } = this.candidate;
    const { thingParent } = this.#segment.sections;
    const typed = new Set(words.map((t) => tokens[t].text));
    for (let area = thingParent[thing]; area !== NONE; area = thingParent[area])
      if (isNamed(this.#segment, area, typed)) return false;
    return this.#areaNamedBy(words) === "town";
  }

  /** True when all words of an area's name that tell something were written, whatever explains them. */
  #isTelling(area: number): boolean {
    const { indexed, tokens, explained } = this.candidate;
    // "Avenue de Fontenelle-sur-Lise, Fontenelle" says the whole name of the street alone
    const stretches = new Set(explained.flatMap(({ by }, t) => (by === area ? [this.#stretch[t]] : [])));
    const written = new Set(tokens.flatMap(({ text }, t) => (stretches.has(this.#stretch[t]) ? [text] : [])));
    const words = explained.filter(({ by }, t) => by === area && !indexed.lexicon.isSmall(tokens[t].text)).length;
    return nameWords(this.#segment, area).some((name) => {
      const telling = name.filter((word) => !indexed.lexicon.isSmall(word));
      return words >= telling.length || telling.every((word) => written.has(word));
    });
  }

  #isArea(thing: number): boolean {
    return thing !== NONE && this.#segment.isArea(thing);
  }

  #isTown(thing: number): boolean {
    return this.#isArea(thing) && this.#segment.kindOf(thing) === "town";
  }

  /** Words of free text that nothing explains, by in place. */
  #readWords(): void {
    const { tokens } = this.candidate;
    const left = wordsThat(tokens, (t) => tokens[t].part === undefined && this.#isLeft(t));
    if (!left.length) return;
    const name = this.#namePart();
    const of = new Map<PartName, number[]>();
    for (const t of left) {
      const part = this.#belongsTo(t, name);
      if (part) of.set(part, [...(of.get(part) ?? []), t]);
    }
    for (const [part, words] of of) this.#say(part, part === name ? this.#withCore(words) : words, this.#howOf(words));
  }

  #namePart(): PartName {
    const { thing, explained } = this.candidate;
    const kind = this.#segment.kindOf(thing);
    const isByHouseName = this.#core.some(
      (t) => explained[t].by !== NONE && explained[t].by >= this.#segment.firstHouse,
    );
    if (isByHouseName && !explained.some(({ by }) => by === thing)) return "house";
    return kind === "address" ? "house" : kind;
  }

  /** The words of a name with those beside them that were found: "Nosuch Lane", not "Nosuch". */
  #withCore(words: readonly number[]): number[] {
    const { explained, thing } = this.candidate;
    const stretches = new Set(words.map((t) => this.#stretch[t]));
    return [...words, ...this.#core.filter((t) => explained[t].by === thing && stretches.has(this.#stretch[t]))];
  }

  #belongsTo(t: number, name: PartName): PartName | undefined {
    const { tokens, thing } = this.candidate;
    // the record's name was not written, or no more than a number of it: what nothing explains is instead
    const named = this.#core.filter((c) => this.candidate.explained[c].by !== NONE);
    const isByWord = named.some((c) => tokens[c].kind === "word" && tokens[c].weight > TELLS.nothing);
    if (!isByWord && thing >= this.#segment.firstStreet && !this.#isAside(t)) return name;
    // in the middle of a name
    if (named.length && named[0] < t && t < named[named.length - 1]) return name;
    const own = this.#core.filter((c) => this.#stretch[c] === this.#stretch[t]);
    if (own.length) return this.#besideName(t, own, name);
    const stretch = wordsThat(tokens, (i) => this.#stretch[i] === this.#stretch[t]);
    const meaning = stretch.filter((i) => this.#isLeft(i));
    // a town that is known elsewhere, alone in the stretch; a firm may be called after one
    const area = this.#areaNamedBy(meaning) ?? this.#areaNamedBy(meaning, stretch);
    if (area) return area;
    const isStreet = meaning.some((i) => this.candidate.indexed.lexicon.isWay(tokens[i].text));
    if (isStreet && !this.#segment.isStreet(this.candidate.thing)) return name;
    // "Calle Zwiebrann, 15, Casas de Olmo" is no Avenida de la Casas de Olmo
    if (this.#isOtherStreet(stretch, meaning)) return name;
    const isBehind = this.#core.length > 0 && t > this.#core[this.#core.length - 1];
    const isAlone = meaning.length === stretch.length;
    return isBehind && isAlone && !this.#hasTown() && !this.#isAside(t) ? "town" : undefined;
  }

  /** True for a stretch before the number's own with words that nothing explains and a kind of street that is not the record's. */
  #isOtherStreet(stretch: readonly number[], meaning: readonly number[]): boolean {
    const { indexed, tokens, explained } = this.candidate;
    const isWay = (t: number) => indexed.lexicon.isWay(tokens[t].text);
    const ways = stretch.filter((t) => isWay(t) && !this.#isArea(explained[t].by));
    const house = explained.findIndex(({ as }) => as === "house");
    const isBeforeNumber = house >= 0 && this.#stretch[house] === this.#stretch[stretch[0]] + 1;
    if (!ways.length || meaning.every(isWay) || !isBeforeNumber) return false;
    if (tokens.some((_, t) => this.#stretch[t] === this.#stretch[house] && explained[t].as !== "house")) return false;
    const own = this.#ownWords();
    return ways.every(
      (t) => ![tokens[t].text, ...indexed.lexicon.otherForms(tokens[t].text)].some((form) => own.has(form)),
    );
  }

  /** A word in the stretch of the record's name. @param own the words of the name in that stretch */
  #besideName(t: number, own: readonly number[], name: PartName): PartName | undefined {
    const { tokens, explained } = this.candidate;
    const [first, last] = [own[0], own[own.length - 1]];
    if (t > first && t < last) return name;
    const area = this.#areaNamedBy([t]);
    if (area) return area;
    if (t < first) {
      // a person's or a firm's name before the number
      const isNumber = explained[first].as === "house" && this.#profile.number.stands === "before";
      return isNumber && own.length > 1 ? undefined : this.#isRunTo(t, first) ? name : undefined;
    }
    const isParted = this.#stretch[tokens.length - 1] > this.#stretch[0];
    const isBeforeArea = explained.some(({ by }, i) => i > t && by !== NONE && this.#segment.isArea(by));
    if (isParted || isBeforeArea)
      return this.#isRunTo(last, t) ? (this.#isWithinHouse(t, own) ? "unit" : name) : undefined;
    return this.#hasTown() ? undefined : "town";
  }

  /** True for a word behind the number where that stands behind the street: it is of no street's name. */
  #isWithinHouse(t: number, own: readonly number[]): boolean {
    const { tokens, explained } = this.candidate;
    const last = own[own.length - 1];
    // "Rua das Flores, 13 Bairro Alto": the street is in the stretch before
    const isNamed = own.length > 1 || this.#core.some((c) => this.#stretch[c] === this.#stretch[last] - 1);
    if (!isNamed || explained[last].as !== "house" || this.#profile.number.stands === "before") return false;
    return !tokens.some(({ kind }, i) => i > t && kind === "number" && this.#stretch[i] === this.#stretch[t]);
  }

  /** True when nothing but left words, and such as mean nothing by themselves, is between two words. */
  #isRunTo(from: number, to: number): boolean {
    const { tokens } = this.candidate;
    for (let t = from + 1; t < to; t++)
      if (!this.#isLeft(t) && !this.#done.has(t) && tokens[t].weight > TELLS.nothing) return false;
    return true;
  }

  /** True when the town was named, or what lies in it; the words of a country or a region say nothing of it. */
  #hasTown(): boolean {
    const { tokens, explained, thing } = this.candidate;
    const isTown = (area: number) =>
      this.#isTown(area) || (this.#isArea(area) && this.#segment.kindOf(area) === "district");
    if (explained.some(({ by }, t) => isTown(by) && tokens[t].weight > TELLS.nothing)) return true;
    // "1 Tidewell Street, Tidewell": the street explains both
    const { thingParent } = this.#segment.sections;
    for (let area = thingParent[thing]; area !== NONE; area = thingParent[area])
      if (isTown(area) && this.#isWrittenTwice(area)) return true;
    return false;
  }

  #isWrittenTwice(area: number): boolean {
    const { indexed, tokens } = this.candidate;
    const isTwice = (word: string) => tokens.filter(({ text }) => text === word).length > 1;
    return nameWords(this.#segment, area).some((name) => {
      const telling = name.filter((word) => !indexed.lexicon.isSmall(word));
      return telling.length > 0 && telling.every(isTwice);
    });
  }

  /** True for words of a telephone number and the like: a stretch of numbers alone, long ones. */
  #isAside(t: number): boolean {
    const { tokens } = this.candidate;
    const stretch = tokens.filter((_, i) => this.#stretch[i] === this.#stretch[t]);
    const digits = stretch.reduce((sum, { text }) => sum + text.replace(/\D/gu, "").length, 0);
    return stretch.every(({ kind }) => kind === "number") && digits > 5;
  }

  /** True for one of three numbers that stand by themselves. */
  #isDate(t: number): boolean {
    const stretch = this.candidate.tokens.filter((_, i) => this.#stretch[i] === this.#stretch[t]);
    return stretch.length === 3 && stretch.every(({ kind }) => kind === "number");
  }

  /**
   * What some words are together the full name of, elsewhere: a town or a country.
   * @param beside words that may be of the name too
   */
  #areaNamedBy(words: readonly number[], beside = words, isWhole = false): "town" | "country" | undefined {
    const { tokens, segments } = this.candidate;
    const typed = new Set(beside.map((t) => tokens[t].text));
    let looked = 0;
    for (const [s, segment] of segments.entries()) {
      const { termPosting, posting } = segment.sections;
      for (const t of words)
        for (const { from, to, node, quality } of tokens[t].rangesBySegment[s]) {
          if (node !== undefined || quality < QUALITY.abbreviation) continue;
          for (let term = from; term < to; term++)
            for (let p = termPosting[term * GROUPS + AREAS]; p < termPosting[term * GROUPS + POSTCODES]; p++) {
              if (++looked > MOST_AREAS) return undefined;
              const kind = segment.kindOf(posting[p]);
              if ((kind === "town" || kind === "country") && isNamed(segment, posting[p], typed, isWhole)) return kind;
            }
        }
    }
    return undefined;
  }
}

/** @param isWhole true where nothing else may have been typed */
const isNamed = (segment: Segment, area: number, typed: ReadonlySet<string>, isWhole = false) =>
  nameWords(segment, area).some(
    (words) => words.every((word) => typed.has(word)) && (!isWhole || words.length === typed.size),
  );

/** What is in an address beside its street: number, name, unit and postcode. */
function detailsOf(segment: Segment, address: number, { number: { stands } }: CountryProfile): string[] {
  const street = segment.streetOf(address);
  const { name = "", unit = "" } = segment.detailOf(address);
  const number = segment.numberOf(address);
  const postcode = segment.postcodeOf(street, address);
  return [
    name,
    unit,
    number ? formatHouseNumber(number, stands) : "",
    postcode === NONE ? "" : segment.namesOf(postcode)[0].name,
  ];
}
