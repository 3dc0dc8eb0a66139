import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { IDS, smallWorld } from "../../testing/small-world.ts";
import { refOf } from "../place/index.ts";

const engine = smallWorld();
const suggest = (q: string, more = {}) => engine.suggest({ q, ...more }).suggestions;
const forward = (q: string) => engine.forward({ q });
const first = (q: string) => forward(q).candidates[0];

describe("a house with a name", () => {
  it("is found by it, with or without its street", () => {
    for (const q of ["rose cottage", "rose cottage mill lane", "mill lane rose cottage tidewell", "rose cotage"]) {
      expect(suggest(q)[0]).toMatchObject({ kind: "address", line: "Rose Cottage Mill Lane, Tidewell" });
    }
  });

  it("has its name as its house, and says which words are of the house and which of the street", () => {
    const { parts, gloss } = first("Rose Cottage, Mill Lane, Tidewell");
    expect(parts).toMatchObject({
      house: { name: "Rose Cottage" },
      street: { name: "Mill Lane" },
      postcode: { name: "HT9 29" },
    });
    expect(gloss.map(({ typed, part }) => `${typed} ${part}`)).toEqual([
      "Rose house",
      "Cottage house",
      "Mill street",
      "Lane street",
      "Tidewell town",
    ]);
  });
});

describe("a building with flats", () => {
  it.each(["flat 3, 1 mill lane", "1 mill lane flat 3", "1 mill lane, apartment 3, tidewell", "unit 3 1 mill ln"])(
    "is entered by “%s”",
    (q) => {
      expect(first(q)).toMatchObject({ parts: { unit: { name: "Flat 3" }, house: { name: "1" } } });
      expect(first(q).gloss.find(({ part }) => part === "unit")).toMatchObject({
        typed: "3",
        how: "same",
        as: "Flat 3",
      });
    },
  );

  it("is itself the answer where no such flat is known", () => {
    const found = first("flat 99, 1 mill lane");
    expect(found.parts).not.toHaveProperty("unit");
    expect(found.gloss.find(({ part }) => part === "unit")).toMatchObject({ typed: "99", how: "absent" });
  });

  it("says how many are inside, and lists them", () => {
    const building = suggest("1 mill lane")[0];
    expect(building).toMatchObject({ line: "1 Mill Lane, Tidewell", more: 3 });
    expect(suggest("", { inside: building.ref }).map(({ line }) => line)).toEqual([
      "Flat 2, 1 Mill Lane, Tidewell",
      "Flat 3, 1 Mill Lane, Tidewell",
      "Flat 10, 1 Mill Lane, Tidewell",
    ]);
    expect(suggest("flat 1", { inside: building.ref }).map(({ line }) => line)).toEqual([
      "Flat 10, 1 Mill Lane, Tidewell",
    ]);
  });

  it("is once among the numbers of its street", () => {
    const street = refOf("QR", IDS.millLane);
    expect(suggest("", { inside: street }).map(({ line }) => line)).toEqual([
      "1 Mill Lane, Tidewell",
      "Rose Cottage Mill Lane, Tidewell",
    ]);
  });
});

describe("a number", () => {
  it("typed twice is of the name once, and the house's once", () => {
    expect(first("29 Harbour Street, HT9 29").gloss[0]).toMatchObject({ typed: "29", part: "house", how: "absent" });
    expect(first("9 Harbour Street, HT9 29").parts.house).toEqual({ name: "9" });
    expect(first("Pelania, Tetragono 7, 7").gloss.map(({ part }) => part)).toEqual([
      "town",
      "block",
      "block",
      "building",
    ]);
  });

  it("may stand apart from its letter", () => {
    expect(first("12 b Harbour Row").parts.house).toEqual({ name: "12B" });
    expect(first("Harbour Row 12 B, Tidewell").parts.house).toEqual({ name: "12B" });
  });

  it("may be called a number", () => {
    expect(first("No. 12 Harbour Row").parts.house).toEqual({ name: "12" });
  });

  it("that lies between two others is placed between them, and says so", () => {
    const found = first("6 Harbour Row, Tidewell");
    expect(found).toMatchObject({
      kind: "address",
      exactness: "between",
      ref: refOf("QR", IDS.harbourRow),
      line: "6 Harbour Row, Tidewell, Sallow, HT4 29",
    });
    expect(found.at.lat).toBeCloseTo(-35.8297, 6);
    expect(found.gloss[0]).toMatchObject({ typed: "6", how: "nearby", part: "house" });
    expect(found.score).toBeLessThan(first("2 Harbour Row, Tidewell").score);
  });

  it("with a postcode alone is a house", () => {
    expect(suggest("14 ht4 29")[0].line).toBe("14 Harbour Row, Tidewell");
    expect(suggest("14 ht9 29").map(({ line }) => line)).not.toContain("14 Harbour Row, Tidewell");
  });
});

describe("compounds", () => {
  it("are found when they are typed in two words, and in one", () => {
    expect(suggest("mill ln harbourrow".slice(8))[0].line).toBe("Harbour Row, Tidewell");
    expect(suggest("old quay tide well")[0].line).toBe("Old Quay");
    expect(first("tide well").gloss.map(({ how }) => how)).toContain("joined");
  });
});

describe("two errors in a long word", () => {
  it("are forgiven where one finds nothing", () => {
    expect(suggest("tetragno 7")[0].line).toContain("Tetragono 7");
    expect(suggest("tettragno 7")[0].line).toContain("Tetragono 7");
  });
});

describe("a position as text", () => {
  it("is looked up backwards", () => {
    const { at } = first("12 Harbour Row, Tidewell");
    const answer = forward(`geo:${at.lat},${at.lon}`);
    expect(answer.candidates[0].line).toContain("12 Harbour Row");
    expect(answer.advice[0]).toContain("position");
    expect(suggest(`${at.lat}, ${at.lon}`)).toMatchObject([{ line: "12 Harbour Row, Tidewell", marks: [] }]);
    expect(forward("10.5, 10.5").outcome).toBe("none");
  });
});

describe("a text that nothing answers to", () => {
  const reading = (q: string, countries?: string[]) => engine.forward({ q, countries }).reading!;
  const names = (q: string, countries?: string[]) =>
    Object.fromEntries(Object.entries(reading(q, countries).parts).map(([part, { name }]) => [part, name]));

  it("is split by the country's profile all the same", () => {
    expect(names("Flat 3, 14b Vuxxel Street, Qwortham, Bleenshire, ZZ9 99")).toEqual({
      unit: "Flat 3",
      house: "14b",
      street: "Vuxxel Street",
      town: "Qwortham",
      county: "Bleenshire",
      postcode: "ZZ9 99",
    });
    expect(names("7 vuxxel lane qwortham")).toEqual({ house: "7", street: "vuxxel lane", town: "qwortham" });
    expect(names("Vuxxelgat 7, 4410 Qwort", ["QV"])).toMatchObject({});
  });

  it("says where each piece stood", () => {
    const q = "7 vuxxel lane, qwortham";
    for (const { typed, span, how } of reading(q).gloss) {
      expect(q.slice(...span)).toBe(typed);
      expect(how).toBe("ignored");
    }
  });

  it("has no reading where something was found", () => {
    expect(forward("Tidewell")).not.toHaveProperty("reading");
  });

  it("is split whatever it is", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", maxLength: 60 }), (text) => {
        const { outcome, reading: split } = forward(text);
        if (outcome === "none")
          for (const { typed, span } of split?.gloss ?? [])
            expect(text.slice(...span).replace(/\s+/gu, " ")).toBe(typed);
      }),
    );
  });
});

describe("postcodes", () => {
  it("are found whole or by their beginning, in order, with what they cover", () => {
    const { candidates, total } = engine.postcodes({ country: "QR", starts: "ht" });
    expect(candidates.map(({ parts }) => parts.postcode!.name)).toEqual(["HT4 29", "HT9 29"]);
    expect(total).toBe(2);
    expect(candidates[0].covers).toEqual(["Harbour Road", "Mill Lane", "Harbour Row"]);
    expect(engine.postcodes({ country: "qr", starts: "HT4-2" }).candidates).toHaveLength(1);
    expect(engine.postcodes({ country: "QY", starts: "θα1" }).candidates).toHaveLength(1);
    expect(engine.postcodes({ country: "QV", starts: "ht" })).toMatchObject({ outcome: "none", candidates: [] });
    expect(engine.postcodes({ country: "QR", starts: "29" }).candidates).toEqual([]);
  });
});

describe("any text", () => {
  const nasty = fc.oneof(
    fc.string({ unit: "binary", maxLength: 200 }),
    fc.string({ unit: "grapheme-composite", maxLength: 100 }),
    fc
      .array(fc.constantFrom("harbour", "12", "b", "tidewell", "flat", "st", "7", "ΘΑ-123", "-", "\u200b"), {
        maxLength: 200,
      })
      .map((words) => words.join(" ")),
    fc.constantFrom(
      "1".repeat(500),
      "a".repeat(500),
      "harbour ".repeat(60),
      "\u202e12 harb",
      "flat flat flat 3 3 3",
      "0 0 0 0 0 0 0",
    ),
  );

  it("is answered without an error, the same each time, scores falling from the first on", () => {
    fc.assert(
      fc.property(nasty, (q) => {
        const answer = engine.forward({ q });
        expect(engine.forward({ q })).toEqual(answer);
        expect(engine.suggest({ q })).toEqual(engine.suggest({ q }));
        for (const { score } of answer.candidates) {
          expect(score).toBeGreaterThanOrEqual(0);
          expect(score).toBeLessThanOrEqual(1);
        }
      }),
      { numRuns: process.env.BIBLIOTOPE_LONG ? 300 : 100 },
    );
  });

  it("leaves no trace in the next lookup", () => {
    const expected = engine.suggest({ q: "12 harb" });
    fc.assert(
      fc.property(nasty, (q) => {
        engine.suggest({ q });
        expect(engine.suggest({ q: "12 harb" })).toEqual(expected);
      }),
    );
  });
});
