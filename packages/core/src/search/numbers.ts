import { NONE, type Segment } from "../index/index.ts";
import type { HouseNumber } from "../place/index.ts";
import type { How } from "./interpret.ts";

/** An address of a street that fits a typed number. */
export interface NumberMatch {
  address: number;
  how: How;
}

/**
 * Finds a number among the numbers of a street: the same with its suffix, or the same number without it.
 * @returns undefined when the street has no such number
 */
export function findNumber(segment: Segment, street: number, wanted: HouseNumber): NumberMatch | undefined {
  const { addressNumber, addressSuffix } = segment.sections;
  const suffix = segment.meta.suffixes[wanted.suffix] ?? NONE;
  const [, end] = segment.addressesOf(street);
  let nearby: NumberMatch | undefined;
  for (let i = segment.seekNumber(street, wanted.number); i < end && addressNumber[i] === wanted.number; i++) {
    if (addressSuffix[i] === suffix) return { address: i, how: "same" };
    nearby ??= { address: i, how: "nearby" };
  }
  return nearby;
}

/** Addresses of a street whose number begins with some digits, in order. */
export function numbersStarting(segment: Segment, street: number, digits: string, limit: number): number[] {
  const { addressNumber, addressSuffix } = segment.sections;
  const [from, to] = segment.addressesOf(street);
  const found: number[] = [];
  for (let i = from; i < to && found.length < limit; i++) {
    if (`${addressNumber[i]}${segment.string(addressSuffix[i])}`.startsWith(digits)) found.push(i);
  }
  return found;
}
