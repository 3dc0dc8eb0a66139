import { descend, descendWithOneError, endsWord, GROUPS, POSTCODES, REST, type Segment } from "../index/index.ts";
import { type HouseNumber, KINDS, type Kind, type PartName, parseHouseNumber } from "../place/index.ts";
import { addressIn, type Lexicon, MAX_TOKENS, type NumberRole, type Token, tokenize } from "../text/index.ts";
import { cutInTwo, piecesOf, SHORTEST_CODE } from "./pieces.ts";
import { termsWithTwoErrors } from "./spelling.ts";
import { MENDED, QUALITY, TELLS, WEIGHT } from "./weights.ts";
import { type Role, readWithin } from "./within.ts";

/** A range of dictionary words that a typed word may stand for. */
export interface TermRange {
  from: number;
  to: number;
  /** 0 to 1. */
  quality: number;
  /** The node of the trie that all words of a beginning lie below. */
  node?: number;
}

/** A typed word with all that it may stand for. */
export interface QueryToken extends Token {
  /** In the dictionary of the segment that it is read for. */
  ranges: TermRange[];
  /** In that of each segment, in their order. */
  rangesBySegment: readonly TermRange[][];
  /** Its share of the text: small words count little. */
  weight: number;
  /** Bit set of KINDS whose names it may be part of. */
  kinds: number;
  /** The part it was given as, if given as parts. */
  part?: PartName;
  /** What it means when it is read as a house number, and may be one. */
  house?: HouseNumber;
  /** Place of a letter behind the number that may belong to it ("12 b"). */
  mate?: number;
  /** What the word beside a number makes of it, or what a word makes of the number beside it. */
  role?: NumberRole;
  /** True for a word that only names the kind of a number. */
  isLabel?: boolean;
  /** True for a word of a postcode, by its shape. */
  isCode?: boolean;
  /** True for a number with five digits and more that has the shape of a postcode: sooner that than a house. */
  mayBeCode?: boolean;
  /** True for the last word while the person is still at it. */
  unfinished?: boolean;
  /** True for a word that the dictionary holds, and that was not taken for a misspelt one besides. */
  isTrusted?: boolean;
  /** A piece of a longer word that was cut in two. */
  isCut?: boolean;
}

/** Words shorter than this are never taken for the beginning of another once they are left. */
const SHORTEST_BEGINNING = 2;
/** Words shorter than this are taken as typed: one error in two letters proves nothing. */
const SHORTEST_MISSPELT = 3;
/** While it is typed, a word shorter than this is taken for nothing but a beginning where it is one. */
const SHORTEST_MENDED = 5;
/** From here on two errors are tried, where one finds nothing. */
const SHORTEST_TWICE_MISSPELT = 6;
/** The same while a person is typing: looking for two errors goes through all of the dictionary, and what is half typed is mostly like nothing. */
const SHORTEST_TWICE_WHILE_TYPED = 8;
/** A text in which more words than these are lost is no address with typing errors. */
const MOST_TWICE_MISSPELT = 3;
const ALL_KINDS = (1 << KINDS.length) - 1;

const KINDS_OF_PART: Readonly<Record<PartName, readonly Kind[]>> = {
  house: ["address"],
  unit: [],
  floor: [],
  building: ["address", "place"],
  block: ["block", "street"],
  street: ["street", "block"],
  place: ["place"],
  district: ["district", "town"],
  town: ["town", "district", "county"],
  county: ["county", "region"],
  region: ["region", "county"],
  postcode: ["postcode"],
  country: ["country"],
};

/**
 * What a text is read against: the dictionaries of all segments, as if they were one. A word that one of them holds is not
 * misspelt in any other, and it tells as little as it is common in all.
 */
export interface Dictionary {
  readonly segments: readonly Segment[];
  /** Those that do not lie on top of another. */
  readonly bases: readonly Segment[];
  readonly lexicon: Lexicon;
  /** Shapes of the postcodes of the countries with data, of two words or more. */
  readonly codeShapes: readonly RegExp[];
  /** Those of all of them. */
  readonly wordShapes: readonly RegExp[];
}

/** How a text is read. */
export interface InterpretOptions {
  /** True while the person is typing: the last word may be unfinished. */
  completing: boolean;
  /** True to take words that the dictionary holds for misspelt ones too. */
  doubting: boolean;
  /** What the text was given as, if given as parts. */
  part?: PartName;
  /** True for a street that may have its number with it: no part holds that. */
  hasNumber?: boolean;
}

/**
 * The words of a text for each segment of a dictionary, in their order. They are the same words but for what they stand for
 * in it.
 */
export type ReadText = readonly QueryToken[][];

/** Reads a text against a dictionary. */
export function interpret(dictionary: Dictionary, text: string, manner: InterpretOptions): ReadText {
  return interpretTokens(dictionary, tokenize(manner.part ? text : addressIn(text)), manner);
}

function interpretTokens(dictionary: Dictionary, words: readonly Token[], manner: InterpretOptions): ReadText {
  const { completing, doubting, part, hasNumber } = manner;
  const { segments, bases, lexicon } = dictionary;
  const kinds = part ? KINDS_OF_PART[part].reduce((bits, kind) => bits | (1 << KINDS.indexOf(kind)), 0) : ALL_KINDS;
  const roles = rolesOf(words, lexicon, part);
  const codes = part ? [] : codesIn(words, dictionary.codeShapes).filter((i) => !roles[i].role);
  const tokens = words.map((token, i, all): QueryToken => {
    const unfinished = completing && token.open && i === all.length - 1;
    const { role, isLabel, isAside } = roles[i];
    const isCode = codes.includes(i);
    const mayBeHouse = token.kind === "number" && (role ?? "house") === "house" && (hasNumber || isHousePart(part));
    const house = mayBeHouse ? parseHouseNumber(token.text) : undefined;
    const isNamed = kinds && !isAside && !(role && !isLabel);
    const isHalf = () => isWordTogether(segments, all[i - 1], token) || isWordTogether(segments, token, all[i + 1]);
    const meant = isNamed ? rangesOf(dictionary, token, unfinished, doubting, isHalf) : nothingMeant(segments);
    // spelt out: copying a token by spreading it took a tenth of a lookup
    return {
      text: token.text,
      kind: token.kind,
      start: token.start,
      end: token.end,
      from: token.from,
      open: token.open,
      isParted: token.isParted,
      sign: token.sign,
      part,
      kinds,
      role,
      isLabel,
      house,
      isCode,
      mayBeCode:
        house && token.text.length >= SHORTEST_CODE && dictionary.wordShapes.some((shape) => shape.test(token.text)),
      unfinished,
      isTrusted: !doubting && mayBeMisspelt(token) && meant.first > QUALITY.spelling,
      ranges: meant.ranges[0],
      rangesBySegment: meant.ranges,
      mate: undefined,
      isCut: false,
      weight: isCode ? TELLS.code : weightOf(bases, token, roles[i], lexicon, unfinished, meant.names),
    };
  });
  tokens.forEach((token, i) => {
    const next = tokens[i + 1];
    if (!next) return;
    if (token.house && !token.house.suffix && maySuffix(segments, next)) {
      token.mate = i + 1;
      // small elsewhere ("ter" in Dutch), not behind a number
      if (next.text.length > 1) next.weight = Math.max(next.weight, TELLS.leastRare);
    }
    addJoined(segments, token, next, completing && next.open && i + 2 === tokens.length);
  });
  joinBlocks(tokens);
  if (kinds) for (const token of tokens) if (!token.role && isUnknown(token)) addMisspeltWay(dictionary, token);
  const lost = tokens.filter((token) => kinds && !token.role && mayBeTwiceMisspelt(dictionary, token, completing));
  if (lost.length <= MOST_TWICE_MISSPELT) for (const token of lost) addTwiceMisspelt(dictionary, token);
  return segments.map((_, s) =>
    s === 0 ? tokens : tokens.map((token) => ({ ...token, ranges: token.rangesBySegment[s] })),
  );
}

/** True for what stands for nothing in any segment. */
export const isUnknown = ({ rangesBySegment }: QueryToken): boolean =>
  rangesBySegment.every((ranges) => !ranges.length);

/** For each word the stretch between separators, or the part, that contains it, from 0 on. */
export function stretchesOf(tokens: readonly QueryToken[]): number[] {
  let stretch = 0;
  return tokens.map(({ isParted, part }, t) => {
    if (t > 0 && (isParted || part !== tokens[t - 1].part)) stretch++;
    return stretch;
  });
}

/** What may stand behind a number as part of it, besides one letter: "10 bis", "12-hs", "4816 1/2". */
const SUFFIX = /^(?:\p{L}|bis|ter|quater|hs|[1-3]\/[2-4])$/u;

function maySuffix(segments: readonly Segment[], { text, isParted }: Token): boolean {
  if (isParted || !SUFFIX.test(text)) return false;
  return segments.some(
    (segment) => segment.hasSuffix(text) || segment.hasSuffix(`/${text}`) || segment.hasSuffix(`-${text}`),
  );
}

/** "2番3号": the block and the house are one number, 2-3. */
function joinBlocks(tokens: QueryToken[]): void {
  for (let i = 0; i + 2 < tokens.length; i++) {
    const [block, word, house] = [tokens[i], tokens[i + 1], tokens[i + 2]];
    if (!block.house || !house.house || house.house.suffix || !/^番地?$/.test(word.text)) continue;
    block.house = { number: block.house.number, suffix: `-${house.text}` };
    house.house = undefined;
    for (const ranges of house.rangesBySegment) ranges.length = 0;
    house.isLabel = true;
    house.weight = WEIGHT.label;
  }
}

const isHousePart = (part?: PartName) => part === undefined || part === "house" || part === "building";

/** Places of two words that together have the shape of a postcode: known or not, they are one thing typed. */
function codesIn(words: readonly Token[], shapes: readonly RegExp[]): number[] {
  const places: number[] = [];
  for (let i = 1; i < words.length && shapes.length; i++) {
    const [word, next] = [words[i - 1], words[i]];
    // a postcode without a digit is none
    if (next.isParted || !(DIGIT.test(word.text) || DIGIT.test(next.text))) continue;
    if (shapes.some((shape) => shape.test(`${word.text} ${next.text}`))) places.push(i - 1, i);
  }
  return places;
}

const DIGIT = /\d/;

/** "Care of" in some languages, the ground floor, and that there is no number. */
const ASIDE: ReadonlySet<string> = new Set(["c/o", "a/c", "p/a", "r/c", "s/n"]);

/** What the words beside numbers say of them. */
function rolesOf(words: readonly Token[], lexicon: Lexicon, part?: PartName): Role[] {
  if (part === "unit" || part === "floor") return words.map(() => ({ role: part }));
  const roles = words.map((): Role => ({}));
  words.forEach((word, i) => {
    if (word.kind !== "word") return;
    const [last, next] = [words[i - 1], words[i + 1]];
    // "14 piano terra": that number is of no floor
    if (next && lexicon.aloneWithin(next.text).some((phrase) => phrase.join() === `${word.text},${next.text}`)) return;
    // "ReadText Room, 12 Mill Lane": what is behind a comma is of something else
    const mayBehind = last?.kind === "number" && !word.isParted && !roles[i - 1].role;
    const mayAhead = next && !next.isParted && (next.kind === "number" || next.text.length === 1);
    const after = mayBehind ? lexicon.roleAfter(word.text) : undefined;
    const before = mayAhead ? lexicon.roleBefore(word.text) : undefined;
    const isBehind = mayBehind && after;
    const isAhead = mayAhead && before && (next.kind === "number" || before === "unit");
    // "2nd floor 12 …": an ordinal belongs to the word behind it
    if (isAhead && !roles[i].role && !(isBehind && (last.sign === "º" || FLOOR.test(last.text)))) {
      roles[i] = { role: before, isLabel: true };
      roles[i + 1] = { role: before };
      // the groups of a telephone number
      if (before === "telephone")
        for (let t = i + 2; words[t]?.kind === "number" && !words[t].isParted; t++) roles[t] = { role: before };
      // "Caixa Postal 12": what leads up to a box is of the box, where that has a stretch of its own
      if (before === "box") labelStretch(words, roles, i);
    } else if (isBehind) {
      roles[i - 1] = { role: after };
      roles[i] = { role: after, isLabel: true };
    }
  });
  if (words.some(({ sign }) => sign)) readSigns(words, roles, lexicon);
  if (!part) {
    keepHouse(words, roles);
    readWithin(words, roles, lexicon);
  }
  return roles;
}

/** Digits of a number that is more likely a postcode than a house's. */
const DIGITS_OF_CODE = 4;

/** "Schulstraße 2 Geschoss", "Avenida Ouro, 12 frente": the only number is the house's, whatever the word behind it is. */
function keepHouse(words: readonly Token[], roles: Role[]): void {
  const isNumber = (i: number) => words[i]?.kind === "number" && !words[i].sign && !FLOOR.test(words[i].text);
  const digits = (i: number) => (isNumber(i) ? words[i].text.replace(/\D/gu, "").length : 0);
  const isCode = (i: number) =>
    Math.max(
      digits(i),
      words[i].isParted ? 0 : digits(i - 1) + digits(i),
      words[i + 1]?.isParted === false ? digits(i) + digits(i + 1) : 0,
    ) >= DIGITS_OF_CODE;
  if (words.some((_, i) => isNumber(i) && !isCode(i) && !roles[i].role)) return;
  const at = words.findIndex((_, i) => {
    const { role, isLabel } = roles[i];
    const isByNext = roles[i + 1]?.isLabel && !words[i + 1].isParted && !roles[i - 1]?.isLabel;
    return isNumber(i) && (role === "unit" || role === "floor") && !isLabel && isByNext;
  });
  if (at > 0 && words.slice(0, at).some(({ kind }, i) => kind === "word" && !roles[i].role)) roles[at] = {};
}

/** "c/o", "#3, 12 Mill Lane", "7º B, Calle Mayor, 39": what is no street and no house, as long as there is another number. */
function readSigns(words: readonly Token[], roles: Role[], lexicon: Lexicon): void {
  words.forEach(({ sign, text }, i) => {
    if (sign === "/" && ASIDE.has(`${text}/${words[i + 1]?.text}`))
      roles[i] = roles[i + 1] = { isLabel: true, isAside: true };
  });
  if (!words.some(({ kind, sign }, i) => kind === "number" && !sign && !roles[i].role)) return;
  for (let from = 0, to = 0; from < words.length; from = to) {
    for (to = from + 1; to < words.length && !words[to].isParted; ) to++;
    const isOfUnit = (i: number) =>
      words[i].sign === "º" || words[i].text.length === 1 || roles[i].role || lexicon.roleAfter(words[i].text);
    const isUnit = Array.from({ length: to - from }, (_, i) => isOfUnit(from + i)).every(Boolean);
    // "#8 Chapel Avenue, 84078": beside words that name something, and without another number there, it is the house's
    const isHouse = !isUnit && !words.slice(from, to).some(isPlainNumber);
    for (let i = from; i < to; i++) {
      if (words[i].sign === "#" && !roles[i].role && !isHouse) roles[i] = { role: "unit" };
      if (!isUnit || words[from].sign !== "º" || roles[i].role) continue;
      roles[i] = words[i].kind === "number" ? { role: "floor" } : { isLabel: true, isAside: true };
    }
  }
}

/** A number of a floor as it is written out; "15A verdieping 2" is no floor called 15A. */
const FLOOR = /^\d{1,2}(?:st|nd|rd|th|er|ere|e|eme|i|de|ste|te)$/;
/** An ordinal is of a name: "101st". */
const ORDINAL = /^\d+(?:st|nd|rd|th)$/;
const isPlainNumber = ({ kind, sign, text }: Token) => kind === "number" && !sign && !ORDINAL.test(text);

/** Takes all words before one for labels like it, back to the separator, where no number is among them. */
function labelStretch(words: readonly Token[], roles: Role[], label: number): void {
  let first = label;
  while (first > 0 && !words[first].isParted) first--;
  for (let t = first; t < label; t++) if (words[t].kind === "number") return;
  const behind = words[label + 2];
  if (behind && !behind.isParted) return;
  for (let t = first; t < label; t++) roles[t] = { role: roles[label].role, isLabel: true };
}

/** @param names in how many names it is, the most common of what it may stand for */
function weightOf(
  bases: readonly Segment[],
  token: Token,
  { role, isLabel }: Role,
  lexicon: Lexicon,
  unfinished: boolean,
  names: number,
): number {
  if (isLabel) return WEIGHT.label;
  if (role && role !== "house") return WEIGHT[role];
  if (unfinished) return WEIGHT[token.kind];
  if (lexicon.isSmall(token.text)) return WEIGHT.small;
  if (token.kind !== "word") return WEIGHT.number;
  // a kind of street that no name here has: its register has the streets without it
  return names === 0 && lexicon.isBareWay(token.text) ? TELLS.leastRare : rarity(bases, names);
}

/** How much a word tells, by how many names it is in: "street" tells little, a word of one name in a hundred all. */
function rarity(bases: readonly Segment[], names: number): number {
  const things = bases.reduce((sum, { meta }) => sum + meta.counts.things, 0);
  const all = Math.max(names, things, 2);
  return Math.min(WEIGHT.word, TELLS.leastRare + ((1 - TELLS.leastRare) * 2 * Math.log(all / names)) / Math.log(all));
}

/** A long word for which nothing else was found may have two errors: that is looked for last, since it takes longest. */
function mayBeTwiceMisspelt({ segments }: Dictionary, token: QueryToken, completing: boolean): boolean {
  const { text, unfinished = false } = token;
  if (!isUnknown(token) || text.length < (completing ? SHORTEST_TWICE_WHILE_TYPED : SHORTEST_TWICE_MISSPELT))
    return false;
  return mayBeMisspelt(token) && !cutInTwo(segments, token, unfinished);
}

/** A word that nothing in the data is like may be a kind of street with two errors. */
function addMisspeltWay({ segments, lexicon }: Dictionary, token: QueryToken): void {
  if (token.unfinished || !mayBeMisspelt(token)) return;
  for (const way of lexicon.waysLike(token.text))
    segments.forEach(({ sections }, s) => {
      const node = descend(sections, 0, way);
      if (node < 0 || !endsWord(sections, node)) return;
      const from = sections.nodeTermFrom[node];
      token.rangesBySegment[s].push({ from, to: from + 1, quality: MENDED.twoErrors });
    });
}

function addTwiceMisspelt({ segments }: Dictionary, { text, unfinished = false, rangesBySegment }: QueryToken): void {
  segments.forEach((segment, s) => {
    for (const term of termsWithTwoErrors(segment, text, unfinished))
      rangesBySegment[s].push({ from: term, to: term + 1, quality: MENDED.twoErrors });
  });
}

/**
 * The same words with the last, which so far is only the beginning of one, as a complete word with an error in it: "pataya"
 * on the way to a hamlet may mean a city.
 * @param least importance, 0 to 1, of the most important thing that the word must be of
 * @returns undefined where no word as important is like it
 */
export function mendLast({ segments }: Dictionary, reading: ReadText, least: number): ReadText | undefined {
  const [tokens] = reading;
  const last = tokens[tokens.length - 1];
  const { text, unfinished, rangesBySegment } = last;
  if (!unfinished || least > 1 || text.length < SHORTEST_MENDED || !mayBeMisspelt(last)) return undefined;
  // what is around a number tells enough by itself
  if (tokens.some(({ house }) => house)) return undefined;
  if (isUnknown(last) || rangesBySegment.some((ranges) => ranges.some(({ node }) => node === undefined)))
    return undefined;
  const mended = segments.map((segment) => {
    const ranges: TermRange[] = [];
    descendWithOneError(segment.sections, text, (node) => {
      const from = segment.sections.nodeTermFrom[node];
      if (endsWord(segment.sections, node) && mostImportant(segment, from) >= least)
        ranges.push({ from, to: from + 1, quality: QUALITY.spelling });
    });
    return ranges;
  });
  if (mended.every((ranges) => !ranges.length)) return undefined;
  return reading.map((list, s) => list.with(-1, { ...last, ranges: mended[s], rangesBySegment: mended }));
}

/** Importance, 0 to 1, of the most important thing that has a word in the name. */
function mostImportant({ sections: { termPosting, posting, thingImportance } }: Segment, term: number): number {
  let most = 0;
  // areas are few, and in the order of their numbers; the rest begins with the most important
  for (let p = termPosting[term * GROUPS]; p < termPosting[term * GROUPS + POSTCODES]; p++)
    most = Math.max(most, thingImportance[posting[p]]);
  const rest = termPosting[term * GROUPS + REST];
  if (rest < termPosting[term * GROUPS + REST + 1]) most = Math.max(most, thingImportance[posting[rest]]);
  return most / 65_535;
}

/** True for two words that are a word of the dictionary together: neither of them is misspelt. */
function isWordTogether(segments: readonly Segment[], one: Token | undefined, next: Token | undefined): boolean {
  if (one?.kind !== "word" || next?.kind !== "word" || next.isParted) return false;
  return segments.some(({ sections }) => {
    const node = descend(sections, descend(sections, 0, one.text), next.text);
    return node >= 0 && endsWord(sections, node);
  });
}

/** Lets two words stand for one that is both of them together. */
function addJoined(segments: readonly Segment[], token: QueryToken, next: QueryToken, unfinished: boolean): void {
  const isCode = token.kind === "number" && next.kind === "number" && !next.isParted;
  if (token.isLabel || (token.house && !isCode) || token.part !== next.part) return;
  const nodes = segments.map(({ sections }) => descend(sections, descend(sections, 0, token.text), next.text));
  const isWhole = segments.some(({ sections }, s) => nodes[s] >= 0 && endsWord(sections, nodes[s]));
  segments.forEach(({ sections }, s) => {
    const node = nodes[s];
    if (node < 0) return;
    const from = sections.nodeTermFrom[node];
    const both = (range: TermRange) => {
      token.rangesBySegment[s].push(range);
      next.rangesBySegment[s].push(range);
    };
    if (endsWord(sections, node)) both({ from, to: from + 1, quality: QUALITY.joined });
    else if (unfinished && !isWhole)
      both({ from, to: sections.nodeTermTo[node], quality: QUALITY.joined * QUALITY.prefix, node });
  });
}

/**
 * The same words with those that the dictionary does not hold cut in two it does hold ("harbourrow").
 * @returns undefined when there are none
 */
export function cutCompounds(dictionary: Dictionary, [tokens]: ReadText, completing: boolean): ReadText | undefined {
  const isWhole = ({ role, rangesBySegment }: QueryToken) =>
    role !== undefined || rangesBySegment.some((ranges) => ranges.some(({ quality }) => quality > QUALITY.spelling));
  if (tokens.every(isWhole)) return undefined;
  // "2丁目21-3" has the number of the quarter already
  const isQuarterWritten = tokens.some(({ text }) => text.endsWith("丁目") || text === "chome");
  const pieces = tokens.map((token, i) =>
    isWhole(token) ? undefined : piecesOf(dictionary, token, completing && i === tokens.length - 1, isQuarterWritten),
  );
  if (pieces.every((one) => !one)) return undefined;
  const words = pieces.flatMap((one, i) => one ?? tokens[i]);
  if (words.length > MAX_TOKENS) return undefined;
  const read = interpretTokens(dictionary, words, { completing, doubting: false });
  const isAsTyped = read[0].map(({ start, end }) => tokens.some((one) => start === one.start && end === one.end));
  for (const list of read)
    list.forEach((token, t) => {
      token.isCut = !isAsTyped[t];
    });
  return read;
}

/** One letter or digit of a code changed is another code. */
const mayBeMisspelt = ({ kind, text }: Token) =>
  kind === "word" && text.length >= SHORTEST_MISSPELT && !/\d/.test(text);

/** A postcode with the dash elsewhere, or without one, and without what only sorters read: "47623-444", "97005-0001". */
function* otherCodes(text: string): Iterable<string> {
  if (text.length < SHORTEST_CODE || !/^\d+(?:-\d+)?$/.test(text)) return;
  const [first, ...rest] = text.split("-");
  if (rest.length) {
    yield first + rest.join("");
    if (first.length === 5 && rest[0].length === 4) yield first;
    return;
  }
  for (let at = 2; at <= text.length - 3; at++) yield `${text.slice(0, at)}-${text.slice(at)}`;
}

/** What a word may stand for. */
interface Meant {
  /** By segment, in the order in which they were looked for. */
  ranges: TermRange[][];
  /** Quality of what was found first in any of them, 0 where there is nothing. */
  first: number;
  /** In how many names of all segments it is, the most common of what is as good as the word itself; 1 at least. */
  names: number;
}

const nothingMeant = (segments: readonly Segment[]): Meant => ({ ranges: segments.map(() => []), first: 0, names: 1 });

/**
 * What a word may stand for in a dictionary.
 * @param unfinished it may go on
 * @param doubting it may be misspelt although the dictionary holds it
 * @param isHalf tells whether it is a word together with one beside it
 */
export function rangesOf(
  dictionary: Dictionary,
  token: Token,
  unfinished: boolean,
  doubting: boolean,
  isHalf = () => false,
): Meant {
  const { segments, lexicon } = dictionary;
  const meant = nothingMeant(segments);
  const add = (s: number, range: TermRange) => {
    meant.first ||= range.quality;
    meant.ranges[s].push(range);
  };
  const complete = (s: number, node: number, quality: number) => {
    const trie = segments[s].sections;
    const from = trie.nodeTermFrom[node];
    if (endsWord(trie, node)) add(s, { from, to: from + 1, quality });
  };
  // a word that ends at the node was taken as complete before
  const below = (s: number, node: number, quality: number) => {
    const trie = segments[s].sections;
    const from = trie.nodeTermFrom[node] + (endsWord(trie, node) ? 1 : 0);
    const to = trie.nodeTermTo[node];
    if (from < to) add(s, { from, to, quality, node });
  };
  /** Takes a word as it stands wherever it is one. */
  const form = (text: string, quality: number) => {
    let names = 0;
    for (let s = 0; s < segments.length; s++) {
      const node = descend(segments[s].sections, 0, text);
      if (node < 0) continue;
      complete(s, node, quality);
      if (quality >= QUALITY.abbreviation && dictionary.bases.includes(segments[s]))
        names += namesAt(segments[s], node);
    }
    meant.names = Math.max(meant.names, names);
  };
  const isEmpty = () => meant.ranges.every((ranges) => !ranges.length);
  const isWhole = () => meant.ranges.some((ranges) => ranges.some(({ node }) => node === undefined));

  form(token.text, unfinished ? MENDED.wholeSoFar : QUALITY.same);
  for (const other of lexicon.otherForms(token.text)) form(other, QUALITY.abbreviation);
  if (token.kind === "number" && isEmpty()) for (const code of otherCodes(token.text)) form(code, QUALITY.joined);
  if (unfinished || (token.kind === "word" && token.text.length >= SHORTEST_BEGINNING))
    for (let s = 0; s < segments.length; s++) {
      const end = descend(segments[s].sections, 0, token.text);
      if (end >= 0) below(s, end, unfinished ? QUALITY.prefix : MENDED.leftShort);
    }
  if (!mayBeMisspelt(token)) return meant;
  // once the person has gone on, a beginning alone is no word that is known: "Rod" for Road where there is a Rodney
  const isKnown = unfinished ? !isEmpty() : isWhole();
  if (!doubting && (isKnown || isHalf())) return meant;
  segments.forEach(({ sections }, s) => {
    descendWithOneError(sections, token.text, (node) => {
      complete(s, node, unfinished && isKnown ? MENDED.begunMisspelt : QUALITY.spelling);
      if (unfinished && !isKnown) below(s, node, MENDED.begunMisspelt);
    });
  });
  // "tanenpl": written out before it is mended
  if (!unfinished && !isWhole()) {
    const forms = lexicon.writtenOut(token.text);
    for (const other of forms) form(other, QUALITY.abbreviation);
    if (!isWhole())
      for (const other of forms)
        segments.forEach(({ sections }, s) => {
          descendWithOneError(sections, other, (node) => complete(s, node, MENDED.shortAndMisspelt));
        });
  }
  return meant;
}

/** True for a word that, were it complete, might be another one with an error in it. */
export function isLikeAnother({ segments, lexicon }: Dictionary, token: Token): boolean {
  if (!mayBeMisspelt(token)) return false;
  if (lexicon.writtenOut(token.text).length) return true;
  return segments.some(({ sections }) => {
    let isLike = false;
    descendWithOneError(sections, token.text, (node) => {
      isLike ||= endsWord(sections, node);
    });
    return isLike;
  });
}

/** In how many names of streets, places and houses the word is that ends at a node. */
function namesAt({ sections }: Segment, node: number): number {
  const { termPosting, nodeTermFrom } = sections;
  if (!endsWord(sections, node)) return 0;
  const slot = nodeTermFrom[node] * GROUPS + REST;
  return termPosting[slot + 1] - termPosting[slot];
}
