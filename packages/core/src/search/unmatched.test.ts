import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { allProfiles, formatLine, type Parts, profileOf } from "../place/index.ts";
import { addressIn, lexiconOf } from "../text/index.ts";
import { splitByProfile } from "./unmatched.ts";

const named = allProfiles().map((profile) => [profile.code, profile] as const);

describe("an address of each country", () => {
  it.each(named)("%s is split again as typed", (_, profile) => {
    const lexicon = lexiconOf(profile.langs);
    const number = profile.number.part;
    const word = fc.constantFrom("Vuxxel", "Qwort", "Bleen", "Zarrow", "Tilm", "Grosp");
    const postcode = fc.constantFrom(...(profile.postcode?.examples ?? [""]));
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 999 }), word, word, postcode, (house, street, town, code) => {
        const name = number === "building" ? "block" : "street";
        const parts: Parts = {
          [number]: { name: String(house) },
          [name]: { name: `${street}way` },
          town: { name: `${town}ham` },
        };
        if (code) parts.postcode = { name: code };
        const { parts: read } = splitByProfile(formatLine(parts, profile), profile, lexicon);
        expect(read[number]?.name).toBe(String(house));
        expect(read[name]?.name).toBe(`${street}way`);
        expect(read.postcode?.name).toBe(parts.postcode?.name);
        expect(Object.values(read).map((part) => part.name)).toContain(`${town}ham`);
      }),
      { numRuns: 30 },
    );
  });
});

describe("an address that nobody holds", () => {
  it.each([
    "Where is 99 Vuxxel Lane, Qwort?",
    "Street: Vuxxel Lane Number: 99 Town: Qwort",
    '{"street":"Vuxxel Lane","number":"99","town":"Qwort"}',
    "99%20Vuxxel%20Lane%2C%20Qwort",
    "“99 Vuxxel Lane, Qwort”",
    "Vuxxel Lane, 99, Qwort",
  ])("is split without what is around it: %s", (text) => {
    const profile = profileOf("QR");
    const { parts, gloss } = splitByProfile(addressIn(text), profile, lexiconOf(profile.langs));
    expect(parts).toEqual({ house: { name: "99" }, street: { name: "Vuxxel Lane" }, town: { name: "Qwort" } });
    for (const { span, part } of gloss) {
      const written = decodeURIComponent(text.slice(...span));
      expect(written).toBe(parts[part!]!.name);
    }
  });
});
