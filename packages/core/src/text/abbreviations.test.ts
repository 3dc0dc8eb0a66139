import { describe, expect, it } from "vitest";
import { ABBREVIATIONS, otherForms, SMALL_WORDS } from "./abbreviations.ts";
import { fold } from "./fold.ts";

describe("otherForms", () => {
  it("finds the long form from the short one, and back", () => {
    expect(otherForms("rd")).toContain("road");
    expect(otherForms("road")).toContain("rd");
  });

  it("knows that a short form may stand for several words", () => {
    expect(otherForms("st")).toEqual(expect.arrayContaining(["street", "saint"]));
  });

  it("gives nothing for a word without another form", () => {
    expect(otherForms("harbour").filter((form) => form === "street")).toEqual([]);
    expect(otherForms("constructor")).toEqual([]);
  });
});

describe("the lists", () => {
  it("are folded already, since they are compared with folded words", () => {
    for (const pairs of Object.values(ABBREVIATIONS)) {
      for (const word of pairs.flat()) expect(fold(word).text).toBe(word);
    }
    for (const word of SMALL_WORDS) expect(fold(word).text).toBe(word);
  });

  it("hold no pair twice", () => {
    for (const [language, pairs] of Object.entries(ABBREVIATIONS)) {
      const seen = pairs.map(([short, long]) => `${short} ${long}`);
      expect(new Set(seen).size, language).toBe(seen.length);
    }
  });
});
