import { describe, expect, it } from "vitest";
import { describeLanguage } from "../../../testing/language.ts";
import { Lexicon, tokenize } from "../index.ts";
import { KOREAN } from "./korean.ts";

describeLanguage(KOREAN, {
  short: [],
  small: [],
  numbers: [
    ["사서함 371", "box"],
    ["지하2", "floor"],
  ],
  ways: ["대로", "길"].map((word) => word.normalize("NFD")),
});

describe("Korean", () => {
  it("knows the parts of a building by what stands behind their numbers", () => {
    const words = tokenize("장미로 12, 6동 606호").map(({ text }) => text);
    expect(words.map((word) => word.normalize("NFC"))).toEqual(["장미로", "12", "6", "동", "606", "호"]);
    const lexicon = new Lexicon([KOREAN]);
    expect([words[3], words[5]].map((word) => lexicon.roleAfter(word))).toEqual(["unit", "unit"]);
  });
});
