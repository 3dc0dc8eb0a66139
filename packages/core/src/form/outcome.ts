import { EXACTNESS, type Exactness, PARTS, type PartName, type Parts } from "../place/index.ts";
import type { AddressRule } from "./definition.ts";

/** What a lookup came to for a form. */
export type Outcome<T> =
  | { type: "none" }
  /** The person chooses. */
  | { type: "several"; candidates: T[] }
  /** Fills the form; `isBelow` when it is less exact than the form asks for. */
  | { type: "one"; answer: T; isBelow: boolean };

/** What a candidate of an answer tells. */
interface Candidate {
  exactness: Exactness;
  score?: number;
}

/**
 * What to do with an answer: nothing, let the person choose, or fill.
 * @param isAmbiguous true when the answer says that several fit alike
 */
export function outcomeOf<T extends Candidate>(
  rule: AddressRule,
  candidates: readonly T[],
  isAmbiguous: boolean,
): Outcome<T> {
  const [first] = candidates;
  if (!first) return { type: "none" };
  const isSure = rule.takeFrom !== undefined && (first.score ?? 0) >= rule.takeFrom;
  if (isAmbiguous && candidates.length > 1 && !isSure) return { type: "several", candidates: [...candidates] };
  return { type: "one", answer: first, isBelow: isBelow(rule, first.exactness) };
}

/** True when a position is less exact than a form asks for. */
export function isBelow({ exactness }: AddressRule, found: Exactness): boolean {
  return exactness !== undefined && EXACTNESS.indexOf(found) > EXACTNESS.indexOf(exactness);
}

/** How exact a position is, in words that end a sentence. */
export const EXACTNESS_WORDS: Readonly<Record<Exactness, string>> = {
  surveyed: "at the house itself",
  between: "between the houses beside it",
  along: "somewhere on the street",
  centre: "in the middle of the area",
};

/** The parts by which some candidates can be told apart, from the house to the country. */
export function differingParts(candidates: readonly { parts: Parts }[]): PartName[] {
  return PARTS.filter((part) => new Set(candidates.map(({ parts }) => parts[part]?.name ?? "")).size > 1);
}
