import { describe, expect, it } from "vitest";
import { nameFor, pointerFor, treeOf, valueFor, valuesIn } from "./ways.ts";

const JSON_ANSWER = {
  collection: { slots: [{ day: "Monday" }, { day: "Friday" }], cost: 2.5, insured: true, from: "2026-06-01" },
  geometry: { type: "LineString", coordinates: [] },
};
const XML_ANSWER = {
  Envelope: {
    Body: {
      Confirmed: {
        standing: "otherwise",
        plot: { "@number": "4-118" },
        official: { street: "Harbour Rows" },
        owner: ["One", "Two"],
        note: { "@lang": "en", "text()": "words" },
      },
    },
  },
};

describe("values of a service", () => {
  const tried = { outcome: "answered" as const, words: "", status: 200, headers: [], took: 1, curl: "" };
  const day = { name: "day", way: "/collection/slots", each: "/day", kind: "text", isList: true } as const;

  it("are shown as soon as they are named, of an answer in JSON that is there already", () => {
    const answer = { ...tried, body: JSON.stringify(JSON_ANSWER), form: "json" as const, values: {} };
    const cost = { name: "cost", way: "/collection/cost", kind: "number" } as const;
    expect(valuesIn({ values: [day, cost] }, answer)).toEqual({ day: ["Monday", "Friday"], cost: "2.5" });
  });

  it("are what the server has read, of XML and of what was cut", () => {
    const read = { standing: "otherwise" };
    const xml = { ...tried, body: "<a/>", form: "xml" as const, values: read };
    expect(valuesIn({ values: [day] }, xml)).toBe(read);
    expect(valuesIn({ values: [day] }, { ...xml, body: '{"collection": {"sl', form: "json" as const })).toBe(read);
  });
});

describe("a value that is pressed", () => {
  it.each<[string, unknown, object]>([
    ["/collection/cost", 2.5, { way: "/collection/cost", kind: "number" }],
    ["/collection/insured", true, { way: "/collection/insured", kind: "yesno" }],
    ["/collection/from", "2026-06-01", { way: "/collection/from", kind: "date" }],
    ["/collection/slots/1/day", "Friday", { way: "/collection/slots", each: "/day", kind: "text", isList: true }],
    ["/days/0", "Monday", { way: "/days", kind: "text", isList: true }],
    ["/days", ["Monday"], { way: "/days", kind: "text", isList: true }],
    ["/geometry", JSON_ANSWER.geometry, { way: "/geometry", kind: "line" }],
  ])("at %s of JSON has its way", (pointer, value, expected) =>
    expect(valueFor(pointer, value, "json")).toEqual(expected),
  );

  it("of XML has an XPath, without the places of lists", () => {
    expect(valueFor("/Envelope/Body/Confirmed/owner/1", "Two", "xml")).toEqual({
      way: "/Envelope/Body/Confirmed/owner",
      kind: "text",
      isList: true,
    });
  });

  it("is named by its last step, as names are written, and as no other is", () => {
    expect(nameFor("/a/openingHours/0", [])).toBe("openinghours");
    expect(nameFor("/plot/@number", ["number"])).toBe("numbera");
    expect(nameFor("/1/2", [])).toBe("value");
  });
});

describe("where a value is in what came back", () => {
  const find = (way: string, more: object = {}, form: "json" | "xml" = "json") =>
    pointerFor({ name: "v", kind: "text", way, ...more }, form === "json" ? JSON_ANSWER : XML_ANSWER, form);

  it("is found by its way", () => {
    expect(find("/collection/cost")).toBe("/collection/cost");
    expect(find("/collection/slots", { isList: true, each: "/day" })).toBe("/collection/slots/0/day");
    expect(find("/nowhere")).toBeUndefined();
    expect(find("//standing", {}, "xml")).toBe("/Envelope/Body/Confirmed/standing");
    expect(find("string(//plot/@number)", {}, "xml")).toBe("/Envelope/Body/Confirmed/plot/@number");
    expect(find("//official/street", {}, "xml")).toBe("/Envelope/Body/Confirmed/official/street");
    expect(find("//owner", { isList: true }, "xml")).toBe("/Envelope/Body/Confirmed/owner/0");
    expect(find("//note[@lang='en']", {}, "xml")).toBe("/Envelope/Body/Confirmed/note/text()");
    expect(find("//nowhere", {}, "xml")).toBeUndefined();
  });

  it("is nowhere in what is no tree", () => {
    expect(treeOf(null, "json")).toBeUndefined();
    expect(treeOf("{", "json")).toBeUndefined();
    expect(treeOf("<a>", "text")).toBeUndefined();
  });
});
