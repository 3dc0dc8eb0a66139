import { fold } from "./fold.ts";

/** A word or number of a text, folded, with its place in the source (UTF-16 offsets, half open). */
export interface Token {
  text: string;
  kind: "word" | "number";
  start: number;
  end: number;
  /** For every unit of `text`, its UTF-16 offset in the source. */
  from: number[];
  /** True when nothing that ends a word (space, comma) follows it: the person may still be typing it. */
  open: boolean;
}

/** At most this many words are read; the rest of a longer text is left out. */
export const MAX_TOKENS = 16;
/** A word is cut to this many folded letters. */
export const MAX_TOKEN_LENGTH = 48;

const LETTER_OR_DIGIT = /[\p{L}\p{N}]/u;
const APOSTROPHE = /['’ʼ‘`]/;

/**
 * Cuts a text into folded words and numbers. Apostrophes inside a word vanish ("Cooper's" is `coopers`); a dash or a
 * slash between two digits stays inside the number ("12-14", "12/3"); everything else parts words.
 */
export function tokenize(source: string): Token[] {
  const folded = fold(source);
  const units = [...folded.text];
  const tokens: Token[] = [];
  let text = "";
  let from: number[] = [];
  let offset = 0;
  const close = (open: boolean) => {
    if (text) tokens.push(toToken(text, from, source, open));
    text = "";
    from = [];
  };
  for (let i = 0; i < units.length && tokens.length < MAX_TOKENS; i++) {
    const unit = units[i];
    if (LETTER_OR_DIGIT.test(unit)) {
      if (text.length < MAX_TOKEN_LENGTH) {
        for (let k = 0; k < unit.length; k++) from.push(folded.from[offset + k]);
        text += unit;
      }
    } else if (joinsDigits(unit, units[i - 1], units[i + 1])) {
      from.push(folded.from[offset]);
      text += unit;
    } else if (!(APOSTROPHE.test(unit) && text)) {
      close(false);
    }
    offset += unit.length;
  }
  if (tokens.length < MAX_TOKENS) close(true);
  return tokens;
}

function joinsDigits(unit: string, before: string | undefined, after: string | undefined): boolean {
  return (unit === "-" || unit === "/") && isDigit(before) && isDigit(after);
}

function isDigit(unit: string | undefined): boolean {
  return unit !== undefined && unit >= "0" && unit <= "9";
}

function toToken(text: string, from: number[], source: string, open: boolean): Token {
  const last = from[from.length - 1];
  const end = last + (source.codePointAt(last)! > 0xffff ? 2 : 1);
  return { text, from, start: from[0], end: skipMarks(source, end), kind: isDigit(text[0]) ? "number" : "word", open };
}

/** Combining marks after the last letter belong to it. */
function skipMarks(source: string, end: number): number {
  while (end < source.length && /\p{M}/u.test(source[end])) end++;
  return end;
}
