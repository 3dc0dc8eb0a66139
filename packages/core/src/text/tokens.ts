import { type Folded, fold } from "./fold.ts";

/** A word or number of a text, folded, with the place in the source (UTF-16 offsets, half open). */
export interface Token {
  text: string;
  kind: "word" | "number";
  start: number;
  end: number;
  /** For every unit of `text`, its UTF-16 offset in the source. */
  from: number[];
  /** True when nothing that ends a word (space, comma) follows it: the person may still be typing it. */
  open: boolean;
  /** True when a comma, a semicolon, a bar, a bracket or the end of a line is between it and the word before. */
  isParted: boolean;
  /** What is at it and is no letter: "#12", "2º"; a slash between two letters, "c/o", at the first of them. */
  sign?: "#" | "º" | "/";
}

/** At most this many words are read; the rest of a longer text is left out. */
export const MAX_TOKENS = 16;
/** A word is cut to this many folded characters. */
export const MAX_TOKEN_LENGTH = 48;

/**
 * A number with what is joined to it by a dash or a slash ("12 / 3"), or a word with the apostrophes inside it. Where a word
 * and a number are grown together they are two: "hauptstraße12", "12hauptstraße", "12rue"; not "b12" or "12th". A letter and the end of its
 * word with a full stop between them are one short word: "V.le", "P.zza"; not "S.Leo", which is a saint; and so are two letters with full stops before a number: "č. p. 45".
 */
const TOKEN =
  /(?<![\p{L}\p{N}.])(?!s)\p{L}\.\p{L}{2,3}(?![\p{L}\p{N}.@])|(?<![\p{L}\p{N}.])\p{L}\.\s?\p{L}\.(?=\s?\d)|\d+(?=\p{L}{4}|(?:rue|via|rua|weg|vej|row|way)(?!\p{L}))|\d[\p{L}\p{N}]*(?:\s?[-–/]\s?\d[\p{L}\p{N}]*)*|\p{L}{3,}(?=\d)|[\p{L}\p{N}]+(?:['’ʼ‘`][\p{L}\p{N}]+)*/gu;
/** What of these there is in folded ASCII without a full stop or an apostrophe: nearly every text, and read in half the time. */
const PLAIN_TOKEN =
  /\d+(?=[a-z]{4}|(?:rue|via|rua|weg|vej|row|way)(?![a-z]))|\d[a-z\d]*(?:\s?[-/]\s?\d[a-z\d]*)*|[a-z]{3,}(?=\d)|[a-z\d]+/g;
const PLAIN = /^[a-z\d\s!-&(--/:-@[-_{-~]*$/;
/** Scripts that are written without spaces, or set numbers to words: each run of letters is a word, each number one. */
const UNSPACED = "\\p{sc=Han}\\p{sc=Hira}\\p{sc=Kana}\\p{sc=Hang}ー";
const HAS_UNSPACED = new RegExp(`[${UNSPACED}]`, "u");
const UNSPACED_TOKEN = new RegExp(
  `\\d+(?:\\s?[-–/]\\s?\\d+)*|[${UNSPACED}]+|(?:(?![${UNSPACED}])[\\p{L}\\p{N}])+(?:['’ʼ‘\`][\\p{L}\\p{N}]+)*`,
  "gu",
);
const LATIN = /^[\u0000-\u024F]*$/;
const SEPARATORS = ",;|\n(";
const LETTER_OR_DIGIT = /[\p{L}\p{N}]/u;
/** "Rua das Flores 13 - Centro" */
const DASH = /\s[-–—]\s/;
const MARK = /\p{M}/u;
const SLASHED = /^\/\p{L}(?!\p{L})/u;
const APOSTROPHE = /['’ʼ‘`]/;
/** Articles and prepositions that lose their vowel before a word. */
const ELIDED: ReadonlySet<string> = new Set(["l", "d", "dell", "all", "nell", "dall", "sull", "qu"]);

/**
 * Cuts a text into folded words and numbers. Apostrophes inside a word vanish ("Cooper's" is `coopers`), but part an
 * elided article from the word ("l'orme" is `l orme`); a dash or a slash between two numbers stays ("12-14", "12 / 3");
 * everything else parts words.
 */
export function tokenize(source: string): Token[] {
  const folded = fold(source);
  const tokens: Token[] = [];
  const pattern = patternFor(folded.text);
  pattern.lastIndex = 0;
  for (let match = pattern.exec(folded.text); match && tokens.length < MAX_TOKENS; match = pattern.exec(folded.text)) {
    cutWord(folded, match[0], match.index, source, tokens);
  }
  return tokens;
}

function patternFor(text: string): RegExp {
  if (PLAIN.test(text)) return PLAIN_TOKEN;
  return !LATIN.test(text) && HAS_UNSPACED.test(text) ? UNSPACED_TOKEN : TOKEN;
}

function cutWord(
  { text: foldedText, from: places }: Folded,
  found: string,
  at: number,
  source: string,
  tokens: Token[],
) {
  let text = "";
  let from: number[] = [];
  const close = (open: boolean) => {
    const before = tokens[tokens.length - 1];
    if (text && before && before.from[before.from.length - 1] === from[0]) join(before, text, from, open);
    else if (text && tokens.length < MAX_TOKENS) tokens.push(toToken(text, from, source, open, before));
    text = "";
    from = [];
  };
  let offset = at;
  for (const unit of found) {
    if (!isPlain(unit) && APOSTROPHE.test(unit) && ELIDED.has(text)) close(false);
    const kept = unit === "–" ? "-" : unit;
    if (
      (isPlain(unit) || LETTER_OR_DIGIT.test(unit) || kept === "-" || kept === "/") &&
      text.length < MAX_TOKEN_LENGTH
    ) {
      for (let k = 0; k < kept.length; k++) from.push(places[offset + k]);
      text += kept;
    }
    offset += unit.length;
  }
  close(isTheLast(foldedText, offset));
}

/** One character that represents two words, "㏾" or "℅", is one word: what is read of a text never overlaps. */
function join(token: Token, text: string, from: number[], open: boolean) {
  token.text += text;
  token.from.push(...from);
  token.open = open;
}

/** A letter or digit of folded ASCII: what nearly all of a text is. */
const isPlain = (unit: string) => (unit >= "a" && unit <= "z") || (unit >= "0" && unit <= "9");

/** True when nothing that ends a word follows: an apostrophe may still become part of it. */
function isTheLast(text: string, from: number): boolean {
  for (let i = from; i < text.length; i++) if (!APOSTROPHE.test(text[i])) return false;
  return true;
}

function isDigit(unit: string | undefined): boolean {
  return unit !== undefined && unit >= "0" && unit <= "9";
}

function toToken(text: string, from: number[], source: string, open: boolean, before: Token | undefined): Token {
  const last = from[from.length - 1];
  const end = last + (source.codePointAt(last)! > 0xffff ? 2 : 1);
  const kind = isDigit(text[0]) ? "number" : "word";
  const isParted = before !== undefined && isSeparated(source, before.end, from[0]);
  const sign = signOf(source, from[0], end, kind);
  if (sign) return { text, from, start: from[0], end: skipMarks(source, end), kind, open, isParted, sign };
  return { text, from, start: from[0], end: skipMarks(source, end), kind, open, isParted };
}

function signOf(source: string, start: number, end: number, kind: Token["kind"]): Token["sign"] {
  if (kind === "word") return end - start === 1 && SLASHED.test(source.slice(end, end + 3)) ? "/" : undefined;
  if (source[start - 1] === "#") return "#";
  for (let i = start; i < end; i++) if (source[i] === "º" || source[i] === "ª") return "º";
  return undefined;
}

/** The commonest gap is one space. */
function isSeparated(source: string, from: number, to: number): boolean {
  for (let i = from; i < to; i++) {
    if (!SEPARATORS.includes(source[i])) continue;
    // "16(a)" is 16a
    if (source[i] !== "(" || !LETTER_OR_DIGIT.test(source[i - 1] ?? "")) return true;
  }
  return to - from > 2 && DASH.test(source.slice(from, to));
}

/** Combining marks after the last letter belong to it. */
function skipMarks(source: string, end: number): number {
  while (end < source.length && source.charCodeAt(end) > 127 && MARK.test(source[end])) end++;
  return end;
}
