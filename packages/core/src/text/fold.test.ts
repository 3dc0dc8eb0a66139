import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fold, hasOtherScript } from "./fold.ts";

describe("fold", () => {
  it.each([
    ["Harbour Row", "harbour row"],
    ["Østergränd", "ostergrand"],
    ["Å", "a"],
    ["Skëldvík", "skeldvik"],
    ["Straße", "strasse"],
    ["Hømmelallé", "hommelalle"],
    ["ŁÓDKA", "lodka"],
    ["Þorp", "thorp"],
    ["Πελανία", "pelania"],
    ["Θαλμύρα", "thalmyra"],
    ["Τετράγωνο", "tetragono"],
    ["Ψαρούσα", "psarousa"],
    ["Ευαγόρα", "evagora"],
    ["Набережная", "naberezhnaya"],
    ["Щука", "shchuka"],
    ["ﬁeld", "field"],
    ["１２", "12"],
  ])("writes %s as %s", (source, folded) => {
    expect(fold(source).text).toBe(folded);
  });

  it("gives for every folded letter the place that it came from", () => {
    const { text, from } = fold("Øß1");
    expect(text).toBe("oss1");
    expect(from).toEqual([0, 1, 1, 2]);
  });

  it("keeps the places right behind characters of two units", () => {
    const { text, from } = fold("😀ä");
    expect(text).toBe("😀a");
    expect(from.at(-1)).toBe(2);
  });

  it("takes a composed and a decomposed letter as the same", () => {
    expect(fold("é").text).toBe(fold("e\u0301").text);
  });

  it("is the same when done twice", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", maxLength: 40 }), (text) => {
        const once = fold(text).text;
        expect(fold(once).text).toBe(once);
      }),
    );
  });

  it("has a place for every unit, in order, within the source", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary", maxLength: 40 }), (text) => {
        const folded = fold(text);
        expect(folded.from).toHaveLength(folded.text.length);
        for (let i = 0; i < folded.from.length; i++) {
          expect(folded.from[i]).toBeLessThan(text.length);
          if (i > 0) expect(folded.from[i]).toBeGreaterThanOrEqual(folded.from[i - 1]);
        }
      }),
    );
  });

  it("does not fall over lone surrogates", () => {
    expect(() => fold("a\ud800b\udc00")).not.toThrow();
  });
});

describe("hasOtherScript", () => {
  it("tells Greek and Cyrillic from Latin", () => {
    expect(hasOtherScript("Πελανία")).toBe(true);
    expect(hasOtherScript("Мост")).toBe(true);
    expect(hasOtherScript("Østergränd 12")).toBe(false);
  });
});
