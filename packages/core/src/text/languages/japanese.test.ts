import { describe, expect, it } from "vitest";
import { describeLanguage } from "../../../testing/language.ts";
import { Lexicon, tokenize } from "../index.ts";
import { JAPANESE } from "./japanese.ts";

describeLanguage(JAPANESE, {
  short: [],
  small: ["の"],
  numbers: [
    ["地下2", "floor"],
    ["電話 03", "telephone"],
  ],
  ways: ["通り", "大通り"],
});

describe("Japanese", () => {
  it("parts its letters from numbers, and knows what stands behind those", () => {
    const words = tokenize("桜町1丁目2番3号").map(({ text }) => text);
    expect(words).toEqual(["桜町", "1", "丁目", "2", "番", "3", "号"]);
    expect(tokenize("〒102-1296 桜町1丁目2-3").map(({ text }) => text)).toEqual([
      "102-1296",
      "桜町",
      "1",
      "丁目",
      "2-3",
    ]);
    const lexicon = new Lexicon([JAPANESE]);
    expect([words[4], words[6]].map((word) => lexicon.roleAfter(word))).toEqual(["house", "house"]);
  });
});
