import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { buildTrie, childOf, descend, descendWithOneError, endsWord } from "./trie.ts";

const WORDS = ["bar", "bark", "barn", "harbour", "harbourmaster", "row", "rowan"];
const trie = buildTrie(WORDS);
const below = (node: number) => WORDS.slice(trie.nodeTermFrom[node], trie.nodeTermTo[node]);

/** Restricted edit distance: replace, leave out, add, swap neighbours. */
function distance(a: string, b: string): number {
  const rows = Array.from({ length: a.length + 1 }, (_, i) =>
    Array.from({ length: b.length + 1 }, (_, j) => (i === 0 ? j : j === 0 ? i : 0)),
  );
  for (let i = 1; i <= a.length; i++) {
    for (let j = 1; j <= b.length; j++) {
      rows[i][j] = Math.min(
        rows[i - 1][j] + 1,
        rows[i][j - 1] + 1,
        rows[i - 1][j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1),
      );
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        rows[i][j] = Math.min(rows[i][j], rows[i - 2][j - 2] + 1);
    }
  }
  return rows[a.length][b.length];
}

describe("a trie", () => {
  it("has all words below its root", () => {
    expect(below(0)).toEqual(WORDS);
  });

  it("leads to the words that begin with some characters", () => {
    expect(below(descend(trie, 0, "bar"))).toEqual(["bar", "bark", "barn"]);
    expect(below(descend(trie, 0, "harb"))).toEqual(["harbour", "harbourmaster"]);
    expect(descend(trie, 0, "x")).toBe(-1);
    expect(descend(trie, 0, "rows")).toBe(-1);
  });

  it("knows where a word ends", () => {
    expect(endsWord(trie, descend(trie, 0, "bar"))).toBe(true);
    expect(endsWord(trie, descend(trie, 0, "ba"))).toBe(false);
    expect(endsWord(trie, descend(trie, 0, "rowan"))).toBe(true);
  });

  it("has no child for a letter that does not follow", () => {
    expect(childOf(trie, 0, "z".charCodeAt(0))).toBe(-1);
    expect(childOf(trie, 0, "b".charCodeAt(0))).toBeGreaterThan(0);
  });

  it("can be built of one word, and of none", () => {
    expect(endsWord(buildTrie([]), 0)).toBe(true);
    const one = buildTrie(["a"]);
    expect(endsWord(one, descend(one, 0, "a"))).toBe(true);
  });
});

describe("descendWithOneError", () => {
  const reached = (words: readonly string[], typed: string) => {
    const built = buildTrie(words);
    const found = new Set<string>();
    descendWithOneError(built, typed, (node) => {
      if (endsWord(built, node)) found.add(words[built.nodeTermFrom[node]]);
    });
    return found;
  };

  it.each([
    ["harbor", "harbour", "left out"],
    ["harbouur", "harbour", "added"],
    ["harbonr", "harbour", "replaced"],
    ["habrour", "harbour", "swapped"],
    ["owan", "rowan", "left out at the beginning"],
    ["rowam", "rowan", "replaced at the end"],
  ])("reaches from %s to %s (%s)", (typed, word) => {
    expect(reached(WORDS, typed)).toContain(word);
  });

  it("does not reach a word that is two errors away", () => {
    expect(reached(WORDS, "hrbor")).not.toContain("harbour");
  });

  it("reaches just the words at a distance of one", () => {
    const word = fc.string({ unit: fc.constantFrom("a", "b", "c"), minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(fc.uniqueArray(word, { minLength: 1, maxLength: 12 }), word, (words, typed) => {
        const sorted = [...words].sort();
        const found = reached(sorted, typed);
        for (const known of sorted) {
          if (distance(known, typed) === 1) expect(found).toContain(known);
          else if (known !== typed) expect(found).not.toContain(known);
        }
      }),
      { numRuns: 300 },
    );
  });
});
