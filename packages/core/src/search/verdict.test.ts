import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { smallWorld } from "../../testing/small-world.ts";
import { OUTCOMES, type PartName } from "../place/index.ts";
import type { Candidate } from "./candidates.ts";
import { weigh } from "./verdict.ts";
import { VERDICT } from "./weights.ts";

const engine = smallWorld();
const told = (query: Parameters<typeof engine.forward>[0]) => {
  const { outcome, candidates } = engine.forward(query);
  const differences = candidates[0]?.differences.map(({ part, written, held: known, how }) => [
    part,
    written,
    known,
    how,
  ]);
  return { outcome, line: candidates[0]?.line.split(",")[0], differences };
};
const matched = (line: string, ...differences: unknown[]) => ({ outcome: "matched", line, differences });
const differs = (line: string, ...differences: unknown[]) => ({ outcome: "differs", line, differences });
const NONE = { outcome: "none", line: undefined, differences: undefined };
const ROW = "12 Harbour Row";

describe("the verdict of a text", () => {
  it.each([
    ["12 Harbour Row, Tidewell", matched(ROW)],
    ["12 Harbor Rw, Tidewell", matched(ROW)],
    ["12b harbour row tidewell", matched("12B Harbour Row")],
    ["12 b Harbour Row Tidewell", matched("12B Harbour Row")],
    ["12c Harbour Row, Tidewell", differs(ROW, ["house", "12c", "12", "nearby"])],
    ["12 1/2 Harbour Row, Tidewell", differs(ROW, ["house", "12 1/2", "12", "nearby"])],
    ["999 Harbour Row, Tidewell", differs("Harbour Row", ["house", "999", undefined, "absent"])],
    ["12 Tidewell", differs("Tidewell", ["house", "12", undefined, "absent"])],
    ["12 Harbour Row, Tidewell, HT9 29", differs(ROW, ["postcode", "HT9 29", "HT4 29", "other"])],
    ["12 Harbour Row, Tidewell, HT7 77", differs(ROW, ["postcode", "HT7 77", "HT4 29", "unknown"])],
    ["12 Harbour Row, Tidewick", differs(ROW, ["town", "Tidewick", "Tidewell", "other"])],
    ["12 Harbour Row, Blurgh", differs(ROW, ["town", "Blurgh", "Tidewell", "unknown"])],
    ["12 Harbour Row, Blurgh, Sallow", differs(ROW, ["town", "Blurgh", "Tidewell", "unknown"])],
    ["the 12 Harbour Row, Blurgh", differs(ROW, ["town", "Blurgh", "Tidewell", "unknown"])],
    ["12 Harbour Row Blurgh", differs(ROW, ["town", "Blurgh", "Tidewell", "unknown"])],
    ["12 Harbour Row, Tidewell, Thalmyra", differs(ROW, ["country", "Thalmyra", "Lorramere", "other"])],
    ["Flat 9, 12 Harbour Row, Tidewell", matched(ROW, ["unit", "9", undefined, "absent"])],
    // a person, a firm, a telephone number, what is to be done there: they cost nothing
    ["John Smith, 12 Harbour Row, Tidewell", matched(ROW)],
    ["John Smith 12 Harbour Row Tidewell", matched(ROW)],
    ["c/o Blurgh Ltd, 12 Harbour Row, Tidewell", matched(ROW)],
    ["12 Harbour Row, Tidewell, deliver to the back door", matched(ROW)],
    ["Tel. 0123 45678, 12 Harbour Row, Tidewell", matched(ROW)],
    ["12 Harbour Row, Tidewell, phone 0123 456 789", matched(ROW)],
    ["12 Harbour Row, Tidewell, 7.3.2026", matched(ROW)],
    ["PO Box 14, 12 Harbour Row, Tidewell", matched(ROW)],
    ["12 Harbour Row, PO Box 14, Tidewell", matched(ROW)],
    // a box is nowhere that is known
    ["PO Box 14, Tidewell", differs("Tidewell", ["house", "14", undefined, "absent"])],
    // grown together
    ["12Harbour Row, Tidewell", matched(ROW)],
    ["Harbour Row12, Tidewell", matched(ROW)],
    ["12 Harbour Row, Tidewell, HT429", matched(ROW)],
    ["12 Harbour Row, 0171 555 1234, Tidewell", matched(ROW)],
    ["Harbour Row Garage, 12 Harbour Row, Tidewell", matched(ROW)],
    ["Harbour Tea Rooms, 12 Harbour Row, Tidewell", matched(ROW)],
    // no other street is taken for one that is not known
    ["Nosuch Lane 11 Tidewell", NONE],
    ["11 Nosuch Lane, Tidewell", NONE],
    ["12 Upper Harbour Row Tidewell", NONE],
    ["12 Upper Harbour Row", NONE],
    ["Tidewell Central Library", NONE],
    ["qqqzx 12", NONE],
    // the broader thing is meant by its name alone
    ["Tidewell", matched("Tidewell")],
    ["Sallow", matched("Sallow")],
    ["HT4 29", matched("HT4 29")],
  ])("of “%s”", (q, verdict) => {
    expect(told({ q })).toEqual(verdict);
  });

  it.each([
    [{ street: "Harbour Row", house: "12c", town: "Tidewell" }, differs(ROW, ["house", "12c", "12", "nearby"])],
    [{ street: "Nosuch Lane", house: "11", town: "Tidewell" }, NONE],
    [{ street: "Harbour Row", house: "12", town: "Blurgh" }, differs(ROW, ["town", "Blurgh", "Tidewell", "unknown"])],
    [{ street: "Harbour Row", house: "12", town: "Tidewell", country: "QR" }, matched(ROW)],
    [{ street: "12 Harbour Row", town: "Tidewell" }, matched(ROW)],
    [{ street: "Harbour Row 12", town: "Tidewell" }, matched(ROW)],
    [{ street: "12 Harbour Row", house: "14", town: "Tidewell" }, NONE],
    [
      { street: "Harbour Row", house: "12", postcode: "HT9 29" },
      differs(ROW, ["postcode", "HT9 29", "HT4 29", "other"]),
    ],
  ])("of the parts %j", (parts, verdict) => {
    expect(told({ parts })).toEqual(verdict);
  });
});

describe("the advice", () => {
  it.each([
    ["12 Harbour Row, Blurgh", "There is no town “Blurgh” in the data. “Harbour Row” is in Tidewell."],
    ["12 Harbour Row, Tidewick", "There is nothing like it in “Tidewick”. “Harbour Row” is in Tidewell."],
    ["12c Harbour Row, Tidewell", "Something differs from what was entered: see the differences."],
  ])("for “%s” says nothing that was done already", (q, advice) => {
    expect(engine.forward({ q }).advice).toEqual([advice]);
  });
});

/** Words of the small world, of other worlds and of none, with what parts them. */
const words = fc
  .array(
    fc.tuple(
      fc.constantFrom(
        ...["12", "12b", "12c", "999", "Harbour", "Row", "Road", "Mill", "Lane", "Tidewell", "Tidewick", "Sallow"],
        ...["HT4", "29", "HT9", "Blurgh", "Zyzzx", "Flat", "3", "Lorramere", "Library", "Saint", "Πελανία", "(back)"],
      ),
      fc.constantFrom(" ", ", ", "; ", "\n"),
    ),
    { minLength: 1, maxLength: 9 },
  )
  .map((pieces) => pieces.flat().join("").trim());

describe("every verdict", () => {
  it("agrees with its scores and its differences, whatever is requested", () => {
    fc.assert(
      fc.property(words, (q) => {
        const { outcome, candidates } = engine.forward({ q, limit: 50 });
        expect(OUTCOMES).toContain(outcome);
        const scores = candidates.map(({ score }) => score);
        expect(scores.reduce((sum, score) => sum + score, 0)).toBeLessThanOrEqual(1 + 1e-9);
        expect(scores).toEqual([...scores].sort((a, b) => b - a));
        if (outcome === "none") expect(candidates).toEqual([]);
        else expect(candidates.length).toBeGreaterThan(0);
        const isSeveral = scores.length > 1 && scores[1] * 2 >= scores[0];
        expect(outcome === "ambiguous").toBe(outcome !== "none" && isSeveral);
        const telling = candidates[0]?.differences.filter(({ part }) => part !== "unit") ?? [];
        if (outcome === "matched") expect(telling).toEqual([]);
        if (outcome === "differs") expect(telling).not.toEqual([]);
      }),
      { numRuns: process.env.BIBLIOTOPE_LONG ? 1500 : 300 },
    );
  });

  it("is the same however many are wanted", () => {
    fc.assert(
      fc.property(words, fc.integer({ min: 1, max: 8 }), (q, limit) => {
        const all = engine.forward({ q, limit: 50 });
        const some = engine.forward({ q, limit });
        expect(some.outcome).toBe(all.outcome);
        expect(some.candidates).toEqual(all.candidates.slice(0, limit));
        const { outcome, first } = engine.likeliest({ q });
        expect([outcome, first?.ref, first?.score]).toEqual([
          all.outcome,
          all.candidates[0]?.ref,
          all.candidates[0]?.score,
        ]);
      }),
      { numRuns: process.env.BIBLIOTOPE_LONG ? 500 : 150 },
    );
  });

  it("names as written just what was written, and never what the record has there", () => {
    fc.assert(
      fc.property(words, (q) => {
        for (const { differences, parts } of engine.forward({ q }).candidates)
          for (const { part, written, held: known } of differences) {
            expect(q).toContain(written);
            if (known === undefined) continue;
            expect(known).toBe(parts[part as PartName]?.name);
            expect(written.toLowerCase()).not.toBe(known.toLowerCase());
          }
      }),
      { numRuns: process.env.BIBLIOTOPE_LONG ? 1000 : 250 },
    );
  });
});

describe("two that fit nearly as well", () => {
  /** Candidates that explain everything, by their scores. */
  const outcomeOf = (...scores: number[]) => {
    const segment = { kindOf: () => "town", firstStreet: 10 };
    return weigh(
      scores.map(
        (score) => ({ score, tokens: [], explained: [], thing: 1, indexed: { segment } }) as unknown as Candidate,
      ),
    ).outcome;
  };

  it("are ambiguous up to twice the chance of the other, and not beyond", () => {
    const factor = VERDICT.factor as number;
    const movedTo = (value: number, act: () => boolean) => {
      try {
        (VERDICT as { factor: number }).factor = value;
        return act();
      } finally {
        (VERDICT as { factor: number }).factor = factor;
      }
    };
    const isAsItShouldBe = () => outcomeOf(0.99, 0.989) === "ambiguous" && outcomeOf(0.99, 0.988) === "matched";
    expect(isAsItShouldBe()).toBe(true);
    expect(movedTo(factor / 2, isAsItShouldBe)).toBe(false);
    expect(movedTo(factor * 1.5, isAsItShouldBe)).toBe(false);
  });
});
