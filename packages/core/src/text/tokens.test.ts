import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MAX_TOKEN_LENGTH, MAX_TOKENS, tokenize } from "./tokens.ts";

const words = (text: string) => tokenize(text).map((token) => token.text);

describe("tokenize", () => {
  it.each([
    ["12 Harbour Row, Tidewell", ["12", "harbour", "row", "tidewell"]],
    ["Cooper's Lane", ["coopers", "lane"]],
    ["Cooper’s Lane", ["coopers", "lane"]],
    ["12-14 Mill Hill", ["12-14", "mill", "hill"]],
    ["Østergränd 12/3", ["ostergrand", "12/3"]],
    ["12b", ["12b"]],
    ["Up-and-Under", ["up", "and", "under"]],
    ["ΘΑ-123", ["tha", "123"]],
    ["HT4 29", ["ht4", "29"]],
    ["'; DROP TABLE addresses; --", ["drop", "table", "addresses"]],
    ["<img src=x onerror=alert(1)>", ["img", "src", "x", "onerror", "alert", "1"]],
    ["", []],
    ["  ,.;  ", []],
    ["\u0000\u0007\u001b", []],
  ])("cuts %j", (text, expected) => {
    expect(words(text)).toEqual(expected);
  });

  it("tells numbers from words", () => {
    expect(tokenize("12b harbour 3").map(({ kind }) => kind)).toEqual(["number", "word", "number"]);
  });

  it("says where each word stands in the source", () => {
    const text = "12 Østergränd";
    const [number, word] = tokenize(text);
    expect(text.slice(number.start, number.end)).toBe("12");
    expect(text.slice(word.start, word.end)).toBe("Østergränd");
  });

  it.each([
    ["c/o Vandorn", ["/", undefined, undefined]],
    ["#3, 12 Mill", ["#", undefined, undefined]],
    ["7º B", ["º", undefined]],
    ["2ª", ["º"]],
    ["and/or 12/b", [undefined, undefined, undefined, undefined]],
  ])("sees the signs at the words of %s", (text, signs) => {
    expect(tokenize(text).map(({ sign }) => sign)).toEqual(signs);
  });

  it("takes combining marks with the letter before them", () => {
    const text = "cafe\u0301 x";
    const [word] = tokenize(text);
    expect(text.slice(word.start, word.end)).toBe("cafe\u0301");
  });

  it("parts a word and a number that are grown together, and leaves what is one", () => {
    expect(words("Hauptstraße12")).toEqual(["hauptstrasse", "12"]);
    expect(words("12Hauptstraße, Ort")).toEqual(["12", "hauptstrasse", "ort"]);
    expect(words("Largo 15a, Mühlweg43/4")).toEqual(["largo", "15a", "muhlweg", "43/4"]);
    for (const one of ["b12", "m25", "12th", "101st", "1er", "12bis", "12b", "AB1"])
      expect(words(one)).toEqual([one.toLowerCase()]);
  });

  it("takes a letter and the end of its word for one short word, and leaves saints and initials alone", () => {
    expect(words("V.le dei Olmi")).toEqual(["vle", "dei", "olmi"]);
    expect(words("P.zza Roma, C.so Roma")).toEqual(["pzza", "roma", "cso", "roma"]);
    expect(words("S.Leo, Monte S.Anna")).toEqual(["s", "leo", "monte", "s", "anna"]);
    expect(words("U.S.A. J.Moore")).toEqual(["u", "s", "a", "j", "moore"]);
    expect(words("Květná č. p. 45a")).toEqual(["kvetna", "cp", "45a"]);
    expect(words("č.p.45, P. O. Box 7")).toEqual(["cp", "45", "p", "o", "box", "7"]);
    const [word] = tokenize("V.le");
    expect([word.start, word.end]).toEqual([0, 4]);
  });

  it("leaves the last word open only while nothing follows it", () => {
    expect(tokenize("12 harb").at(-1)!.open).toBe(true);
    expect(tokenize("12 harb ").at(-1)!.open).toBe(false);
    expect(tokenize("12 harb").at(0)!.open).toBe(false);
  });

  it("reads right-to-left text as words", () => {
    expect(words("שלום 12")).toEqual(["שלום", "12"]);
  });

  it("bounds what it reads of a long text", () => {
    const tokens = tokenize("harbour ".repeat(2000));
    expect(tokens).toHaveLength(MAX_TOKENS);
    expect(tokenize("a".repeat(10_000))[0].text).toHaveLength(MAX_TOKEN_LENGTH);
  });

  it("reads a fraction of one character as it is written with a slash", () => {
    expect(words("4816½ Main Street")).toEqual(["4816", "1/2", "main", "street"]);
    expect(words("⅒")).toEqual(["1/10"]);
  });

  it("never parts one character into two words", () => {
    expect(words("東\u33fe1")).toEqual(["東", "31日", "1"]);
    for (let code = 0; code < 0x3_0000; code++) {
      const [first, second] = tokenize(String.fromCodePoint(code));
      if (second) expect(second.start, `U+${code.toString(16)}`).toBeGreaterThanOrEqual(first.end);
    }
  });

  it("reads plain texts by a shorter pattern, and as it reads others", () => {
    const units = fc.constantFrom(..."abcst0127 ,;#-/&()_|\n\t", "street", " 12", "12b", "4/5", " - ");
    fc.assert(
      // an apostrophe that belongs to no word makes a text be read as others are
      fc.property(fc.string({ unit: units, maxLength: 30 }), (text) => {
        expect(tokenize(`${text} `)).toEqual(tokenize(`${text} '`));
      }),
    );
  });

  it("gives ranges that are sorted and apart, whatever the text", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary", maxLength: 80 }), (text) => {
        let end = 0;
        for (const token of tokenize(text)) {
          expect(token.start).toBeGreaterThanOrEqual(end);
          expect(token.end).toBeGreaterThan(token.start);
          expect(token.from).toHaveLength(token.text.length);
          end = token.end;
        }
        expect(end).toBeLessThanOrEqual(text.length);
      }),
    );
  });
});
