import type { Held } from "./held.ts";
import { cutCompounds, type QueryToken } from "./interpret.ts";
import type { Filter, Narrowing } from "./query.ts";
import { type Candidate, rank } from "./rank.ts";

/**
 * Ranks what a text may mean, in every way it can be read: as typed, and with words that nothing has cut in two.
 * @returns the best few, best first, whatever their score
 */
export function search(
  held: Held,
  tokens: readonly QueryToken[],
  completing: boolean,
  filter: Filter,
  limit: number,
  near: Narrowing["near"],
): Candidate[] {
  const { segment, marks } = held;
  const asTyped = rank(segment, tokens, marks, filter, limit, near);
  const isByParts = tokens.some(({ part }) => part);
  const cut = isByParts ? undefined : cutCompounds(held, tokens, completing);
  if (!cut) return asTyped;
  const all = [...asTyped, ...rank(segment, cut, marks, filter, limit, near)];
  const best = new Map<string, Candidate>();
  for (const candidate of all) {
    const key = `${candidate.thing} ${candidate.address}`;
    if ((best.get(key)?.order ?? -1) < candidate.order) best.set(key, candidate);
  }
  return [...best.values()].sort((a, b) => b.order - a.order || a.thing - b.thing).slice(0, limit);
}
