import { ALIKE, type Candidate, compareCandidates, leastOf, MARGIN } from "./candidates.ts";
import { Ranking, type RankRequest } from "./ranking.ts";

/** Shares of the highest score that could be, tried one after the other until something has it. */
export const HOPES = [0.78, 0.62, 0.4, 0] as const;
/** So much may go unseen rather than that all is gone through again. */
const SLACK = 0.03;

/**
 * Ranks the things that a reading of a text may mean; keeps the best few, best first, equal ones by number.
 *
 * Every answer has at least one of its own words typed, so the postings of the typed words hold them all. They are gone
 * through from the rarest word to the most common, and no further than something can still come among the best: what was
 * not seen yet cannot have the words that are done, and in each posting list the most important come first.
 *
 * For "12 lantern row tidewell", with the postings of each word as long as drawn and the most important on the left:
 *
 *     lantern   ######                  1. searched completely; the best so far has order 0.97
 *     tidewell  ###########             2. what has it but not "lantern" can have 0.97 at most by what is left:
 *                                          of the list only what is important enough to pass that, the #
 *     row       ##......................   3. "row" alone cannot reach what was found: never begun
 *               most important  ->  least
 *
 *     bound of what was not seen = the most that the lists not done yet give to each word of its own name
 *                                + the most that one area and one postcode of one country give to the other words
 *                                + what a number may be worth there
 *                                + the importance at this place of the list
 *
 * When the bound falls below the order that it takes to come among the best, the way through a segment ends (`Ranking`). The same
 * bound with one word taken away tells which words a thing must have: they are looked for in the hint of 16
 * bits first, then in the list of its own words, and only what has them all is weighed (see `Scale`).
 */
export function rank(params: RankRequest): Candidate[] {
  const { floor, hopes, limit } = params;
  const rankings = params.layers.map((layer) => new Ranking(layer, params));
  // of all together, so that no more is hoped for in one segment than in one of all
  const left = rankings[0].left.map((_, t) => Math.max(...rankings.map((ranking) => ranking.left[t])));
  const most = Math.max(...rankings.map((ranking) => ranking.mostWith(left)));
  let kept: Candidate[] = [];
  const pass = (least: number) => {
    kept = [];
    for (const ranking of rankings) kept = merged(kept, ranking.pass(Math.max(least, leastOf(kept, params))), limit);
    // what has less was met with by chance, and others like it were not
    kept = kept.filter(({ order }) => order >= Math.max(least, kept[0].order - MARGIN) - ALIKE);
  };
  // first as if the best that the words allow were stored, so that hardly anything is visited; with a lower bound while
  // nothing is found; the best that is found then decides what is shown beside it
  for (const hope of hopes) {
    const least = Math.max(floor, hope * most);
    pass(least);
    if (!kept.length) continue;
    const wanted = leastOf(kept, params);
    if (wanted < least - SLACK) pass(wanted);
    break;
  }
  return kept;
}

/** The best of two lists, best first. */
function merged(one: readonly Candidate[], other: readonly Candidate[], limit: number): Candidate[] {
  if (!one.length) return [...other];
  return [...one, ...other].sort(compareCandidates).slice(0, limit);
}
