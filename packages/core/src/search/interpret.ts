import { descend, descendWithOneError, endsWord, type Segment } from "../index/index.ts";
import { type HouseNumber, KINDS, type Kind, type PartName, parseHouseNumber } from "../place/index.ts";
import { otherForms, SMALL_WORDS, type Token, tokenize } from "../text/index.ts";

/** How a typed word was taken; the words of the wire. */
export type How =
  | "same"
  | "prefix"
  | "spelling"
  | "abbreviation"
  | "script"
  | "joined"
  | "nearby"
  | "differs"
  | "absent"
  | "ignored";

/** A range of dictionary words that a typed word may stand for. */
export interface TermRange {
  from: number;
  to: number;
  how: How;
  /** 0 to 1. */
  quality: number;
}

/** A typed word with all that it may stand for. */
export interface QueryToken extends Token {
  ranges: TermRange[];
  /** How much of the whole it is: small words count little. */
  weight: number;
  /** Bit set of KINDS whose names it may be part of. */
  kinds: number;
  /** The part it was given as, when asked by parts. */
  part?: PartName;
  /** What it says when it is read as a house number, and may be one. */
  house?: HouseNumber;
}

/** What each way of taking a word is worth. */
export const QUALITY: Readonly<Record<How, number>> = {
  same: 1,
  script: 1,
  abbreviation: 0.98,
  joined: 0.97,
  prefix: 0.96,
  spelling: 0.85,
  nearby: 0.7,
  differs: 0,
  absent: 0.25,
  ignored: 0,
};

/** What the beginning of a word is worth where the person has gone on to the next one. */
const LEFT_SHORT = 0.9;
/** Words shorter than this are never taken for the beginning of another once they are left. */
const SHORTEST_BEGINNING = 2;
/** Words shorter than this are taken as typed: one error in three letters says nothing. */
const SHORTEST_MISSPELT = 4;
const ALL_KINDS = (1 << KINDS.length) - 1;

const KINDS_OF_PART: Readonly<Record<PartName, readonly Kind[]>> = {
  house: [],
  unit: [],
  floor: [],
  building: [],
  block: ["block"],
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
 * Reads a text against the dictionary of a segment.
 * @param completing true while the person is typing: the last word may be unfinished
 */
export function interpret(segment: Segment, text: string, completing: boolean, part?: PartName): QueryToken[] {
  const kinds = part ? KINDS_OF_PART[part].reduce((bits, kind) => bits | (1 << KINDS.indexOf(kind)), 0) : ALL_KINDS;
  return tokenize(text).map((token, i, all) => {
    const unfinished = completing && token.open && i === all.length - 1;
    const weight = SMALL_WORDS.has(token.text) && !unfinished ? 0.1 : token.kind === "number" ? 0.8 : 1;
    const mayBeHouse = token.kind === "number" && (part === undefined || part === "house" || part === "building");
    const house = mayBeHouse ? parseHouseNumber(token.text) : undefined;
    return { ...token, part, kinds, weight, house, ranges: kinds ? rangesOf(segment, token, unfinished) : [] };
  });
}

function rangesOf(segment: Segment, token: Token, unfinished: boolean): TermRange[] {
  const trie = segment.sections;
  const ranges: TermRange[] = [];
  const whole = (node: number, how: How) => {
    const from = trie.nodeTermFrom[node];
    if (endsWord(trie, node)) ranges.push({ from, to: from + 1, how, quality: QUALITY[how] });
  };
  const below = (node: number, how: How, quality: number) =>
    ranges.push({ from: trie.nodeTermFrom[node], to: trie.nodeTermTo[node], how, quality });

  const end = descend(trie, 0, token.text);
  if (end >= 0) whole(end, "same");
  for (const form of otherForms(token.text)) {
    const node = descend(trie, 0, form);
    if (node >= 0) whole(node, "abbreviation");
  }
  if (end >= 0 && unfinished) below(end, "prefix", QUALITY.prefix);
  else if (end >= 0 && token.kind === "word" && token.text.length >= SHORTEST_BEGINNING)
    below(end, "prefix", LEFT_SHORT);
  // a word that stands in the dictionary as it is, or may yet become one that does, is taken at its word
  const isKnown = ranges.some(({ how }) => how === "same") || (unfinished && end >= 0);
  if (!isKnown && token.kind === "word" && token.text.length >= SHORTEST_MISSPELT) {
    descendWithOneError(trie, token.text, (node) => {
      whole(node, "spelling");
      if (unfinished) below(node, "spelling", QUALITY.spelling * 0.9);
    });
  }
  return ranges;
}
