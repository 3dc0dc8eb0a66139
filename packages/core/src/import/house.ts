import { type HouseNumber, parseHouseNumber } from "../place/index.ts";

/** What a cell for a house's number holds: the number, what is behind it, or the name of a house without one. */
export interface WrittenHouse {
  house?: HouseNumber;
  /** Which part of the house: "Hinterhaus", "apt 4". */
  unit?: string;
  name?: string;
}

/** Words before a number that say what it is, as a part of a pattern. */
export const NUMBER_WORD = String.raw`(?:nr|no|num|n\.?[°º]?|№|#|hnr|hsnr|haus(?:nr|nummer)?|house|č\.? ?p|д|дом|буд)[.:]?\s*`;
const BEFORE_NUMBER = new RegExp(String.raw`^${NUMBER_WORD}(?=\d)`, "iu");
/** What a table that had gaps makes of an integer: `12.0`. */
const DECIMAL_ZERO = /^(\d+)[.,]0+$/;
/** How authorities write that a house has none. */
const NONE =
  /^(?:s\s*[/.-]?\s*n[°º.]?|s\.n\.c\.?|snc|sin n[uú]mero|sem n[uú]mero|senza numero|zonder nummer|bez č(?:ísla)?|б\/?н|0+)$/iu;
const FRACTIONS: Readonly<Record<string, string>> = { "½": "1/2", "¼": "1/4", "¾": "3/4" };
/** "12 to 14", "12 & 14", "12,14": all of them between, or both; one house for all. */
const RANGE =
  /^(\d+\s?\p{L}?)(?:\s*[,;+&]\s*|\s+(?:to|bis|au|à|a|al|e|y|et|und|and|do|til|till|tot|t\/m|og|och)\s+)(?=\d+\s?\p{L}?$)/iu;
/** "12A-12C", "12a/c". */
const LETTERS = /^(\d+)\s*(\p{L})\s*([-/+])\s*(?:\1\s*)?(\p{L})$/u;
/** A number with more behind it: "12 (Hinterhaus)", "12, apt 4", "12 #4", "12к2". */
const WITH_UNIT =
  /^(\d+(?:\s?\p{L}(?!\p{L}))?(?:\s?[-/]\s?\d+\p{L}?)?)(?:\s*[,(]\s*|\s+|\s*(?=#|\p{L}+\.?\s?\d+$))([\p{L}\d#].*?)\)?$/u;

/** What most numbers are. */
const PLAIN = /^[1-9]\d{0,4}[a-z]?$/i;
/** "7/2/14": staircase and door behind the house's number. */
const DOORS = /^(\d+)\/(\d+(?:\/\d+)+)$/;

/** The same number without words around it that only name it, as `parseHouseNumber` reads it. */
export function houseAsWritten(text: string): string {
  if (PLAIN.test(text)) return text;
  const plain = text
    .trim()
    .replace(/[\u2010-\u2015\u2212]/g, "-")
    .replace(/\s*([½¼¾])/, (_, fraction: string) => ` ${FRACTIONS[fraction]}`)
    .replace(BEFORE_NUMBER, "")
    .replace(DECIMAL_ZERO, "$1")
    .replace(/[.,;]+$/, "")
    .replace(/^(\d+)\.(?=\p{L}$)/u, "$1")
    .replace(RANGE, "$1-")
    .replace(LETTERS, (_, number: string, first: string, between: string, last: string) =>
      first === last ? number + first : `${number}${first}${between === "/" ? "/" : "-"}${last}`,
    );
  return NONE.test(plain) ? "" : plain;
}

/** @param text what a column for the number holds, with what the columns for the suffix do */
export function readHouse(text: string): WrittenHouse {
  const plain = houseAsWritten(text);
  if (!plain) return {};
  const house = parseHouseNumber(plain);
  if (house) return { house };
  const [, number, unit] = DOORS.exec(plain) ?? WITH_UNIT.exec(plain) ?? [];
  const first = number && parseHouseNumber(number);
  return first ? { house: first, unit } : { name: plain };
}

/** A postcode that a table holds as a number with decimals, as it is without them. */
export const withoutDecimals = (text: string) => (/[.,]/.test(text) ? text.replace(DECIMAL_ZERO, "$1") : text);
