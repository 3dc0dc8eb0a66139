import type { Sections } from "./layout.ts";

/**
 * A trie over sorted words, breadth first, in flat arrays. Because the words are sorted, all words below a node are
 * neighbours: a node needs only where they begin and end.
 *
 *        (0..4)            words: 0 bar  1 bark  2 row  3 rowan
 *       b/    \r
 *    (0..2)  (2..4)
 */
export type Trie = Pick<Sections, "nodeLetter" | "nodeChild" | "nodeChildren" | "nodeTermFrom" | "nodeTermTo">;

/** Builds the trie. @param words distinct, sorted by UTF-16 units */
export function buildTrie(words: readonly string[]): Trie {
  const letter: number[] = [0];
  const child: number[] = [0];
  const children: number[] = [0];
  const from: number[] = [0];
  const to: number[] = [words.length];
  const depth: number[] = [0];
  for (let node = 0; node < letter.length; node++) {
    child[node] = letter.length;
    let at = from[node];
    if (at < to[node] && words[at].length === depth[node]) at++;
    while (at < to[node]) {
      const unit = words[at].charCodeAt(depth[node]);
      let end = at + 1;
      while (end < to[node] && words[end].charCodeAt(depth[node]) === unit) end++;
      letter.push(unit);
      child.push(0);
      children.push(0);
      from.push(at);
      to.push(end);
      depth.push(depth[node] + 1);
      children[node]++;
      at = end;
    }
  }
  return {
    nodeLetter: Uint16Array.from(letter),
    nodeChild: Uint32Array.from(child),
    nodeChildren: Uint16Array.from(children),
    nodeTermFrom: Uint32Array.from(from),
    nodeTermTo: Uint32Array.from(to),
  };
}

/** The child of a node by its letter, or -1. */
export function childOf({ nodeLetter, nodeChild, nodeChildren }: Trie, node: number, unit: number): number {
  let low = nodeChild[node];
  let high = low + nodeChildren[node] - 1;
  while (low <= high) {
    const middle = (low + high) >>> 1;
    const letter = nodeLetter[middle];
    if (letter === unit) return middle;
    if (letter < unit) low = middle + 1;
    else high = middle - 1;
  }
  return -1;
}

/** Follows the rest of a word down from a node; -1 when it leaves the trie. */
export function descend(trie: Trie, node: number, word: string, start = 0): number {
  for (let i = start; i < word.length && node >= 0; i++) node = childOf(trie, node, word.charCodeAt(i));
  return node;
}

/** True when a word ends at the node; that word is then its first. */
export function endsWord(trie: Trie, node: number): boolean {
  const children = trie.nodeChildren[node];
  return children === 0 || trie.nodeTermFrom[node] < trie.nodeTermFrom[trie.nodeChild[node]];
}

/**
 * Calls `found` with every node reached by the word with exactly one letter replaced, left out, added, or two
 * neighbours swapped. At the place of the error all children are tried; the rest of the word must then follow.
 */
export function descendWithOneError(trie: Trie, word: string, found: (node: number) => void): void {
  const { nodeLetter, nodeChild, nodeChildren } = trie;
  const report = (end: number) => {
    if (end >= 0) found(end);
  };
  let node = 0;
  for (let i = 0; i <= word.length && node >= 0; i++) {
    const unit = word.charCodeAt(i);
    const first = nodeChild[node];
    const last = first + nodeChildren[node];
    for (let child = first; child < last; child++) {
      if (nodeLetter[child] === unit) continue;
      if (i < word.length) report(descend(trie, child, word, i + 1));
      report(descend(trie, child, word, i));
    }
    if (i < word.length) {
      if (i + 1 >= word.length || word.charCodeAt(i + 1) !== unit) report(descend(trie, node, word, i + 1));
      if (i + 1 < word.length && word.charCodeAt(i + 1) !== unit) {
        const swapped = childOf(trie, node, word.charCodeAt(i + 1));
        if (swapped >= 0) {
          const after = childOf(trie, swapped, unit);
          if (after >= 0) report(descend(trie, after, word, i + 2));
        }
      }
      node = childOf(trie, node, unit);
    }
  }
}
