import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { IDS, smallWorld } from "../../testing/small-world.ts";
import { refOf } from "../place/index.ts";

const engine = smallWorld();
const first = (q: string) => engine.forward({ q }).candidates[0];
const hows = (q: string) => Object.fromEntries(first(q).gloss.map(({ typed, how }) => [typed, how]));

describe("forward", () => {
  it("answers an address with its position, parts and lines", () => {
    const found = first("12 Harbour Row, Tidewell");
    expect(found).toMatchObject({
      kind: "address",
      exactness: "surveyed",
      line: "12 Harbour Row, Tidewell, Sallow, HT4 29",
      lines: ["12 Harbour Row", "Old Quay", "Tidewell", "Sallow", "HT4 29", "LORRAMERE"],
      at: { lat: -35.8294, lon: -21.83 },
      parts: {
        house: { name: "12" },
        street: { name: "Harbour Row", abbr: "Harbour Rw" },
        district: { name: "Old Quay", ref: refOf("QR", IDS.oldQuay) },
        town: { name: "Tidewell" },
        county: { name: "Sallow", code: "QR-SA" },
        region: { code: "QR-RE" },
        postcode: { name: "HT4 29" },
        country: { code: "QR" },
      },
    });
    expect(found.score).toBeGreaterThan(0.95);
  });

  it("says how exact the point is", () => {
    expect(first("Harbour Row Tidewell").exactness).toBe("along");
    expect(first("Tidewell").exactness).toBe("centre");
    expect(first("Tidewell Branch Library").exactness).toBe("surveyed");
  });

  it("puts a place at its address", () => {
    expect(first("Tidewell Branch Library").parts).toMatchObject({
      place: { name: "Tidewell Branch Library" },
      house: { name: "1" },
      street: { name: "Harbour Row" },
    });
    expect(first("Tidewell Branch Library").facts).toEqual({ phone: "+990 1 200 3000", stepFree: true });
    expect(first("The Lantern Inn").parts).not.toHaveProperty("street");
  });

  it("is ambiguous while the second fits as well as the first", () => {
    const { outcome, candidates, advice } = engine.forward({ q: "12 Harbour Tidewell" });
    expect(outcome).toBe("ambiguous");
    expect(candidates.length).toBeGreaterThan(1);
    expect(advice[0]).toContain("enter the full street name");
    // of one that is told nothing can be said to part it from others
    const [alone] = engine.forward({ q: "12 Harbour Tidewell", limit: 1 }).advice;
    expect(alone).toBe("Several match equally well: enter more of the address.");
  });

  it("is none when nothing fits, and says which words are not known", () => {
    const { outcome, candidates, advice } = engine.forward({ q: "Zyxwv Quuxgasse" });
    expect(outcome).toBe("none");
    expect(candidates).toEqual([]);
    expect(advice[0]).toContain("Zyxwv, Quuxgasse");
  });

  it("says when the words are known, but not together", () => {
    const { outcome, advice } = engine.forward({ q: "" });
    expect(outcome).toBe("none");
    expect(advice[0]).toContain("at least one word");
  });

  it("asks by parts, and by parts and text together", () => {
    const byParts = engine.forward({ parts: { house: "12", street: "Harbour Row", town: "Tidewell" } });
    expect(byParts.candidates[0].line).toBe("12 Harbour Row, Tidewell, Sallow, HT4 29");
    const mixed = engine.forward({ q: "12 Harbour", parts: { town: "Tidewell", postcode: "HT4 29" } });
    expect(mixed.candidates[0].parts.town!.name).toBe("Tidewell");
  });

  it("takes a part only for what it was given as", () => {
    const asTown = engine.forward({ parts: { town: "Harbour Row" } });
    expect(asTown.outcome).toBe("none");
  });

  it("scores less, the less is explained", () => {
    const scores = [
      "12 Harbour Row Tidewell",
      "12 Harbor Row Tidewell",
      "12 Harbour Row Tidewell HT9 29",
      "12 Harbour Row Zzyzx Quux",
    ].map((q) => first(q).score);
    expect(scores).toEqual([...scores].sort((a, b) => b - a));
    expect(new Set(scores).size).toBe(scores.length);
  });

  it("keeps scores between 0 and 1, and candidates in order, whatever is requested", () => {
    const word = fc.constantFrom(
      "harbour",
      "harbor",
      "row",
      "12",
      "12b",
      "tidewell",
      "ht4",
      "29",
      "the",
      "πελανία",
      "x",
      "saint",
      "st",
      "7",
    );
    fc.assert(
      fc.property(fc.array(word, { minLength: 1, maxLength: 8 }), (words) => {
        const { candidates, outcome } = engine.forward({ q: words.join(" ") });
        for (const { score } of candidates) {
          expect(score).toBeGreaterThanOrEqual(0);
          expect(score).toBeLessThanOrEqual(1);
        }
        expect(candidates.reduce((sum, { score }) => sum + score, 0)).toBeLessThanOrEqual(1.01);
        expect(outcome === "none").toBe(candidates.length === 0);
      }),
    );
  });

  it("shares the score between those that fit equally well", () => {
    const { candidates, outcome } = engine.forward({ q: "harbour" });
    expect(outcome).toBe("ambiguous");
    expect(candidates.map(({ score }) => score)).toEqual([0.333, 0.333, 0.333]);
  });

  it("does not fall over any text", () => {
    fc.assert(fc.property(fc.string({ unit: "binary", maxLength: 60 }), (q) => void engine.forward({ q })));
  });
});

describe("the gloss", () => {
  it("says for each word how it was taken", () => {
    expect(hows("12 the Harbor Rw Tidewell")).toMatchObject({
      "12": "same",
      Harbor: "spelling",
      Rw: "abbreviation",
      Tidewell: "same",
    });
    expect(hows("12 Harbuor Row")).toMatchObject({ Harbuor: "spelling" });
    expect(hows("12 Harbour Row Zzyzx")).toMatchObject({ Zzyzx: "ignored" });
    expect(hows("77 Harbour Row Tidewell")).toMatchObject({ "77": "absent" });
    expect(hows("12c Harbour Row Tidewell")).toMatchObject({ "12c": "nearby" });
  });

  it("says when a word was typed in another script", () => {
    const { candidates } = engine.forward({ q: "pelania", langs: ["qth-Grek"] });
    expect(candidates[0].gloss[0]).toMatchObject({ how: "script", as: "Πελανία", part: "town" });
  });

  it("gives spans of what was typed, and the part each word belongs to", () => {
    const q = "12 Harbour Row, Tidewell";
    for (const { typed, span } of first(q).gloss) expect(q.slice(...span)).toBe(typed);
    expect(first(q).gloss.map(({ part }) => part)).toEqual(["house", "street", "street", "town"]);
  });
});
