import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { factNameOf, kindOfValues, LONGEST_FACT, proposeColumns, type Reading, RowReader } from "./index.ts";

const HEADS = [
  "Name",
  "Town",
  "lat",
  "lon",
  "Phone",
  "Website",
  "Opening hours",
  "Wheelchair",
  "Languages",
  "Rating",
  "Quiet?",
  "Since",
];
const ROWS = [
  [
    "The Reed Room",
    "Tidewell",
    "-35.1",
    "-21.6",
    "+990 1 555",
    "https://reed.example",
    "Mo-Fr 9-17",
    "yes",
    "English; German",
    "4.5",
    "yes",
    "2019-04-01",
  ],
  ["Quay Books", "Sandmouth", "-35.2", "-21.5", "", "", "ask at the bar", "limited", "en", "n/a", "no", "2020-01-15"],
  [
    "Old Mill",
    "Tidewell",
    "-35.1",
    "-21.7",
    "0123",
    "old.example",
    "Mo 9-12; Mo 10-11",
    "0",
    "Elvish",
    "3",
    "no",
    "2001-12-31",
  ],
];
const read = (heads: string[], rows: string[][]) => {
  const columns = proposeColumns(heads, rows).map(({ use }) => use);
  const reader = new RowReader({ columns, country: "QR" } as Reading);
  return rows.map((cells) => reader.read(cells));
};

describe("facts of places", () => {
  it("are proposed for a list of places: the common ones by their heads, the others as they are called", () => {
    const uses = proposeColumns(HEADS, ROWS).map(({ use }) => use);
    expect(uses.map((use) => use?.meaning)).toEqual([
      ...["place", "town", "lat", "lon", "phone", "url", "hours", "stepfree", "languages", "fact", "fact", "fact"],
    ]);
    expect(uses.slice(9).map((use) => use?.fact)).toEqual([
      { name: "rating", label: "Rating", kind: "text" },
      { name: "quiet", label: "Quiet?", kind: "yes-no" },
      { name: "since", label: "Since", kind: "date" },
    ]);
  });

  it("are never proposed of what may name a person", () => {
    const heads = ["Firma", "Ansprechpartner", "Contact person", "Telefon", "Umsatz"];
    const uses = proposeColumns(heads, [["Hof", "Frau Probe", "Herr Muster", "+990 1 555", "12"]]);
    expect(uses.map(({ use }) => use?.meaning)).toEqual(["place", undefined, undefined, "phone", "fact"]);
    expect(uses[1].why).toMatch(/may name a person/);
  });

  it("are none of a list of addresses, and nothing that a batch asks", () => {
    const heads = ["street", "house", "town", "lat", "lon", "remark"];
    const rows = [["Harbour Row", "12", "Tidewell", "-35.1", "-21.6", "blue door"]];
    expect(proposeColumns(heads, rows).at(-1)?.use).toBe(null);
    expect(proposeColumns(HEADS, ROWS, "batch").some(({ use }) => use?.meaning === "phone")).toBe(false);
  });

  it("are read as what they are, and what cannot be read is kept as typed", () => {
    const [reed, quay, mill] = read(HEADS, ROWS).map(({ row }) => row?.facts);
    expect(reed).toEqual({
      phone: "+990 1 555",
      url: "https://reed.example",
      openingHours: [
        {
          dayOfWeek: ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday"],
          ...{ opens: "09:00", closes: "17:00" },
        },
      ],
      stepFree: true,
      languages: ["en", "de"],
      own: {
        rating: { label: "Rating", kind: "text", value: "4.5" },
        quiet: { label: "Quiet?", kind: "yes-no", value: true },
        since: { label: "Since", kind: "date", value: "2019-04-01" },
      },
    });
    expect(quay).toMatchObject({ hoursText: "ask at the bar", languages: ["en"] });
    expect(quay?.own?.stepfree).toEqual({ label: "Step-free access", kind: "text", value: "limited" });
    expect(quay).not.toHaveProperty("phone");
    expect(mill).toMatchObject({ hoursText: "Mo 9-12; Mo 10-11", stepFree: false });
    expect(mill?.own?.languages).toMatchObject({ kind: "text", value: "Elvish" });
  });

  it("that contradict each other, or are too long, are told with their row", () => {
    const rows = [...ROWS.map((row) => [...row]), [...ROWS[0].slice(0, 9), "x".repeat(100_000), "yes", "2019-04-01"]];
    const all = read(HEADS, rows);
    expect(all[2].doubts).toEqual([{ kind: "odd-fact", words: "two things are said of Monday", column: 6 }]);
    expect(all[3].doubts).toEqual([{ kind: "odd-fact", words: "100000 characters, left out", column: 9 }]);
    expect(all[3].row?.facts?.own).not.toHaveProperty("rating");
    expect(LONGEST_FACT).toBeLessThan(100_000);
  });

  it("are what nearly all values are, and codes are no numbers", () => {
    expect(kindOfValues(["1", "2.5", "-3"])).toBe("number");
    expect(kindOfValues(["0123", "0456"])).toBe("text");
    expect(kindOfValues(["yes", "No"])).toBe("yes-no");
    expect(kindOfValues(["0", "1"])).toBe("number");
    expect(kindOfValues(["https://a.example", "http://b.example/x"])).toBe("link");
    expect(kindOfValues(["javascript:alert(1)"])).toBe("text");
    expect(kindOfValues([])).toBe("text");
  });

  it("have a name that patterns can say, whatever heads their column, or none", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", maxLength: 60 }), (head) => {
        const name = factNameOf(head);
        if (name !== undefined) expect(name).toMatch(/^[a-z][a-z0-9_]{0,39}$/);
      }),
    );
    expect(factNameOf("Größe (m²)")).toBe("grosse_m2");
    expect(factNameOf("評価")).toBe(undefined);
  });
});
