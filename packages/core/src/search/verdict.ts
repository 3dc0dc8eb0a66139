import { isOnlyUnit, type Outcome, type PartName } from "../place/index.ts";
import { type Contradiction, contradictionsOf } from "./contradictions.ts";
import { OUTCOME } from "./query.ts";
import type { Candidate } from "./rank.ts";

/**
 * The chance that somebody who writes so means the record that explains the text best, by what is not so in it; 1 for
 * what does not stand here. Measured on the islands, with texts of which a tenth have no right answer: another house,
 * unit or postcode is nearly always a slip; a street, block or place of another name never meant the likest one.
 */
const TRUST: Partial<Record<PartName, number>> = { street: 0.03, block: 0.03, place: 0.05, town: 0.9, country: 0.9 };

/** What may be meant, with its chance and what contradicts it. */
export interface Weighed {
  /** The chance of each candidate to be the one that was meant, rounded as it is told; together at most 1. */
  chances: number[];
  /** Undefined for what has no chance: it was not looked at. */
  contradictions: (Contradiction[] | undefined)[];
  outcome: Outcome;
}

/** What is this much worse explained than the best has hardly a chance beside it. */
const BESIDE = 0.002;
/** How quickly a chance falls with what is left unexplained: measured on queries whose answers are known. */
const STEEPNESS = 3;

/** What is trusted less is only looked at where nothing else fits. */
const CREDIBLE = 0.5;

/** What stands this much further behind has no chance that can be told. */
const FAR = 10 * BESIDE;

/** @param found best first, by order; not by score */
export function weigh(found: readonly Candidate[]): Weighed {
  const top = found.reduce((most, { score }) => Math.max(most, score), 0);
  const near = found.filter(({ score }) => score >= top - FAR);
  const known = new Map(near.map((candidate) => [candidate, contradictionsOf(candidate)]));
  // where nothing near the best can be believed, what is behind it may be meant
  const isAny = [...known.values()].some((one) => trustIn(one) >= CREDIBLE);
  if (!isAny) for (const one of found) if (!known.has(one)) known.set(one, contradictionsOf(one));
  const contradictions = found.map((candidate) => known.get(candidate) ?? []);
  const trust = contradictions.map(trustIn);
  const least = trust.some((one, i) => one >= CREDIBLE && known.has(found[i])) ? CREDIBLE : 0;
  const counts = (i: number) => known.has(found[i]) && trust[i] >= least;
  const best = found.reduce((most, { score }, i) => (counts(i) ? Math.max(most, score) : most), 0);
  const weights = found.map(({ score }, i) => (counts(i) ? Math.exp((score - best) / BESIDE) : 0));
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  const chances = found.map(({ score }, i) => {
    const chance = ((1 - (1 - score) ** STEEPNESS) * weights[i] * trust[i]) / all;
    return Math.floor(chance * 1000) / 1000;
  });
  return { chances, contradictions: found.map((one) => known.get(one)), outcome: outcomeOf(chances, contradictions) };
}

/** False for a record of another street, block or place than was written: it is not offered in its place. */
export const isCredible = (candidate: Candidate): boolean => trustIn(contradictionsOf(candidate)) >= CREDIBLE;

function trustIn(contradictions: readonly Contradiction[]): number {
  return contradictions.reduce((trust, { part }) => trust * (TRUST[part] ?? 1), 1);
}

function outcomeOf(chances: readonly number[], contradictions: readonly (readonly Contradiction[])[]): Outcome {
  const [first = 0, second = 0] = [...chances].sort((a, b) => b - a);
  const all = chances.reduce((sum, chance) => sum + chance, 0);
  const isSeveral = second > 0 && second * OUTCOME.factor >= first;
  if (all < OUTCOME.likely) return "none";
  if (isSeveral) return "ambiguous";
  return contradictions[chances.indexOf(first)].some((one) => !isOnlyUnit(one)) ? "differs" : "matched";
}
