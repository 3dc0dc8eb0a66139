import { isOnlyUnit, type Outcome, type PartName } from "../place/index.ts";
import type { Candidate } from "./candidates.ts";
import { type Contradiction, contradictionsOf, shareTakenTwice } from "./contradictions.ts";
import { TRUST, VERDICT } from "./weights.ts";

/** What may be meant, with the chance and what contradicts it. */
export interface Weighed {
  /** The chance of each candidate to be the one that was meant, rounded as it is returned; together at most 1. */
  chances: number[];
  /** Undefined for what has no chance: it was not looked at. */
  contradictions: (Contradiction[] | undefined)[];
  outcome: Outcome;
}

/** What is as many times `beside` further behind has no chance worth showing. */
const FAR = 10;

/** @param found best first, by order; not by score */
export function weigh(found: readonly Candidate[]): Weighed {
  const scores = found.map((one) => one.score - shareTakenTwice(one));
  const top = Math.max(0, ...scores);
  const contradictions = found.map((one, i) =>
    scores[i] >= top - FAR * VERDICT.beside ? contradictionsOf(one) : undefined,
  );
  // where nothing near the best can be believed, what is behind it may be meant
  if (!contradictions.some((one) => one && isCredible(one)))
    found.forEach((one, i) => {
      contradictions[i] ??= contradictionsOf(one);
    });
  const trust = contradictions.map((one) => (one ? trustIn(one) : 0));
  let best = 0;
  scores.forEach((score, i) => {
    if (trust[i]) best = Math.max(best, score);
  });
  const weights = scores.map((score, i) => (trust[i] ? Math.exp((score - best) / VERDICT.beside) : 0));
  let all = 0;
  for (const weight of weights) all += weight;
  const chances = scores.map((score, i) => {
    const chance = weights[i] && ((1 - (1 - score) ** VERDICT.steepness) * weights[i] * trust[i]) / all;
    return Math.floor(chance * 1000) / 1000;
  });
  return { chances, contradictions, outcome: outcomeOf(chances, contradictions) };
}

/** False for what contradicts a record of another street, block or place than was written: it is not offered instead. */
export const isCredible = (contradictions: readonly Contradiction[]): boolean => trustIn(contradictions) > 0;

/** A record of another name never was meant, however like it is. */
const NAMING: ReadonlySet<PartName> = new Set(["street", "block", "place"]);

function trustIn(contradictions: readonly Contradiction[]): number {
  let trust = 1;
  for (const { part } of contradictions) trust *= NAMING.has(part) ? 0 : (TRUST[part] ?? 1);
  return trust;
}

function outcomeOf(
  chances: readonly number[],
  contradictions: readonly (readonly Contradiction[] | undefined)[],
): Outcome {
  let [first, second, all] = [0, 0, 0];
  for (const chance of chances) {
    all += chance;
    if (chance > first) [first, second] = [chance, first];
    else if (chance > second) second = chance;
  }
  const isSeveral = second > 0 && second * VERDICT.factor >= first;
  if (all === 0) return "none";
  if (isSeveral) return "ambiguous";
  return contradictions[chances.indexOf(first)]?.some((one) => !isOnlyUnit(one)) ? "differs" : "matched";
}
