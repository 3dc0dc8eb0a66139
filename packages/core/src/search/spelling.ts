import { endsWord, type Segment } from "../index/index.ts";
import { lettersOf, MAX_TOKEN_LENGTH } from "../text/index.ts";

/** Errors that a word may have; the band of the table that is worked out is as wide on either hand. */
const ERRORS = 2;

/**
 * The words of the dictionary that two errors part from a typed word: letters replaced, left out, added, neighbours
 * swapped. Two errors change at most four letters of a set, so the sets are compared first, word by word in one pass.
 * For a word that passes its way down the trie is measured; where that has three errors already, all words that begin
 * like it are passed over.
 * @param unfinished true to look for words that begin like this
 * @returns numbers of terms
 */
export function termsWithTwoErrors(segment: Segment, word: string, unfinished: boolean): number[] {
  const { termLetters, termLength } = segment.sections;
  const wanted = lettersOf(word);
  const way = new Way(segment, word);
  const found: number[] = [];
  for (let term = 0; term < termLetters.length; ) {
    const longer = termLength[term] - word.length;
    const letters = termLetters[term];
    // what is typed and not there was added or replaced, what is there and not typed left out or replaced
    const isOther =
      longer < -ERRORS ||
      (!unfinished && longer > ERRORS) ||
      hasThree(wanted & ~letters) ||
      (!unfinished && hasThree(letters & ~wanted));
    if (isOther) {
      term++;
      continue;
    }
    const { isFound, end } = way.follow(term, unfinished);
    if (isFound) for (let one = term; one < end; one++) found.push(one);
    term = end;
  }
  return found;
}

/** True for more than two bits: counting all of them takes twice as long. */
function hasThree(bits: number): boolean {
  const others = bits & (bits - 1);
  return (others & (others - 1)) !== 0;
}

/** The way down the trie to the word that was measured last, with a row of the table of distances for each letter. */
class Way {
  readonly #nodes = [0];
  readonly #rows: Uint8Array[];
  readonly #typed: Uint16Array;

  constructor(
    private readonly segment: Segment,
    word: string,
  ) {
    this.#typed = Uint16Array.from(word, (letter) => letter.charCodeAt(0));
    this.#rows = rows;
    for (let i = 0; i <= word.length; i++) rows[0][i] = Math.min(i, ERRORS + 1);
  }

  /**
   * Measures a term, by the restricted edit distance.
   * @returns whether it and the terms before `end` are within two errors of what was typed, or none of them is
   */
  follow(term: number, unfinished: boolean): { isFound: boolean; end: number } {
    const { nodeTermTo, nodeTermFrom } = this.segment.sections;
    const nodes = this.#nodes;
    const last = this.#typed.length;
    while (nodeTermTo[nodes[nodes.length - 1]] <= term) nodes.pop();
    for (;;) {
      const node = nodes[nodes.length - 1];
      if (nodeTermFrom[node] === term && endsWord(this.segment.sections, node) && !unfinished)
        return { isFound: this.#rows[nodes.length - 1][last] <= ERRORS, end: term + 1 };
      const child = this.#childTowards(node, term);
      if (child < 0) return { isFound: false, end: term + 1 };
      const least = this.#measure(child, nodes.length);
      if (least > ERRORS) return { isFound: false, end: nodeTermTo[child] };
      nodes.push(child);
      if (unfinished && this.#rows[nodes.length - 1][last] <= ERRORS) return { isFound: true, end: nodeTermTo[child] };
    }
  }

  /** The child of a node that a term lies below; -1 when the term ends at the node. */
  #childTowards(node: number, term: number): number {
    const { nodeChild, nodeChildren, nodeTermFrom, nodeTermTo } = this.segment.sections;
    let low = nodeChild[node];
    let high = low + nodeChildren[node] - 1;
    if (high < low || nodeTermFrom[low] > term) return -1;
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (nodeTermTo[middle] <= term) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Works out the row of one more letter, in a band around the diagonal. @returns the least of it */
  #measure(child: number, depth: number): number {
    const { nodeLetter } = this.segment.sections;
    const typed = this.#typed;
    const unit = nodeLetter[child];
    const before = depth > 1 ? nodeLetter[this.#nodes[depth - 1]] : -1;
    const [row, last] = [this.#rows[depth], this.#rows[depth - 1]];
    const from = Math.max(1, depth - ERRORS);
    const to = Math.min(typed.length, depth + ERRORS);
    row[from - 1] = from === 1 ? Math.min(depth, ERRORS + 1) : ERRORS + 1;
    let least = row[from - 1];
    for (let i = from; i <= to; i++) {
      const isSame = typed[i - 1] === unit;
      let cost = last[i - 1] + (isSame ? 0 : 1);
      if (row[i - 1] + 1 < cost) cost = row[i - 1] + 1;
      if (i < depth + ERRORS && last[i] + 1 < cost) cost = last[i] + 1;
      if (i > 1 && depth > 1 && typed[i - 2] === unit && typed[i - 1] === before) {
        const swapped = this.#rows[depth - 2][i - 2] + 1;
        if (swapped < cost) cost = swapped;
      }
      row[i] = cost;
      if (cost < least) least = cost;
    }
    // beyond the band nothing is within reach
    if (to < typed.length) row[typed.length] = ERRORS + 1;
    return least;
  }
}

/** Used again for each word; a way is no longer than a word with the characters that may have been left out. */
const rows = Array.from({ length: MAX_TOKEN_LENGTH + ERRORS + 2 }, () => new Uint8Array(MAX_TOKEN_LENGTH + 1));
