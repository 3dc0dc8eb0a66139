import { describe, expect, it } from "vitest";
import { fold, type LanguagePack, Lexicon, type NumberRole, tokenize } from "../src/text/index.ts";

/** What a language's test expects of its pack. */
export interface Expected {
  /** Short forms and what they stand for. */
  short: readonly (readonly [short: string, long: string])[];
  small: readonly string[];
  /** Texts of a word and a number, in either order, and what the number is. */
  numbers: readonly (readonly [text: string, role: NumberRole])[];
  /** Words that say of a name that it is a street's. */
  ways: readonly string[];
}

/** The tests that every language pack passes, and what is its own. */
export function describeLanguage(pack: LanguagePack, { short, small, numbers, ways }: Expected): void {
  const lexicon = new Lexicon([pack]);
  describe(`the pack of ${pack.lang}`, () => {
    it.each(short)("knows %s and %s as forms of each other", (brief, long) => {
      expect(lexicon.otherForms(brief)).toContain(long);
      expect(lexicon.otherForms(long)).toContain(brief);
    });

    it.each(small)("knows that %s may be left out", (word) => {
      expect(lexicon.isSmall(word)).toBe(true);
    });

    it.each(numbers)("reads %s as %s", (text, role) => {
      const [first, second] = tokenize(text).slice(-2);
      expect(first.kind === "number" ? lexicon.roleAfter(second.text) : lexicon.roleBefore(first.text)).toBe(role);
    });

    it.each(ways)("takes a name with %s for a street's", (word) => {
      expect(lexicon.isWay(word)).toBe(true);
      expect(lexicon.isWay("qqxx")).toBe(false);
    });

    it("is folded, since it is compared with folded words, and holds no pair twice", () => {
      const { abbreviations, ordinals = [], before, after = {} } = pack;
      const words = [abbreviations, ordinals, pack.small, pack.ways, Object.values(before), Object.values(after)].flat(
        2,
      );
      for (const word of words) expect(fold(word).text).toBe(word);
      const pairs = abbreviations.map((pair) => pair.join(" "));
      expect(new Set(pairs).size).toBe(pairs.length);
    });
  });
}
