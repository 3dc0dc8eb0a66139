import { LETTERS, PAIRS } from "./letters.ts";

/** Folded text with the way back to where each character came from. */
export interface Folded {
  /** Lower-case Latin letters and digits without marks; other scripts keep their own characters. */
  text: string;
  /** For every UTF-16 unit of `text`, the UTF-16 offset in the source of the character it came from. */
  from: number[];
}

/** Marks, and what is not to be seen: soft hyphens and what joins letters. */
const MARK = /\p{M}|\u00AD|\u200C|\u200D|\u2060|\uFEFF/u;
const LAST_ASCII = "\u007f";
/** What is between the two numbers of ½ once it is taken apart. */
const FRACTION_SLASH = "\u2044";

/**
 * Folds text for comparison: compatibility forms (NFKD), case, accents, characters that split, Greek and Cyrillic
 * written in Latin letters. Punctuation and spaces stay, so that words can be cut afterwards.
 * @param source any text; lone surrogates are carried as they are
 */
export function fold(source: string): Folded {
  const ascii = foldAscii(source);
  if (ascii) return ascii;
  const plain: string[] = [];
  const at: number[] = [];
  let offset = 0;
  for (const character of source) {
    for (const unit of bare(character)) {
      plain.push(unit);
      at.push(offset);
    }
    offset += character.length;
  }
  let text = "";
  const from: number[] = [];
  for (let i = 0; i < plain.length; i++) {
    // most of a text with accents is plain by now
    if (plain[i] <= LAST_ASCII) {
      text += plain[i];
      from.push(at[i]);
      continue;
    }
    const pair = i + 1 < plain.length ? PAIRS.get(plain[i] + plain[i + 1]) : undefined;
    const written = pair ?? LETTERS.get(plain[i]) ?? plain[i];
    for (let k = 0; k < written.length; k++) from.push(at[i]);
    text += written;
    if (pair !== undefined) i++;
  }
  return { text, from };
}

/** A name by which others of the same are found: folded, words apart by one space, no other signs. */
export function plainName(name: string): string {
  return fold(name)
    .text.replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();
}

/** Characters met so far without case and marks; texts come from a few alphabets, so this stays small. */
const bareOf = new Map<string, readonly string[]>();
const MOST_KEPT = 4096;

function bare(character: string): readonly string[] {
  const known = bareOf.get(character);
  if (known) return known;
  const units = unjoined(
    [...character.normalize("NFKD").toLowerCase().normalize("NFKD")].filter((unit) => !MARK.test(unit)),
  );
  if (bareOf.size < MOST_KEPT) bareOf.set(character, units);
  return units;
}

/** A fraction of one character is a number by itself, as one writes it with a slash: "12½" is "12 1/2". */
function unjoined(units: string[]): string[] {
  if (units.length < 3 || !units.includes(FRACTION_SLASH)) return units;
  return [" ", ...units.map((unit) => (unit === FRACTION_SLASH ? "/" : unit))];
}

/** The short way for plain ASCII, which is most of what is typed. */
function foldAscii(source: string): Folded | undefined {
  const from: number[] = new Array(source.length);
  for (let i = 0; i < source.length; i++) {
    if (source.charCodeAt(i) > 127) return undefined;
    from[i] = i;
  }
  return { text: source.toLowerCase(), from };
}

/** True when the text holds a letter of another script than Latin. */
export function hasOtherScript(text: string): boolean {
  return /[\p{Script=Greek}\p{Script=Cyrillic}]/u.test(text);
}
