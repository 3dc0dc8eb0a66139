import {
  type Difference,
  EXACTNESS,
  type Exactness,
  isOnlyUnit,
  PARTS,
  type PartName,
  type Parts,
  type Outcome as Verdict,
} from "../place/index.ts";
import type { AddressRule } from "./definition.ts";

/** What a lookup came to for a form. */
export type Outcome<T> =
  | { type: "none" }
  /** The person chooses. */
  | { type: "several"; candidates: T[] }
  /** The person is shown what differs, and agrees or not; nothing is filled before. */
  | { type: "differs"; answer: T; differences: readonly Difference[] }
  /**
   * Fills the form; `isBelow` when it is less exact than the form asks for. Differences that the form lets pass are
   * noted, and it is not confirmed.
   */
  | { type: "one"; answer: T; isBelow: boolean; differences: readonly Difference[] };

/** What a candidate of an answer tells. */
interface Candidate {
  exactness: Exactness;
  score?: number;
  differences?: readonly Difference[];
}

export { isOnlyUnit };

/** Parts that may differ without confirmation, where a form's rule does not say: a postcode is put right, with a word. */
export const MAY_DIFFER: readonly PartName[] = ["postcode"];

/** What to do with an answer: nothing, let the person choose or agree, or fill. @param outcome of the lookup */
export function outcomeOf<T extends Candidate>(
  rule: AddressRule,
  candidates: readonly T[],
  outcome: Verdict | undefined,
): Outcome<T> {
  const [first] = candidates;
  if (!first || outcome === "none") return { type: "none" };
  const differences = (first.differences ?? []).filter((one) => !isOnlyUnit(one));
  // no threshold ever fills over a difference
  const isSure = rule.takeFrom !== undefined && (first.score ?? 0) >= rule.takeFrom && !differences.length;
  if (outcome === "ambiguous" && candidates.length > 1 && !isSure)
    return { type: "several", candidates: [...candidates] };
  const mayDiffer = rule.mayDiffer ?? MAY_DIFFER;
  if (differences.some(({ part }) => !mayDiffer.includes(part))) return { type: "differs", answer: first, differences };
  return { type: "one", answer: first, isBelow: isBelow(rule, first.exactness), differences };
}

/** True when a position is less exact than a form asks for. */
export function isBelow({ exactness }: AddressRule, found: Exactness): boolean {
  return exactness !== undefined && EXACTNESS.indexOf(found) > EXACTNESS.indexOf(exactness);
}

/** How exact a position is, in words that end a sentence. */
export const EXACTNESS_WORDS: Readonly<Record<Exactness, string>> = {
  surveyed: "at the house",
  between: "between neighbouring houses",
  along: "somewhere on the street",
  centre: "in the centre of the area",
};

/** The parts by which some candidates can be told apart, from the house to the country. */
export function differingParts(candidates: readonly { parts: Parts }[]): PartName[] {
  return PARTS.filter((part) => new Set(candidates.map(({ parts }) => parts[part]?.name ?? "")).size > 1);
}
