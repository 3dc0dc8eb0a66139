import { describe, expect, it } from "vitest";
import { lexiconOf } from "./lexicon.ts";

describe("compounds with a short kind of street", () => {
  const lexicon = lexiconOf(["de", "nl", "sv"]);

  it.each([
    ["lindenstr", ["lindenstrasse", "lindenstraat"]],
    ["tanenpl", ["tanenplatz", "tanenplein"]],
    // the longest that it may end with: not "laan" by its last two letters
    ["tuinpln", ["tuinplein"]],
    ["kerkstwg", ["kerksteenweg"]],
    ["bakker", []],
    // too little of it is left to be a name
    ["amstr", []],
  ])("%s may be %j", (word, forms) => {
    const written = lexicon.writtenOut(word);
    for (const form of forms) expect(written).toContain(form);
    if (!forms.length) expect(written).toEqual([]);
    for (const form of written) expect(form.length).toBeGreaterThan(word.length);
  });
});
