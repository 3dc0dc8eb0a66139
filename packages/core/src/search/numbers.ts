import { NO_NUMBER, NONE, type Segment } from "../index/index.ts";
import { type HouseNumber, lastNumber } from "../place/index.ts";
import type { How } from "./weights.ts";

/** An address of a street that fits a typed number. */
export interface NumberMatch {
  address: number;
  how: How;
}

/** Widest range of numbers that one house carries; "12-90" is not looked for behind 12. */
const WIDEST_RANGE = 40;

/** False where no street of an area can have a house with such a number, nor one between two houses. */
export function mayHaveNumber(segment: Segment, area: number, { number }: HouseNumber): boolean {
  return number <= segment.sections.areaNumber[area] + WIDEST_RANGE;
}

/**
 * Finds a number among the numbers of a street: the same with the suffix, a range that holds it, else the same number
 * with another suffix or without.
 * @returns undefined when the street has no such number
 */
export function findNumber(segment: Segment, street: number, wanted: HouseNumber): NumberMatch | undefined {
  const { addressNumber, addressSuffix } = segment.sections;
  const suffix = segment.suffixNumber(wanted.suffix);
  const [begin, end] = segment.addressesOf(street);
  const first = segment.seekNumber(street, wanted.number);
  let nearby: NumberMatch | undefined;
  for (let i = first; i < end && addressNumber[i] === wanted.number; i++) {
    if (addressSuffix[i] === suffix) return { address: i, how: "same" };
    const own = segment.numberOf(i)!;
    if (plainSuffix(own.suffix) === plainSuffix(wanted.suffix)) return { address: i, how: "same" };
    if (nearby) continue;
    const isEnd = !wanted.suffix && lastNumber(own) > own.number;
    nearby = { address: i, how: isEnd ? "same" : "nearby" };
  }
  if (nearby) return nearby;
  for (let i = first - 1; i >= begin && wanted.number - addressNumber[i] <= WIDEST_RANGE; i--) {
    const existing = segment.numberOf(i);
    if (!existing || wanted.suffix || lastNumber(existing) < wanted.number) continue;
    const isOneOf = (wanted.number - existing.number) % 2 === 0 || (lastNumber(existing) - existing.number) % 2 === 1;
    if (isOneOf) return { address: i, how: "same" };
  }
  return undefined;
}

/** A letter with or without the dash or the slash before it is one: 40/A, 40 a. */
const plainSuffix = (suffix: string) => suffix.replace(/^[-/](?=\p{L})/u, "");

/** Two houses between which a number would stand. */
export interface Between {
  lower: number;
  upper: number;
  /** How far from the lower to the upper, 0 to 1. */
  share: number;
}

/** Widest gap in which a number is still looked for between its neighbours. */
const WIDEST_GAP = 30;

/** The neighbours of a missing number on its own side of the street; undefined where it has none on either hand. */
export function findBetween(segment: Segment, street: number, number: number): Between | undefined {
  const { addressNumber } = segment.sections;
  const [begin, end] = segment.addressesOf(street);
  const at = segment.seekNumber(street, number);
  const isOwnSide = (i: number) => addressNumber[i] !== NO_NUMBER && (addressNumber[i] - number) % 2 === 0;
  let lower = at - 1;
  while (lower >= begin && number - addressNumber[lower] <= WIDEST_GAP && !isOwnSide(lower)) lower--;
  let upper = at;
  while (upper < end && addressNumber[upper] - number <= WIDEST_GAP && !isOwnSide(upper)) upper++;
  if (lower < begin || upper >= end || !isOwnSide(lower) || !isOwnSide(upper)) return undefined;
  const gap = addressNumber[upper] - addressNumber[lower];
  if (gap === 0 || gap > WIDEST_GAP * 2) return undefined;
  return { lower, upper, share: (number - addressNumber[lower]) / gap };
}

/** The unit of a building that was requested by number or letter ("3" finds "Flat 3"); NONE without one. */
export function findUnit(segment: Segment, street: number, building: number, wanted: string): number {
  const [from, to] = segment.unitsOf(street, building);
  for (let i = from - 1; i < to; i++) {
    const words = segment
      .detailOf(i)
      .unit?.toLowerCase()
      .split(/[^\p{L}\p{N}]+/u);
    if (words?.includes(wanted)) return i;
  }
  return NONE;
}

/** Addresses of a street whose number begins with some digits, in order; the units of a building left out. */
export function numbersStarting(segment: Segment, street: number, digits: string, limit: number): number[] {
  const [from, to] = segment.addressesOf(street);
  const found: number[] = [];
  for (let i = from; i < to && found.length < limit; ) {
    const number = segment.numberOf(i);
    if (number && `${number.number}${number.suffix}`.startsWith(digits)) found.push(i);
    if (!number && !digits) found.push(i);
    [, i] = segment.unitsOf(street, i);
  }
  return found;
}
