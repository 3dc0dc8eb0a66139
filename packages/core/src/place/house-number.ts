import type { HouseNumber } from "./kinds.ts";

const SHAPE =
  /^(\d{1,5})((?:\s*[-/]\s*\d+)?\s*\p{L}?|\s*(?:bis|ter|quater)|\s*[-/]\s*(?:\p{L}|hs|bis)|\s+[1-3]\/[2-4]|\s*\p{L}\s*[-/]\s*(?:\d{1,4}|\p{L}))$/iu;
/** Higher numbers are no house numbers: they would not fit the index. */
const HIGHEST = 65_534;

/**
 * Reads a house number: 12, 12b, 12-14, 12/3, 3-5a, 10 bis, 4/A, 12-hs, 12 A-2, 12a-c, 4816 1/2. The suffix keeps its dash or slash; letters are in
 * lower case.
 */
export function parseHouseNumber(text: string): HouseNumber | undefined {
  const match = SHAPE.exec(text.trim());
  if (!match || Number(match[1]) > HIGHEST) return undefined;
  return { number: Number(match[1]), suffix: match[2].replace(/\s/g, "").toLowerCase() };
}

/** Writes a house number the way the country does: `12B` before the street, `12 b` after it; a fraction and `bis` stand apart. */
export function formatHouseNumber({ number, suffix }: HouseNumber, stands: "before" | "after"): string {
  if (/^\d\/|^\p{L}{2}/u.test(suffix)) return `${number} ${suffix}`;
  if (!/^\p{L}/u.test(suffix)) return `${number}${suffix}`;
  return stands === "before" ? `${number}${suffix.toUpperCase()}` : `${number} ${suffix}`;
}

/** The last number of a range ("12-14" ends with 14); the number itself when it is none. */
export function lastNumber({ number, suffix }: HouseNumber): number {
  if (!suffix.startsWith("-")) return number;
  const match = /^-(\d+)/.exec(suffix);
  return match ? Number(match[1]) : number;
}
