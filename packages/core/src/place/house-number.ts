import type { HouseNumber } from "./kinds.ts";

const SHAPE = /^(\d{1,5})(?:\s*[-/]\s*\d+|\s*\p{L})?$/u;

/** Reads a house number: 12, 12b, 12-14, 12/3. The suffix keeps its dash or slash; letters are folded to lower case. */
export function parseHouseNumber(text: string): HouseNumber | undefined {
  const trimmed = text.trim();
  const match = SHAPE.exec(trimmed);
  if (!match) return undefined;
  return { number: Number(match[1]), suffix: trimmed.slice(match[1].length).replace(/\s/g, "").toLowerCase() };
}

/** Writes a house number the way the country does: `12B` before the street, `12 b` after it. */
export function formatHouseNumber({ number, suffix }: HouseNumber, stands: "before" | "after"): string {
  if (!/^\p{L}/u.test(suffix)) return `${number}${suffix}`;
  return stands === "before" ? `${number}${suffix.toUpperCase()}` : `${number} ${suffix}`;
}
