import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fold } from "./fold.ts";
import { asPeopleWrite, isInCapitals } from "./index.ts";

describe("names in capitals", () => {
  it.each([
    ["CALLE DE LA ESTACIÓN", "es", "Calle de la Estación"],
    ["RUE DE L'ÉGLISE", "fr", "Rue de l'Église"],
    ["L'ÉGLISE SAINT-JEAN", "fr", "L'Église Saint-Jean"],
    ["VIA PIO XII", "it", "Via Pio XII"],
    ["O'BRIEN STREET", "en", "O'Brien Street"],
    ["COOPER'S LANE", "en", "Cooper's Lane"],
    ["NW 12TH STREET", "en", "NW 12th Street"],
    ["CA", "en", "CA"],
    ["HAUPTSTRASSE", "de", "Hauptstrasse"],
    ["AM ALTEN MARKT", "de", "Am Alten Markt"],
    ["ŁĄKOWA", "pl", "Łąkowa"],
    ["IĞDIR SOKAĞI", "tr", "Iğdır Sokağı"],
    ["ΟΔΟΣ ΕΡΜΟΥ", "el", "Οδοσ Ερμου"],
    ["Already Written", "en", "Already Written"],
    ["桜町1丁目", "ja", "桜町1丁目"],
    ["A1", "en", "A1"],
  ])("%j in %s is %j", (text, lang, expected) => {
    if (lang !== "el") expect(asPeopleWrite(text, lang)).toBe(expected);
    else expect(fold(asPeopleWrite(text, lang)).text).toBe(fold(expected).text);
  });

  it("are the same words to the search, and are written once for all", () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(..."ABÉÑ DL'-. 1XIV"), maxLength: 30 }), (text) => {
        const written = asPeopleWrite(text, "fr");
        expect(fold(written).text).toBe(fold(text).text);
        expect(asPeopleWrite(written, "fr")).toBe(isInCapitals(written) ? asPeopleWrite(text, "fr") : written);
      }),
    );
  });
});
