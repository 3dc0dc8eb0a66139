import { describe, expect, it } from "vitest";
import { lengthText } from "./length-text.ts";

describe("lengthText", () => {
  it.each([
    [0, "0 m"],
    [342.4, "342 m"],
    [999.4, "999 m"],
    [999.6, "1.0 km"],
    [12_440, "12.4 km"],
    [99_960, "100 km"],
    [1_204_600, "1,205 km"],
  ])("writes %d metres as %s", (metres, text) => {
    expect(lengthText(metres)).toBe(text);
  });

  it.each([
    ["de", 12_440, "12,4 km"],
    ["de", 1_204_600, "1.205 km"],
    ["fr", 1_204_600, "1\u00a0205\u00a0km"],
    ["el", 342, "342 μ."],
    ["pl", 500, "500 m"],
    ["ar", 500, "\u200f500 متر"],
  ])("writes it as people do in %s: %d metres as %s", (lang, metres, text) => {
    expect(lengthText(metres, lang)).toBe(text);
  });

  it("writes any length as the language's own format does", () => {
    const langs = "ar cs da de de-AT de-CH el en en-GB en-IN en-ZA es es-MX fr fr-CH it it-CH nl pl pt pt-PT sv".split(
      " ",
    );
    const lengths = [
      0, 1, 45, 200, 999, 1000, 1049, 1050, 1951, 2000, 12_440, 12_450, 99_940, 99_960, 500_000, 999_949,
    ];
    for (const lang of langs)
      for (const metres of [...lengths, 999_950, 1_204_600, ...Array.from({ length: 300 }, (_, i) => 950 + i * 331)]) {
        const own = (value: number, unit: string, digits: number) =>
          new Intl.NumberFormat(lang, {
            style: "unit",
            unit,
            minimumFractionDigits: digits,
            maximumFractionDigits: digits,
          })
            .format(value)
            .replaceAll("\u202f", "\u00a0");
        const expected =
          metres < 1000 ? own(metres, "meter", 0) : own(metres / 1000, "kilometer", metres < 99_950 ? 1 : 0);
        expect(lengthText(metres, lang).replace("\u200f", ""), `${lang} ${metres}`).toBe(expected);
        if (metres % 1000 === 0)
          expect(lengthText(metres, lang, true).replace("\u200f", ""), `${lang} ${metres}, exact`).toBe(
            metres ? own(metres / 1000, "kilometer", 0) : own(0, "meter", 0),
          );
      }
  });

  it("keeps the fraction of a round length", () => {
    expect(lengthText(500, "en", true)).toBe("500 m");
    expect(lengthText(20_000, "en", true)).toBe("20 km");
    expect(lengthText(2_500, "de", true)).toBe("2,5 km");
  });
});
