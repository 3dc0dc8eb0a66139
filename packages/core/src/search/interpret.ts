import { descend, descendWithOneError, endsWord, GROUPS, POSTCODES, REST, type Segment } from "../index/index.ts";
import { type HouseNumber, KINDS, type Kind, type PartName, parseHouseNumber } from "../place/index.ts";
import { type Lexicon, MAX_TOKENS, type NumberRole, type Token, tokenize } from "../text/index.ts";
import { termsWithTwoErrors } from "./spelling.ts";
import { MENDED, QUALITY, TELLS, WEIGHT } from "./weights.ts";

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
  ranges: TermRange[];
  /** How much of the whole it is: small words count little. */
  weight: number;
  /** Bit set of KINDS whose names it may be part of. */
  kinds: number;
  /** The part it was given as, if given as parts. */
  part?: PartName;
  /** What it says when it is read as a house number, and may be one. */
  house?: HouseNumber;
  /** Place of a letter behind the number that may belong to it ("12 b"). */
  mate?: number;
  /** What the word beside a number says that it is, or what a word says of the number beside it. */
  role?: NumberRole;
  /** True for a word that only says what a number is. */
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
/** Words shorter than this are taken as typed: one error in two letters says nothing. */
const SHORTEST_MISSPELT = 3;
/** While it is typed, a word shorter than this is taken for nothing but a beginning where it is one. */
const SHORTEST_MENDED = 5;
/** From here on two errors are tried, where one finds nothing. */
const SHORTEST_TWICE_MISSPELT = 6;
/** The same while a person is typing: looking for two errors goes through the whole dictionary, and what is half typed is mostly like nothing. */
const SHORTEST_TWICE_WHILE_TYPED = 8;
/** A text in which more words than these are lost is no address with typing errors. */
const MOST_TWICE_MISSPELT = 3;
/** A compound is cut into pieces no shorter than this. */
const SHORTEST_PIECE = 3;
/** The same of what was written without a space between several words, and how many. */
const SHORTEST_OF_MANY = 9;
const MOST_PIECES = 6;
/** The same of a postcode that was written as one: "10115" for "101 15", "1012ab" for "1012 ab". */
const SHORTEST_OF_CODE = 2;
const SHORTEST_CODE = 5;
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

/** What a reading is on. */
export interface Dictionary {
  readonly segment: Segment;
  readonly lexicon: Lexicon;
  /** Shapes of the postcodes of the countries with data, of two words or more. */
  readonly codeShapes: readonly RegExp[];
  /** Those of all of them. */
  readonly wordShapes: readonly RegExp[];
  /** What this lies on top of: a word that is known there is not misspelt here. */
  readonly below?: Segment;
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

/** Reads a text against the dictionary of a segment. */
export function interpret(dictionary: Dictionary, text: string, manner: InterpretOptions): QueryToken[] {
  return interpretTokens(dictionary, tokenize(text), manner);
}

function interpretTokens(dictionary: Dictionary, words: readonly Token[], manner: InterpretOptions) {
  const { completing, doubting, part, hasNumber } = manner;
  const { segment, lexicon } = dictionary;
  const kinds = part ? KINDS_OF_PART[part].reduce((bits, kind) => bits | (1 << KINDS.indexOf(kind)), 0) : ALL_KINDS;
  const roles = rolesOf(words, lexicon, part);
  const codes = part ? [] : codesIn(words, dictionary.codeShapes).filter((i) => !roles[i].role);
  const tokens = words.map((token, i, all): QueryToken => {
    const unfinished = completing && token.open && i === all.length - 1;
    const { role, isLabel, isAside } = roles[i];
    const isCode = codes.includes(i);
    const mayBeHouse = token.kind === "number" && (role ?? "house") === "house" && (hasNumber || isHousePart(part));
    const house = mayBeHouse ? parseHouseNumber(token.text) : undefined;
    const ranges = kinds && !isAside && !(role && !isLabel) ? rangesOf(dictionary, token, unfinished, doubting) : [];
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
      isTrusted: !doubting && mayBeMisspelt(token) && ranges.length > 0 && ranges[0].quality > QUALITY.spelling,
      ranges,
      mate: undefined,
      isCut: false,
      weight: isCode ? TELLS.code : weightOf(segment, token, roles[i], lexicon, unfinished, ranges),
    };
  });
  tokens.forEach((token, i) => {
    const next = tokens[i + 1];
    if (!next) return;
    if (token.house && !token.house.suffix && maySuffix(segment, next)) {
      token.mate = i + 1;
      // small elsewhere ("ter" in Dutch), not behind a number
      if (next.text.length > 1) next.weight = Math.max(next.weight, TELLS.leastRare);
    }
    addJoined(segment, token, next, completing && next.open && i + 2 === tokens.length);
  });
  joinBlocks(tokens);
  if (kinds) for (const token of tokens) if (!token.role && !token.ranges.length) addMisspeltWay(dictionary, token);
  const lost = tokens.filter((token) => kinds && !token.role && mayBeTwiceMisspelt(dictionary, token, completing));
  if (lost.length <= MOST_TWICE_MISSPELT) for (const token of lost) addTwiceMisspelt(dictionary, token);
  return tokens;
}

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

function maySuffix(segment: Segment, { text, isParted }: Token): boolean {
  if (isParted || !SUFFIX.test(text)) return false;
  return segment.hasSuffix(text) || segment.hasSuffix(`/${text}`) || segment.hasSuffix(`-${text}`);
}

/** "2番3号": the block and the house are one number, 2-3. */
function joinBlocks(tokens: QueryToken[]): void {
  for (let i = 0; i + 2 < tokens.length; i++) {
    const [block, word, house] = [tokens[i], tokens[i + 1], tokens[i + 2]];
    if (!block.house || !house.house || house.house.suffix || !/^番地?$/.test(word.text)) continue;
    block.house = { number: block.house.number, suffix: `-${house.text}` };
    house.house = undefined;
    house.ranges = [];
    house.isLabel = true;
    house.weight = WEIGHT.label;
  }
}

const isHousePart = (part?: PartName) => part === undefined || part === "house" || part === "building";

/** Places of two words that together have the shape of a postcode: known or not, they are one thing typed. */
function codesIn(words: readonly Token[], shapes: readonly RegExp[]): number[] {
  return words.flatMap((word, i) => {
    const next = words[i + 1];
    const isCode = next && !next.isParted && shapes.some((shape) => shape.test(`${word.text} ${next.text}`));
    return isCode ? [i, i + 1] : [];
  });
}

interface Role {
  role?: NumberRole;
  isLabel?: boolean;
  /** True for what is part of no name. */
  isAside?: boolean;
}

/** "Care of" in some languages, the ground floor, and that there is no number. */
const ASIDE: ReadonlySet<string> = new Set(["c/o", "a/c", "p/a", "r/c", "s/n"]);

/** What the words beside numbers say of them. */
function rolesOf(words: readonly Token[], lexicon: Lexicon, part?: PartName): Role[] {
  if (part === "unit" || part === "floor") return words.map(() => ({ role: part }));
  const roles = words.map((): Role => ({}));
  words.forEach((word, i) => {
    if (word.kind !== "word") return;
    const [last, next] = [words[i - 1], words[i + 1]];
    const before = lexicon.roleBefore(word.text);
    const after = lexicon.roleAfter(word.text);
    // "Reading Room, 12 Mill Lane": what is behind a comma is of something else
    const isBehind = after && last?.kind === "number" && !word.isParted && !roles[i - 1].role;
    const isAhead =
      before && next && !next.isParted && (next.kind === "number" || (next.text.length === 1 && before === "unit"));
    // "2nd floor 12 …": an ordinal belongs to the word behind it
    if (isAhead && !roles[i].role && !(isBehind && /\D/.test(last.text))) {
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
  return roles;
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
    for (let i = from; i < to; i++) {
      if (words[i].sign === "#" && !roles[i].role) roles[i] = { role: "unit" };
      if (!isUnit || words[from].sign !== "º" || roles[i].role) continue;
      roles[i] = words[i].kind === "number" ? { role: "floor" } : { isLabel: true, isAside: true };
    }
  }
}

/** Takes all words before one for labels like it, back to the separator, where no number is among them. */
function labelStretch(words: readonly Token[], roles: Role[], label: number): void {
  let first = label;
  while (first > 0 && !words[first].isParted) first--;
  for (let t = first; t < label; t++) if (words[t].kind === "number") return;
  const behind = words[label + 2];
  if (behind && !behind.isParted) return;
  for (let t = first; t < label; t++) roles[t] = { role: roles[label].role, isLabel: true };
}

function weightOf(
  segment: Segment,
  token: Token,
  { role, isLabel }: Role,
  lexicon: Lexicon,
  unfinished: boolean,
  ranges: readonly TermRange[],
): number {
  if (isLabel) return WEIGHT.label;
  if (role && role !== "house") return WEIGHT[role];
  if (unfinished) return WEIGHT[token.kind];
  if (lexicon.isSmall(token.text)) return WEIGHT.small;
  return token.kind === "word" ? rarity(segment, ranges) : WEIGHT.number;
}

/** How much a word tells, by how many names it is in: "street" tells little, a word of one name in a hundred all. */
function rarity(segment: Segment, ranges: readonly TermRange[]): number {
  const { termPosting } = segment.sections;
  let names = 1;
  for (const { from, quality } of ranges) {
    if (quality < QUALITY.abbreviation) continue;
    names = Math.max(names, termPosting[from * GROUPS + REST + 1] - termPosting[from * GROUPS + REST]);
  }
  const all = Math.max(names, segment.meta.counts.things, 2);
  return Math.min(WEIGHT.word, TELLS.leastRare + ((1 - TELLS.leastRare) * 2 * Math.log(all / names)) / Math.log(all));
}

/** A long word for which nothing else was found may have two errors: that is looked for last, since it takes longest. */
function mayBeTwiceMisspelt({ segment, below }: Dictionary, token: QueryToken, completing: boolean): boolean {
  const { text, unfinished = false } = token;
  if (token.ranges.length || text.length < (completing ? SHORTEST_TWICE_WHILE_TYPED : SHORTEST_TWICE_MISSPELT))
    return false;
  if (!mayBeMisspelt(token)) return false;
  if (below && descend(below.sections, 0, text) >= 0) return false;
  return !cutInTwo(segment, token, unfinished);
}

/** A word that nothing in the data is like may be a kind of street with two errors. */
function addMisspeltWay({ segment: { sections }, lexicon }: Dictionary, token: QueryToken): void {
  if (token.unfinished || !mayBeMisspelt(token)) return;
  for (const way of lexicon.waysLike(token.text)) {
    const node = descend(sections, 0, way);
    const from = node < 0 ? -1 : sections.nodeTermFrom[node];
    if (node >= 0 && endsWord(sections, node)) token.ranges.push({ from, to: from + 1, quality: MENDED.twoErrors });
  }
}

function addTwiceMisspelt({ segment }: Dictionary, { text, unfinished = false, ranges }: QueryToken): void {
  for (const term of termsWithTwoErrors(segment, text, unfinished))
    ranges.push({ from: term, to: term + 1, quality: MENDED.twoErrors });
}

/**
 * The same words with the last, which so far is only the beginning of one, as a whole word with an error in it: "pataya"
 * on the way to a hamlet may mean a city.
 * @param least importance, 0 to 1, of the most important thing that the word must be of
 * @returns undefined where no word as important is like it
 */
export function mendLast(
  { segment }: Dictionary,
  tokens: readonly QueryToken[],
  least: number,
): QueryToken[] | undefined {
  const last = tokens[tokens.length - 1];
  const { text, unfinished, ranges } = last;
  if (!unfinished || least > 1 || text.length < SHORTEST_MENDED || !mayBeMisspelt(last)) return undefined;
  // what is around a number tells enough by itself
  if (tokens.some(({ house }) => house)) return undefined;
  if (!ranges.length || ranges.some(({ node }) => node === undefined)) return undefined;
  const mended: TermRange[] = [];
  descendWithOneError(segment.sections, text, (node) => {
    const from = segment.sections.nodeTermFrom[node];
    if (endsWord(segment.sections, node) && mostImportant(segment, from) >= least)
      mended.push({ from, to: from + 1, quality: QUALITY.spelling });
  });
  return mended.length ? tokens.with(-1, { ...last, ranges: mended }) : undefined;
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

/** Lets two words stand for one that is both of them together. */
function addJoined({ sections }: Segment, token: QueryToken, next: QueryToken, unfinished: boolean): void {
  const isCode = token.kind === "number" && next.kind === "number" && !next.isParted;
  if (token.isLabel || (token.house && !isCode) || token.part !== next.part) return;
  const node = descend(sections, descend(sections, 0, token.text), next.text);
  if (node < 0) return;
  const from = sections.nodeTermFrom[node];
  const both = (range: TermRange) => {
    token.ranges.push(range);
    next.ranges.push(range);
  };
  if (endsWord(sections, node)) both({ from, to: from + 1, quality: QUALITY.joined });
  else if (unfinished) both({ from, to: sections.nodeTermTo[node], quality: QUALITY.joined * QUALITY.prefix, node });
}

/**
 * The same words with those that the dictionary does not hold cut in two it does hold ("harbourrow").
 * @returns undefined when there are none
 */
export function cutCompounds(
  dictionary: Dictionary,
  tokens: readonly QueryToken[],
  completing: boolean,
): QueryToken[] | undefined {
  let cuts = 0;
  // "2丁目21-3" has the number of the quarter already
  const isQuarterWritten = tokens.some(({ text }) => text.endsWith("丁目") || text === "chome");
  const words = tokens.flatMap((token, i): Token[] => {
    const isKnown = token.ranges.some(({ quality }) => quality > QUALITY.spelling);
    const isLast = completing && i === tokens.length - 1;
    const pieces =
      isKnown || token.role
        ? undefined
        : (cutUnspaced(dictionary.segment, token) ??
          (isQuarterWritten ? undefined : cutBlock(dictionary, token)) ??
          cutInTwo(dictionary.segment, token, isLast) ??
          cutInMany(dictionary, token));
    if (pieces) cuts++;
    return pieces ?? [token];
  });
  if (!cuts || words.length > MAX_TOKENS) return undefined;
  const read = interpretTokens(dictionary, words, { completing, doubting: false });
  for (const token of read) token.isCut = !tokens.some(({ start, end }) => start === token.start && end === token.end);
  return read;
}

const UNSPACED = /^[\p{sc=Han}\p{sc=Hira}\p{sc=Kana}ー]{2,}$/u;

/** A word of a script without spaces in words of the dictionary, the longest first; undefined where that leaves some of it. */
function cutUnspaced({ sections }: Segment, token: Token): Token[] | undefined {
  const { text } = token;
  if (!UNSPACED.test(text)) return undefined;
  /** For each place the end of the longest word from which on all can be cut; 0 where there is none. */
  const ends = new Array<number>(text.length + 1).fill(0);
  ends[text.length] = text.length;
  for (let at = text.length - 1; at >= 0; at--)
    for (let end = text.length; end > at && !ends[at]; end--) {
      const node = ends[end] ? descend(sections, 0, text.slice(at, end)) : -1;
      if (node >= 0 && endsWord(sections, node)) ends[at] = end;
    }
  if (!ends[0] || ends[0] === text.length) return undefined;
  const pieces: Token[] = [];
  for (let at = 0; at < text.length; at = ends[at]) pieces.push(pieceOf(token, at, ends[at]));
  return pieces;
}

/** "1-2-3 Sakuramachi": where Japanese is stored, the first number may be of the quarter's name. */
function cutBlock({ segment }: Dictionary, token: Token): Token[] | undefined {
  const at = token.text.indexOf("-");
  if (token.kind !== "number" || at < 0 || !segment.meta.langs.some((lang) => lang.startsWith("ja"))) return undefined;
  return [pieceOf(token, 0, at), pieceOf(token, at + 1, token.text.length)];
}

function cutInTwo({ sections }: Segment, token: Token, completing: boolean): Token[] | undefined {
  const { text, kind } = token;
  const shortest = kind === "number" ? SHORTEST_OF_CODE : SHORTEST_PIECE;
  if (kind === "number" && text.length < SHORTEST_CODE) return undefined;
  for (let at = text.length - shortest; at >= shortest; at--) {
    const left = descend(sections, 0, text.slice(0, at));
    if (left < 0 || !endsWord(sections, left)) continue;
    const right = descend(sections, 0, text.slice(at));
    if (right < 0 || !(endsWord(sections, right) || (completing && token.open))) continue;
    return [pieceOf(token, 0, at), pieceOf(token, at, text.length)];
  }
  return undefined;
}

/** "calledelaestacion" in words of the dictionary, as few as can be; the short ones such as mean little. */
function cutInMany({ segment: { sections }, lexicon }: Dictionary, token: Token): Token[] | undefined {
  const { text, kind } = token;
  if (kind !== "word" || text.length < SHORTEST_OF_MANY) return undefined;
  /** For each place into how few words all from there on can be cut, and where the first of them ends. */
  const fewest = Array.from({ length: text.length + 1 }, () => ({ pieces: Number.POSITIVE_INFINITY, end: 0 }));
  fewest[text.length].pieces = 0;
  for (let at = text.length - 1; at >= 0; at--) {
    let node = 0;
    for (let end = at + 1; end <= text.length; end++) {
      node = descend(sections, node, text[end - 1]);
      if (node < 0) break;
      const isWord = endsWord(sections, node) && (end - at >= SHORTEST_PIECE || lexicon.isSmall(text.slice(at, end)));
      const pieces = fewest[end].pieces + 1;
      if (isWord && pieces <= fewest[at].pieces) fewest[at] = { pieces, end };
    }
  }
  if (fewest[0].pieces > MOST_PIECES) return undefined;
  const pieces: Token[] = [];
  for (let at = 0; at < text.length; at = fewest[at].end) pieces.push(pieceOf(token, at, fewest[at].end));
  return pieces;
}

/** Some letters of a word as a word of their own. */
function pieceOf(token: Token, from: number, to: number): Token {
  const text = token.text.slice(from, to);
  const isLast = to === token.text.length;
  return {
    ...token,
    text,
    kind: /^\d/.test(text) ? "number" : "word",
    from: token.from.slice(from, to),
    start: from === 0 ? token.start : token.from[from],
    end: isLast ? token.end : token.from[to],
    open: isLast && token.open,
    isParted: from === 0 && token.isParted,
  };
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

/**
 * What a word may stand for in the dictionary of a segment.
 * @param unfinished it may go on
 * @param doubting it may be misspelt although the dictionary holds it
 */
export function rangesOf(dictionary: Dictionary, token: Token, unfinished: boolean, doubting: boolean): TermRange[] {
  const { segment, lexicon } = dictionary;
  const trie = segment.sections;
  const ranges: TermRange[] = [];
  const whole = (node: number, quality: number) => {
    const from = trie.nodeTermFrom[node];
    if (endsWord(trie, node)) ranges.push({ from, to: from + 1, quality });
  };
  // a word that ends at the node was taken whole before
  const below = (node: number, quality: number) => {
    const from = trie.nodeTermFrom[node] + (endsWord(trie, node) ? 1 : 0);
    const to = trie.nodeTermTo[node];
    if (from < to) ranges.push({ from, to, quality, node });
  };

  const end = descend(trie, 0, token.text);
  if (end >= 0) whole(end, unfinished ? MENDED.wholeSoFar : QUALITY.same);
  for (const form of lexicon.otherForms(token.text)) {
    const node = descend(trie, 0, form);
    if (node >= 0) whole(node, QUALITY.abbreviation);
  }
  if (!ranges.length && token.kind === "number")
    for (const form of otherCodes(token.text)) {
      const node = descend(trie, 0, form);
      if (node >= 0) whole(node, QUALITY.joined);
    }
  if (end >= 0 && unfinished) below(end, QUALITY.prefix);
  else if (end >= 0 && token.kind === "word" && token.text.length >= SHORTEST_BEGINNING) below(end, MENDED.leftShort);
  if (mayBeMisspelt(token)) {
    const isWhole = () => ranges.some(({ node }) => node === undefined);
    // once the person has gone on, a beginning alone is no word that is known: "Rod" for Road where there is a Rodney
    const isKnown =
      (unfinished ? ranges.length > 0 : isWhole()) ||
      (dictionary.below && descend(dictionary.below.sections, 0, token.text) >= 0);
    if (isKnown && !doubting) return ranges;
    descendWithOneError(trie, token.text, (node) => {
      whole(node, unfinished && isKnown ? MENDED.begunMisspelt : QUALITY.spelling);
      if (unfinished && !isKnown) below(node, MENDED.begunMisspelt);
    });
    // "tanenpl": written out before it is mended
    if (!unfinished && !isWhole()) {
      const forms = lexicon.writtenOut(token.text);
      for (const form of forms) {
        const node = descend(trie, 0, form);
        if (node >= 0) whole(node, QUALITY.abbreviation);
      }
      if (!isWhole())
        for (const form of forms) descendWithOneError(trie, form, (node) => whole(node, MENDED.shortAndMisspelt));
    }
  }
  return ranges;
}
