import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { ABOUT, asCall, CALLS, canAsk, codeOf, readQuery, withWord, writeQuery } from "./lookup-query.ts";
import { escapeStep, partAt, rowsOf, summaryOf, valueAt } from "./tree.ts";

const forward = ABOUT.forward.example;

describe("a lookup as text", () => {
  it("is the path of the wire with its query string", () => {
    expect(writeQuery({ call: "forward", words: { q: "12 harb", countries: "QR,QV", limit: "" } })).toBe(
      "forward?q=12+harb&countries=QR,QV",
    );
    expect(writeQuery({ call: "postcodes", of: "QR", words: { starts: "HT4" } })).toBe("postcodes/QR?starts=HT4");
  });

  it("is read again as typed, whatever was typed", () => {
    const words = fc.dictionary(
      fc.constantFrom("q", "countries", "inside", "lang"),
      fc.string({ unit: "grapheme", minLength: 1 }),
    );
    fc.assert(
      fc.property(fc.constantFrom(...CALLS), words, fc.string({ unit: "grapheme", minLength: 1 }), (call, said, of) => {
        const sent = call === "records" || call === "postcodes" ? { call, of, words: said } : { call, words: said };
        expect(readQuery(writeQuery(sent))).toEqual(sent);
      }),
    );
  });

  it("is nothing where it is no lookup", () => {
    expect(readQuery("forms/x?y=1")).toBeUndefined();
    expect(readQuery("records/%E0%A4%A?x=1")).toMatchObject({ of: "%E0%A4%A" });
  });

  it("can be asked once it has what it needs", () => {
    for (const call of CALLS) {
      expect(canAsk(ABOUT[call].example)).toBe(true);
      expect(canAsk({ call, words: {} })).toBe(false);
    }
    expect(canAsk({ call: "forward", words: { street: "Mill Lane" } })).toBe(true);
  });

  it("takes along what another call understands", () => {
    const sent = withWord(withWord(forward, "countries", "QR"), "near", "1,2");
    expect(asCall(sent, "suggest")).toEqual({
      call: "suggest",
      words: { q: forward.words.q, countries: "QR", near: "1,2" },
    });
    expect(asCall(sent, "reverse")).toEqual({ call: "reverse", words: { countries: "QR" } });
    expect(asCall({ call: "reverse", words: { at: "1,2" } }, "distance").words).toEqual({ from: "1,2" });
    expect(withWord(sent, "countries", "").words).not.toHaveProperty("countries");
  });
});

describe("a request as code", () => {
  it("carries what was typed as data, never as code", () => {
    const sent = { call: "forward" as const, words: { q: `"); alert('x'); ("$(rm)\`` } };
    const [curl, fetched, kit] = (["curl", "fetch", "kit"] as const).map((code) => codeOf(sent, code, "http://here"));
    expect(curl.match(/'/g)).toHaveLength(2);
    expect(fetched).toContain(JSON.stringify(`http://here/v1/${writeQuery(sent)}`));
    expect(kit).toContain(`client.forward(${JSON.stringify(sent.words)})`);
  });

  it("is the kit's own call for every kind of lookup", () => {
    expect(CALLS.map((call) => codeOf(ABOUT[call].example, "kit", "http://here").split("client.").at(-1))).toEqual([
      'suggest("12 harb");',
      'forward({"q":"12b the harbor rw tidewel HT9 29","gloss":"1"});',
      'reverse({"lat":-35.1841,"lon":-21.6253});',
      'record("qr-t0613p");',
      'postcodes("QR", {"starts":"HT0"});',
      'distance({"lat":-35.1841,"lon":-21.6253}, {"lat":-36.6,"lon":-22.6});',
    ]);
  });
});

describe("the tree of an answer", () => {
  const answer = {
    features: [{ id: "a/b", properties: { parts: { town: { name: "Tidewell" } } } }],
    "a~b": { "": null },
  };

  it("shows the members of what is open, with the way to each", () => {
    const rows = rowsOf(answer, () => true);
    expect(rows.map(({ pointer }) => pointer)).toEqual([
      "/features",
      "/features/0",
      "/features/0/id",
      "/features/0/properties",
      "/features/0/properties/parts",
      "/features/0/properties/parts/town",
      "/features/0/properties/parts/town/name",
      "/a~0b",
      "/a~0b/",
    ]);
    expect(rowsOf(answer, () => false)).toHaveLength(2);
  });

  it("has a pointer to every value that leads there", () => {
    fc.assert(
      fc.property(fc.jsonValue(), (document) => {
        for (const { pointer, value } of rowsOf(document, () => true))
          expect(valueAt(document, pointer)).toEqual(value);
      }),
    );
    expect(valueAt(answer, "/nothing/here")).toBeUndefined();
    expect(valueAt(answer, "/constructor")).toBeUndefined();
    expect(escapeStep("a/b~c")).toBe("a~1b~0c");
  });

  it("knows the part that a pointer leads to", () => {
    expect(partAt("/features/0/properties/parts/town/name")).toBe("town");
    expect(partAt("/features/2/properties/parts/country/code")).toBe("country.code");
    expect(partAt("/features/0/properties/parts/house")).toBe("house");
    expect(partAt("/features/0/properties/facts/own/rating/value")).toBe("fact.rating");
    expect(partAt("/properties/facts/openingHours/0/opens")).toBe("hours");
    expect(partAt("/properties/facts/constructor")).toBeUndefined();
    expect(partAt("/features/0/properties/line")).toBeUndefined();
  });

  it("says in a few words what is closed", () => {
    expect(summaryOf({ lat: 1, lon: 2 })).toBe("1, 2");
    expect(summaryOf([1, 2])).toBe("1, 2");
    expect(summaryOf([{}, {}])).toBe("2");
    expect(summaryOf({ name: "Tidewell" })).toBe("Tidewell");
  });
});
