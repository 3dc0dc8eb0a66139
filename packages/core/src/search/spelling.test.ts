import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { Segment, SegmentBuilder } from "../index/index.ts";
import { termsWithTwoErrors } from "./spelling.ts";

/** A segment whose dictionary is some words. */
function dictionaryOf(words: readonly string[]): Segment {
  const builder = new SegmentBuilder();
  const at = { lat: 0, lon: 0 };
  const names = [{ lang: "en", name: words.join(" ") }];
  builder.addArea({ identity: 1, kind: "country", parent: null, code: "QR", names, at, importance: 1, rings: [] });
  return new Segment(builder.finish({ name: "x", sources: [] }));
}

/** Restricted edit distance, by the book. */
function distance(a: string, b: string): number {
  const table = Array.from({ length: a.length + 1 }, (_, i) =>
    Array.from({ length: b.length + 1 }, (_, j) => (i ? (j ? 0 : i) : j)),
  );
  for (let i = 1; i <= a.length; i++) {
    for (let j = 1; j <= b.length; j++) {
      table[i][j] = Math.min(
        table[i - 1][j] + 1,
        table[i][j - 1] + 1,
        table[i - 1][j - 1] + Number(a[i - 1] !== b[j - 1]),
      );
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        table[i][j] = Math.min(table[i][j], table[i - 2][j - 2] + 1);
    }
  }
  return table[a.length][b.length];
}

describe("termsWithTwoErrors", () => {
  it("finds just the words within two errors, whatever the words", () => {
    const word = fc.string({ unit: fc.constantFrom("a", "b", "c", "d"), minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(fc.uniqueArray(word, { minLength: 1, maxLength: 12 }), word, (words, typed) => {
        const segment = dictionaryOf(words);
        const found = termsWithTwoErrors(segment, typed, false).map((term) => segment.term(term));
        expect(found.sort()).toEqual(words.filter((known) => distance(typed, known) <= 2).sort());
        const begun = termsWithTwoErrors(segment, typed, true).map((term) => segment.term(term));
        const isBegun = (known: string) => [...known].some((_, i) => distance(typed, known.slice(0, i + 1)) <= 2);
        expect(begun.sort()).toEqual(words.filter(isBegun).sort());
      }),
      { numRuns: 200 },
    );
  });

  it("finds words of which a beginning lies within two errors, while the word is unfinished", () => {
    const segment = dictionaryOf(["tetragono", "harbour"]);
    const found = (typed: string) => termsWithTwoErrors(segment, typed, true).map((term) => segment.term(term));
    expect(found("tetargn")).toEqual(["tetragono"]);
    expect(found("harbuor")).toEqual(["harbour"]);
    expect(found("xxxxxxx")).toEqual([]);
  });
});
