import { describe, expect, it } from "vitest";
import { type Advice, advise, partIn } from "./advice.ts";
import { ADVICE_WORDS } from "./advice-words.ts";

const valuesIn = (text: string) => [...text.matchAll(/\{(\w+)\}/g)].map(([, name]) => name).sort();
const languages = Object.entries(ADVICE_WORDS);

describe("the service's advice", () => {
  it("is there in the nine languages beside English that the kit speaks", () => {
    expect(Object.keys(ADVICE_WORDS).sort()).toEqual(["ar", "de", "el", "es", "fr", "it", "nl", "pl", "pt"]);
  });

  it.each(languages)("in %s says what the English sentence does of the same values, and is no English", (_, words) => {
    for (const [english, text] of Object.entries(words)) {
      expect(valuesIn(text), english).toEqual(valuesIn(english));
      expect(text.trim(), english).toBe(text);
      if (english.includes(" ")) expect(text).not.toBe(english);
    }
  });

  it("comes in the first language that it is known in, regions and letter case aside, and in English else", () => {
    const english: Advice = "There is no postcode that starts like this.";
    const german = ADVICE_WORDS.de[english];
    for (const langs of [["de"], ["de-AT"], ["DE"], ["qth-Latn", "de", "fr"], ["sv", "de-CH", "en"]])
      expect(advise(langs, english), langs.join()).toBe(german);
    for (const langs of [[], ["en-GB", "de"], ["sv"], ["constructor"], ["__proto__", "toString"], [""]])
      expect(advise(langs, english), langs.join()).toBe(english);
    expect(partIn(["fr-CA"], "postcode")).toBe("code postal");
    expect(partIn(["en"], "postcode")).toBe("postcode");
  });

  it("puts what was written in as it is, whatever is in it", () => {
    expect(advise(["de"], "Unknown: {words}. Check the spelling.", { words: "$& {at} <b>" })).toBe(
      "Unbekannt: $& {at} <b>. Prüfen Sie die Schreibweise.",
    );
  });
});
