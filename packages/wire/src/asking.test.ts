import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type * as z from "zod";
import {
  distanceRequest,
  EXAMPLES,
  exampleOf,
  forwardRequest,
  jsonOfQuery,
  linkRequest,
  MAX_TEXT,
  postcodesRequest,
  recordRequest,
  reverseRequest,
  stillRequest,
  suggestRequest,
} from "./lookup-requests.ts";

const ask = (text: string) => jsonOfQuery(new URLSearchParams(text));
const issues = (schema: z.ZodType, request: unknown) =>
  schema.safeParse(request).error?.issues.map((issue) => `${issue.path.join(".")}: ${issue.message}`) ?? [];

describe("jsonOfQuery", () => {
  it("turns the words of a query string into the words of a body", () => {
    expect(
      ask("q=12+harb&countries=QR,QV&kinds=address&near=-35.2,-21.4&box=-22,-36,-21,-35&limit=5&lang=en,qth-Grek"),
    ).toEqual({
      q: "12 harb",
      countries: ["QR", "QV"],
      kinds: ["address"],
      near: { lat: -35.2, lon: -21.4 },
      box: [-22, -36, -21, -35],
      limit: 5,
      lang: ["en", "qth-Grek"],
    });
  });

  it("leaves what it cannot turn, so that the schema says what is wrong", () => {
    expect(ask("at=here&limit=many&gloss=perhaps")).toEqual({ at: "here", limit: "many", gloss: "perhaps" });
    expect(ask("at=NaN,1").at).toEqual({ lat: "NaN", lon: 1 });
    expect(ask("limit=").limit).toBe("");
  });

  it("reads flags", () => {
    expect(ask("gloss=1").gloss).toBe(true);
    expect(ask("gloss=false").gloss).toBe(false);
  });
});

describe("suggestRequest", () => {
  it("reads a usual question and fills in how many", () => {
    expect(suggestRequest.parse(ask("q=12 harb"))).toEqual({ q: "12 harb", limit: 7 });
  });

  it("brings text to NFC, and refuses what is no text", () => {
    expect(suggestRequest.parse({ q: "e\u0301 😀" }).q).toBe("é 😀");
    for (const q of ["a\ud800", "\udc00b", "a\0"])
      expect(issues(suggestRequest, { q })).toEqual(["q: contains an invalid character"]);
  });

  it("writes countries in capitals", () => {
    expect(suggestRequest.parse(ask("q=x&countries=qr")).countries).toEqual(["QR"]);
  });

  it.each([
    ["", "q: "],
    [`q=${"x".repeat(MAX_TEXT + 1)}`, "q: at most"],
    ["q=x&limit=0", "limit: "],
    ["q=x&limit=2.5", "limit: "],
    ["q=x&limit=1000", "limit: "],
    ["q=x&countries=Lorramere", "countries.0: a country is two letters"],
    ["q=x&kinds=castle", "kinds.0: "],
    ["q=x&box=1,2,3", "box: "],
    ["q=x&box=-22,-35,-21,-36", "box: a box is"],
    ["q=x&near=95,0", "near: a latitude lies between"],
    ["q=x&lang=english language", "lang.0: a language"],
    ["q=x&country=QR", ": Unrecognized key"],
  ])("refuses %s", (text, start) => {
    expect(issues(suggestRequest, ask(text))[0]).toContain(start);
  });
});

describe("positions", () => {
  it("ask whether the two were swapped when the latitude is too large", () => {
    expect(issues(reverseRequest, ask("at=95,-21"))[0]).toContain("were latitude and longitude swapped?");
    expect(issues(reverseRequest, ask("at=95,190"))[0]).not.toContain("swapped");
    expect(issues(reverseRequest, ask("at=-21,195"))[0]).toContain("a longitude lies between");
  });

  it("are taken as given, for any place on earth", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -90, max: 90, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        (lat, lon) => {
          expect(reverseRequest.parse({ at: { lat, lon } }).at).toEqual({ lat, lon });
        },
      ),
    );
  });

  it.each(["at=NaN,NaN", "at=1", "at=1,2,3", "at=", "at=,", "at=Infinity,0", "at=0x10,abc"])(
    "are not read from %s",
    (text) => {
      expect(issues(reverseRequest, ask(text))).not.toEqual([]);
    },
  );
});

describe("forwardRequest", () => {
  it("takes text, or parts, or both", () => {
    expect(forwardRequest.parse(ask("q=x")).limit).toBe(5);
    expect(forwardRequest.parse(ask("street=Harbour Row&town=Tidewell")).street).toBe("Harbour Row");
    expect(issues(forwardRequest, {})[0]).toBe("q: give q, or at least one part");
  });
});

describe("stillRequest", () => {
  it("has a size, a density and a style by day when none is given", () => {
    expect(stillRequest.parse(ask("at=-35.2,-21.4"))).toEqual({
      at: { lat: -35.2, lon: -21.4 },
      points: [],
      width: 600,
      height: 400,
      density: 1,
      night: false,
      style: "streets",
    });
  });

  it("reads positions in a row", () => {
    expect(
      stillRequest.parse(ask("points=-35.2,-21.4;-35.3,-21.5&night=1&density=2&width=64&height=1280")),
    ).toMatchObject({
      points: [
        { lat: -35.2, lon: -21.4 },
        { lat: -35.3, lon: -21.5 },
      ],
      width: 64,
      height: 1280,
      density: 2,
      night: true,
    });
  });

  it.each([
    ["", "at: give at, of, points or line"],
    ["at=-35.2,-21.4&width=63", "width: at least 64 pixels"],
    ["at=-35.2,-21.4&height=1281", "height: at most 1280 pixels"],
    ["at=-35.2,-21.4&height=1", "height: a whole number of pixels"],
    ["at=-35.2,-21.4&density=3", "density: a density is 1 or 2"],
    ["line=-35.2,-21.4", "line: a line has two positions at least"],
  ])("says what is wrong with %j", (query, expected) => {
    expect(issues(stillRequest, ask(query))[0]).toBe(expected);
  });

  it.each([
    "at=99,0",
    "at=-35.2,-21.4&zoom=20",
    "points=1;2",
    "points=-35.2",
    "at=-35.2,-21.4&night=perhaps",
    "at=-35.2,-21.4&style=sky",
  ])("refuses %j", (query) => {
    expect(issues(stillRequest, ask(query))).not.toEqual([]);
  });
});

describe("the examples", () => {
  it("are values that work", () => {
    const askings = [
      suggestRequest,
      forwardRequest,
      reverseRequest,
      recordRequest,
      postcodesRequest,
      distanceRequest,
      stillRequest,
      linkRequest,
    ];
    for (const name of Object.keys(EXAMPLES)) {
      const takers = askings.filter(({ shape }) => name in shape);
      expect(takers.length, name).toBeGreaterThan(0);
      for (const schema of takers) {
        const field = schema.shape[name as keyof typeof schema.shape] as z.ZodType;
        const read = jsonOfQuery([[name, exampleOf(schema, name)!]])[name];
        if (schema !== suggestRequest || name !== "format") expect(field.safeParse(read).error, name).toBeUndefined();
      }
    }
  });
});
