import { describe, expect, it } from "vitest";
import { IDS, smallWorld } from "../../testing/small-world.ts";
import { refOf } from "../place/index.ts";

const engine = smallWorld();
const lines = (q: string, more = {}) => engine.suggest({ q, ...more }).suggestions.map(({ line }) => line);

describe("lines of other streets", () => {
  it.each(["qqqzx 12", "Nosuch Lane 11 Tidewell", "11 nosuch lane, tidewell"])("are not offered for “%s”", (q) => {
    expect(engine.suggest({ q }).suggestions).toEqual([]);
  });

  it("are offered while the word is still being typed", () => {
    expect(engine.suggest({ q: "12 harbour rx" }).suggestions.length).toBeGreaterThan(0);
  });
});

describe("suggest", () => {
  it("puts the house with the number first while a street is typed", () => {
    expect(lines("12 harb").slice(0, 2)).toEqual(["12 Harbour Row, Tidewell", "12 Harbour Road, Tidewell"]);
  });

  it("finds the same with the number behind", () => {
    expect(lines("harbour row 12")[0]).toBe("12 Harbour Row, Tidewell");
  });

  it("offers the street where it has no such number", () => {
    const [first] = engine.suggest({ q: "77 harbour street" }).suggestions;
    expect(first).toMatchObject({ kind: "street", line: "Harbour Street, Tidewick", more: 2 });
  });

  it("takes a number with a letter as that house", () => {
    expect(lines("12b harbour row")[0]).toBe("12B Harbour Row, Tidewell");
    expect(lines("14b harbour row")[0]).toBe("14 Harbour Row, Tidewell");
  });

  it.each([
    ["harbor row", "one letter left out"],
    ["harbuor row", "two swapped"],
    ["harbonr row", "one replaced"],
    ["harbbour row", "one added"],
    ["harbour rw", "an abbreviation"],
    ["HARBOUR ROW", "capitals"],
    ["row harbour", "another order"],
    ["the harbour row", "a small word"],
    ["harbour row ht4 29", "the postcode"],
    ["harbour row tidewell sallow", "the areas around"],
  ])("finds Harbour Row from “%s” (%s)", (q) => {
    expect(lines(q)[0]).toBe("Harbour Row, Tidewell");
  });

  it("lets the town decide between streets of the same name", () => {
    expect(lines("harbour tidewick")[0]).toBe("Harbour Street, Tidewick");
    expect(lines("harbour st")[0]).toBe("Harbour Street, Tidewick");
  });

  it("does not lose the street to a wrong postcode", () => {
    expect(lines("12 harbour row ht9 29")).toContain("12 Harbour Row, Tidewell");
  });

  it("finds towns, counties, districts and countries by their beginning", () => {
    expect(lines("tidew").slice(0, 2)).toEqual(["Tidewell", "Tidewick"]);
    expect(lines("sall")[0]).toBe("Sallow");
    expect(lines("old qu")[0]).toBe("Old Quay");
    expect(lines("lorra")[0]).toBe("Lorramere");
  });

  it("finds a postcode with its space and without", () => {
    expect(lines("ht4 29")[0]).toBe("HT4 29");
    expect(lines("ht429")[0]).toBe("HT4 29");
  });

  it("finds Greek names in Greek and in Latin letters, and answers in the script that was typed", () => {
    expect(lines("πελαν")[0]).toBe("Πελανία");
    expect(lines("pelan")[0]).toBe("Pelania");
    expect(lines("Τετραγωνο 7, 4")[0]).toBe("Πελανία, Άνω Λίμνα, Τετράγωνο 7, 4");
  });

  it("finds a place by its name", () => {
    expect(engine.suggest({ q: "lantern inn" }).suggestions[0]).toMatchObject({
      kind: "place",
      line: "The Lantern Inn, Tidewick",
    });
  });

  it("marks the letters that answer to what was typed", () => {
    const [{ line, marks }] = engine.suggest({ q: "12 harb ro" }).suggestions;
    expect(marks.map(([from, to]) => line.slice(from, to))).toEqual(["12", "Harb", "Ro"]);
    const [greek] = engine.suggest({ q: "πελ" }).suggestions;
    expect(greek.line.slice(...greek.marks[0])).toBe("Πελ");
  });

  it("gives nothing for nothing, and for nonsense", () => {
    expect(engine.suggest({ q: "" })).toEqual({ outcome: "none", suggestions: [] });
    expect(engine.suggest({ q: "   " }).outcome).toBe("none");
    expect(engine.suggest({ q: "qqxxzz vvww" }).outcome).toBe("none");
  });

  it("answers the same question the same way", () => {
    expect(engine.suggest({ q: "12 harb" })).toEqual(engine.suggest({ q: "12 harb" }));
    engine.suggest({ q: "tidewick" });
    expect(lines("12 harb")).toEqual(lines("12 harb"));
  });
});

describe("narrowing", () => {
  it("to countries", () => {
    expect(lines("p", { countries: ["QR"] })).not.toContain("Pelania");
    expect(lines("p", { countries: ["qy"] })).toContain("Pelania");
    expect(lines("harb", { countries: ["QM"] })).toEqual([]);
  });

  it("to kinds", () => {
    expect(engine.suggest({ q: "tide", kinds: ["town"] }).suggestions.every(({ kind }) => kind === "town")).toBe(true);
    expect(lines("12 harb", { kinds: ["place"] })).toEqual([]);
  });

  it("to what lies in an area", () => {
    const inside = refOf("QR", IDS.tidewick);
    expect(lines("harbour", { inside })).toEqual(["Harbour Street, Tidewick"]);
  });

  it("to the numbers of a street", () => {
    const inside = refOf("QR", IDS.harbourRow);
    expect(lines("", { inside })).toEqual([
      "1 Harbour Row, Tidewell",
      "2 Harbour Row, Tidewell",
      "10 Harbour Row, Tidewell",
      "12 Harbour Row, Tidewell",
      "12B Harbour Row, Tidewell",
      "14 Harbour Row, Tidewell",
    ]);
    expect(lines("harbour row 12", { inside })).toEqual(["12 Harbour Row, Tidewell", "12B Harbour Row, Tidewell"]);
  });

  it("lets nothing through for a ref that nothing has", () => {
    expect(lines("harbour", { inside: "qr-zzzzzz" })).toEqual([]);
  });

  it("to a box", () => {
    expect(lines("harbour", { box: [-21.4, -35.4, -21.2, -35.2] })).toEqual(["Harbour Street, Tidewick"]);
  });

  it("puts what is near first, and leaves the rest in", () => {
    const near = lines("harbour", { near: { lat: -35.3, lon: -21.3 } });
    expect(near[0]).toBe("Harbour Street, Tidewick");
    expect(near).toContain("Harbour Row, Tidewell");
  });

  it("to a number of lines", () => {
    expect(lines("harbour", { limit: 1 })).toHaveLength(1);
  });
});
