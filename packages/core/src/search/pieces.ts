import { childOf, descend, endsWord, type Segment } from "../index/index.ts";
import type { Lexicon, Token } from "../text/index.ts";

/** A compound is cut into pieces no shorter than this. */
const SHORTEST_PIECE = 3;
/** The same of what was written without a space between several words, and how many. */
const SHORTEST_OF_MANY = 9;
const MOST_PIECES = 6;
/** The same of a postcode that was written as one: "10115" for "101 15", "1012ab" for "1012 ab". */
const SHORTEST_OF_CODE = 2;
export const SHORTEST_CODE = 5;

/** The words that there are. */
interface Words {
  readonly segments: readonly Segment[];
  readonly lexicon: Lexicon;
}

/**
 * A word that no segment has in words that they have.
 * @param completing true where the last may go on
 * @param isQuarterWritten true where a number of several has that of the quarter beside it
 * @returns undefined where it cannot be cut so
 */
export function piecesOf(
  words: Words,
  token: Token,
  completing: boolean,
  isQuarterWritten: boolean,
): Token[] | undefined {
  const { segments } = words;
  return (
    cutUnspaced(segments, token) ??
    (isQuarterWritten ? undefined : cutBlock(segments, token)) ??
    cutInTwo(segments, token, completing) ??
    cutInMany(words, token)
  );
}

/** True for what is a word of some segment. */
function isWord(segments: readonly Segment[], text: string): boolean {
  return segments.some(({ sections }) => {
    const node = descend(sections, 0, text);
    return node >= 0 && endsWord(sections, node);
  });
}

const UNSPACED = /^[\p{sc=Han}\p{sc=Hira}\p{sc=Kana}ー]{2,}$/u;

/** A word of a script without spaces in words of the dictionary, the longest first; undefined where that leaves some of it. */
function cutUnspaced(segments: readonly Segment[], token: Token): Token[] | undefined {
  const { text } = token;
  if (!UNSPACED.test(text)) return undefined;
  /** For each place the end of the longest word from which on all can be cut; 0 where there is none. */
  const ends = new Array<number>(text.length + 1).fill(0);
  ends[text.length] = text.length;
  for (let at = text.length - 1; at >= 0; at--)
    for (let end = text.length; end > at && !ends[at]; end--)
      if (ends[end] && isWord(segments, text.slice(at, end))) ends[at] = end;
  if (!ends[0] || ends[0] === text.length) return undefined;
  const pieces: Token[] = [];
  for (let at = 0; at < text.length; at = ends[at]) pieces.push(pieceOf(token, at, ends[at]));
  return pieces;
}

/** "1-2-3 Sakuramachi": where Japanese is stored, the first number may be of the quarter's name. */
function cutBlock(segments: readonly Segment[], token: Token): Token[] | undefined {
  const at = token.text.indexOf("-");
  const isJapanese = ({ meta }: Segment) => meta.langs.some((lang) => lang.startsWith("ja"));
  if (token.kind !== "number" || at < 0 || !segments.some(isJapanese)) return undefined;
  return [pieceOf(token, 0, at), pieceOf(token, at + 1, token.text.length)];
}

/** For each length whether as many characters of a text, from the first on, are a word: one way down each trie. */
function wordsBegin(segments: readonly Segment[], text: string): Uint8Array {
  const isWhole = new Uint8Array(text.length + 1);
  for (const { sections } of segments) {
    let node = 0;
    for (let at = 0; at < text.length && node >= 0; at++) {
      if (at > 0 && endsWord(sections, node)) isWhole[at] = 1;
      node = childOf(sections, node, text.charCodeAt(at));
    }
    if (node >= 0 && endsWord(sections, node)) isWhole[text.length] = 1;
  }
  return isWhole;
}

/**
 * A word in two of the dictionary.
 * @param completing true where the second may go on
 */
export function cutInTwo(segments: readonly Segment[], token: Token, completing: boolean): Token[] | undefined {
  const { text, kind } = token;
  const shortest = kind === "number" ? SHORTEST_OF_CODE : SHORTEST_PIECE;
  if (kind === "number" && text.length < SHORTEST_CODE) return undefined;
  const mayGoOn = completing && token.open;
  const isFirst = wordsBegin(segments, text);
  for (let at = text.length - shortest; at >= shortest; at--) {
    if (!isFirst[at]) continue;
    const rest = text.slice(at);
    const isRest = mayGoOn ? segments.some(({ sections }) => descend(sections, 0, rest) >= 0) : isWord(segments, rest);
    if (isRest) return [pieceOf(token, 0, at), pieceOf(token, at, text.length)];
  }
  return undefined;
}

/** "calledelaestacion" in words of the dictionary, as few as can be; the short ones such as mean little. */
function cutInMany({ segments, lexicon }: Words, token: Token): Token[] | undefined {
  const { text, kind } = token;
  if (kind !== "word" || text.length < SHORTEST_OF_MANY) return undefined;
  /** For each place into how few words all from there on can be cut, and where the first of them ends. */
  const fewest = new Uint8Array(text.length + 1).fill(MOST_PIECES + 1);
  const ends = new Uint16Array(text.length);
  fewest[text.length] = 0;
  const nodes = new Int32Array(segments.length);
  for (let at = text.length - 1; at >= 0; at--) {
    nodes.fill(0);
    for (let end = at + 1; end <= text.length; end++) {
      let goesOn = false;
      let isWhole = false;
      for (let s = 0; s < segments.length; s++) {
        const { sections } = segments[s];
        if (nodes[s] >= 0) nodes[s] = childOf(sections, nodes[s], text.charCodeAt(end - 1));
        if (nodes[s] < 0) continue;
        goesOn = true;
        isWhole ||= endsWord(sections, nodes[s]);
      }
      if (!goesOn) break;
      const count = fewest[end] + 1;
      if (!isWhole || count > MOST_PIECES || count > fewest[at]) continue;
      if (end - at < SHORTEST_PIECE && !lexicon.isSmall(text.slice(at, end))) continue;
      fewest[at] = count;
      ends[at] = end;
    }
  }
  if (fewest[0] > MOST_PIECES) return undefined;
  const pieces: Token[] = [];
  for (let at = 0; at < text.length; at = ends[at]) pieces.push(pieceOf(token, at, ends[at]));
  return pieces;
}

/** Some characters of a word as a word of their own. */
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
