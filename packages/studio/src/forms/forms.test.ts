import type { FormAnswer, FormDefinition } from "@bibliotope/core/form";
import { describe, expect, it } from "vitest";
import { moment } from "../ui/moment.ts";
import { partColour } from "../ui/part-colour.ts";
import { gutterRows } from "./rows.ts";
import { wiresOf } from "./wires-of.ts";

const THALMYRA: FormAnswer = {
  ref: "qy-000001",
  kind: "address",
  exactness: "surveyed",
  at: { lat: -36.60001, lon: -22.60001 },
  line: "x",
  autofill: {},
  parts: {
    building: { name: "4" },
    block: { name: "Τετράγωνο 7" },
    town: { name: "Πελανία" },
    country: { name: "Θαλμύρα", code: "QY" },
  },
};
const FORM: FormDefinition = {
  title: "x",
  fields: [
    { name: "line", kind: "text", label: "Line", autofill: "address-line1" },
    { name: "code", kind: "text", label: "Postcode", binding: "{postcode}" },
    { name: "where", kind: "hidden", label: "Where", binding: "{position}" },
    { name: "find", kind: "search", label: "Find" },
  ],
};

describe("the gutter", () => {
  it("shows the parts that the country has, from house to country", () => {
    expect(gutterRows(THALMYRA).parts.map(({ name }) => name)).toEqual([
      "building",
      "block",
      "district",
      "town",
      "region",
      "postcode",
      "country",
    ]);
    expect(gutterRows(undefined).parts.map(({ name }) => name)).toEqual([
      "house",
      "street",
      "unit",
      "district",
      "town",
      "county",
      "region",
      "postcode",
      "country",
    ]);
  });

  it("shows values, the country with its code, and nothing for what is missing", () => {
    const rows = Object.fromEntries(gutterRows(THALMYRA).parts.map(({ name, value }) => [name, value]));
    expect(rows).toMatchObject({ block: "Τετράγωνο 7", country: "Θαλμύρα · QY", postcode: "" });
  });

  it("shows a part that the profile does not name, when the answer has it", () => {
    const rows = gutterRows({ ...THALMYRA, parts: { ...THALMYRA.parts, place: { name: "Βιβλιοστάσιο" } } });
    expect(rows.parts.map(({ name }) => name)).toContain("place");
  });

  it("shows the position to four digits", () => {
    expect(gutterRows(THALMYRA).facts[0].value).toBe("-36.6000, -22.6000");
  });
});

describe("the wires", () => {
  it("go from a token's parts, as the country at hand has them", () => {
    const line = (answer: FormAnswer | undefined) =>
      wiresOf(FORM, answer)
        .filter(({ field }) => field === "line")
        .map(({ part }) => part);
    expect(line(THALMYRA)).toEqual(["block", "street", "building"]);
    expect(line(undefined)).toEqual(["unit", "house", "street"]);
  });

  it("are lit where a value fills the field", () => {
    const lit = Object.fromEntries(wiresOf(FORM, THALMYRA).map(({ part, lit: is }) => [part, is]));
    expect(lit).toMatchObject({ block: true, street: false, postcode: false, position: true });
    expect(wiresOf(FORM, undefined).every(({ lit: is }) => !is)).toBe(true);
  });
});

describe("small words", () => {
  it("say how long ago something was", () => {
    const now = Date.parse("2026-11-24T12:00:00Z");
    expect(moment("2026-11-24T11:59:30Z", now)).toBe("a moment ago");
    expect(moment("2026-11-24T11:55:00Z", now)).toBe("5 minutes ago");
    expect(moment("2026-11-24T09:00:00Z", now)).toBe("3 hours ago");
    expect(moment("2026-11-23T12:00:00Z", now)).toBe("yesterday");
  });

  it("give each part its own colour", () => {
    expect(partColour("street.abbr")).toBe("var(--madder)");
    expect(partColour("town")).toBe("var(--verdigris)");
    expect(partColour("position")).toBe("var(--slate)");
  });
});
