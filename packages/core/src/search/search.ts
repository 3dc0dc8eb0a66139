import type { Held } from "./held.ts";
import { cutCompounds, type QueryToken } from "./interpret.ts";
import { compileFilter, type Narrowing } from "./query.ts";
import { type Candidate, MARGIN, rank } from "./rank.ts";

/** How a text is to be read. */
export interface Wanted {
  /** Reads it against a dictionary; the words are the same for each. */
  read(held: Held): QueryToken[];
  /** True while the person is typing. */
  completing: boolean;
  /** True where a number between two others is an answer. */
  interpolates: boolean;
  /** How many candidates at most. */
  limit: number;
}

/**
 * Ranks what a text may mean, in every way it can be read: as typed, and with words that nothing has cut in two.
 * @param tokens the text as it was read against what is held
 * @returns the best few, best first, whatever their score
 */
export function search(held: Held, tokens: QueryToken[], wanted: Wanted, narrowing: Narrowing): Candidate[] {
  const found = held.layers.map((layer) => {
    // what a word tells is for the whole to say, not for the few changed records
    const its =
      layer === held ? tokens : wanted.read(layer).map((token, i) => ({ ...token, weight: tokens[i].weight }));
    return searchLayer(layer, its, wanted, narrowing);
  });
  if (found.length === 1) return found[0];
  const all = found.flat().sort((a, b) => b.order - a.order);
  return all.slice(0, wanted.limit).filter(({ order }) => order >= all[0].order - MARGIN);
}

function searchLayer(held: Held, tokens: readonly QueryToken[], wanted: Wanted, narrowing: Narrowing): Candidate[] {
  const { completing, interpolates, limit } = wanted;
  const filter = compileFilter(held.segment, narrowing, interpolates);
  const isByParts = tokens.some(({ part }) => part);
  const cut = isByParts ? undefined : cutCompounds(held, tokens, completing);
  if (!cut) return rank(held, tokens, filter, limit, narrowing.near, 0);
  // the likelier reading first: it spares the other most of its way
  const isLost = tokens.some(({ kind, ranges, role }) => kind === "word" && !ranges.length && !role);
  const [first, second] = isLost ? [cut, tokens] : [tokens, cut];
  const all = rank(held, first, filter, limit, narrowing.near, 0);
  const floor = all.length ? all[0].order - MARGIN : 0;
  all.push(...rank(held, second, filter, limit, narrowing.near, floor));
  const best = new Map<string, Candidate>();
  for (const candidate of all) {
    const key = `${candidate.thing} ${candidate.address}`;
    if ((best.get(key)?.order ?? -1) < candidate.order) best.set(key, candidate);
  }
  return [...best.values()].sort((a, b) => b.order - a.order || a.thing - b.thing).slice(0, limit);
}
