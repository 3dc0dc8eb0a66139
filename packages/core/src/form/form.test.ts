import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  bindName,
  checkDefinition,
  clearFilled,
  correct,
  EMPTY_STATE,
  effectiveBinding,
  type Field,
  type FormAnswer,
  type FormDefinition,
  fill,
  fillingsFor,
  giveBack,
  unbindName,
} from "./index.ts";

const ANSWER: FormAnswer = {
  ref: "qr-5k2c9f",
  kind: "address",
  exactness: "surveyed",
  at: { lat: -35.20881, lon: -21.40713 },
  line: "12 Harbour Row, Tidewell, Sallow, HT4 29",
  parts: {
    house: { name: "12" },
    street: { name: "Harbour Row", abbr: "Harbour Rw" },
    town: { name: "Tidewell" },
    postcode: { name: "HT4 29" },
    country: { name: "Lorramere", code: "QR" },
  },
  autofill: { "address-line1": "12 Harbour Row", "address-level2": "Tidewell", "postal-code": "HT4 29", country: "QR" },
};
const field = (name: string, more: Partial<Field> = {}): Field => ({ name, kind: "text", label: name, ...more });
const form = (...fields: Field[]): FormDefinition => ({ title: "A form", fields });
const filled = (...fields: Field[]) =>
  Object.fromEntries(fillingsFor(form(...fields), ANSWER).map(({ field: name, value }) => [name, value]));

describe("what fills a field", () => {
  it("is its autofill token, when nothing is bound", () => {
    const a = field("a", { autofill: "address-line1" });
    const b = field("b", { autofill: "section-home shipping postal-code" });
    expect(filled(a, b)).toEqual({ a: "12 Harbour Row" });
    expect(fillingsFor(form(a, b), ANSWER, "home")).toEqual([{ field: "b", value: "HT4 29" }]);
    const [c, d] = ["billing", "shipping"].map((group) => field(group, { autofill: `${group} postal-code` }));
    expect(fillingsFor(form(c, d), ANSWER, "shipping")).toEqual([{ field: "shipping", value: "HT4 29" }]);
  });

  it("is its pattern, which comes before the token", () => {
    expect(filled(field("a", { autofill: "address-line1", binding: "{street} {house}" }))).toEqual({
      a: "Harbour Row 12",
    });
  });

  it("may be a short form, a code, or a fact", () => {
    expect(
      filled(
        field("s", { binding: "{street.abbr}" }),
        field("c", { binding: "{country.code}" }),
        field("p", { binding: "{position}" }),
        field("lat", { binding: "{lat}" }),
        field("e", { binding: "{exactness}/{kind}" }),
        field("r", { binding: "{ref}" }),
        field("l", { binding: "{line}" }),
      ),
    ).toEqual({
      s: "Harbour Rw",
      c: "QR",
      p: "-35.20881,-21.40713",
      lat: "-35.20881",
      e: "surveyed/address",
      r: "qr-5k2c9f",
      l: ANSWER.line,
    });
  });

  it("is nothing for a part that the address has not, so that no old value stays", () => {
    expect(filled(field("u", { binding: "{unit}" }), field("f", { autofill: "address-line2" }))).toEqual({
      u: "",
      f: "",
    });
  });

  it("is never an address for fields of other things, for the search field and for the map", () => {
    expect(
      filled(
        field("n", { autofill: "name" }),
        field("plain"),
        { ...field("q"), kind: "search" },
        { ...field("m"), kind: "map", binding: "{town}" },
      ),
    ).toEqual({});
  });

  it("is nothing for a pattern that cannot be read", () => {
    expect(filled(field("x", { binding: "{town" }))).toEqual({ x: "" });
  });

  it("does not reach into objects by odd names", () => {
    expect(filled(field("x", { binding: "{constructor}" }), field("y", { binding: "{street.tostring}" }))).toEqual({
      x: "",
      y: "",
    });
  });
});

describe("the names that a field draws on", () => {
  const ofToken = (token: string) => (token === "address-line1" ? ["house", "street"] : []);

  it("come from the pattern, else from the token", () => {
    expect(effectiveBinding(field("a", { binding: "{street.abbr} {house}[, {unit or floor}]" }), ofToken)).toEqual([
      "street",
      "house",
      "unit",
      "floor",
    ]);
    expect(effectiveBinding(field("a", { autofill: "address-line1" }), ofToken)).toEqual(["house", "street"]);
    expect(effectiveBinding(field("a"), ofToken)).toEqual([]);
  });
});

describe("bindName and unbindName", () => {
  it("bind a first part, a second one, and none twice", () => {
    expect(bindName(undefined, "town")).toBe("{town}");
    expect(bindName("", "town")).toBe("{town}");
    expect(bindName("{street}", "house")).toBe("{street} {house}");
    expect(bindName("{street} {house}", "house")).toBe("{street} {house}");
  });

  it("take a part out and leave no comma behind", () => {
    expect(unbindName("{street} {house}[, {unit}]", "unit")).toBe("{street} {house}");
    expect(unbindName("{street}, {house}", "house")).toBe("{street}");
    expect(unbindName("{town or district}", "town")).toBe("{district}");
    expect(unbindName("{street.abbr} {house}", "street")).toBe("{house}");
    expect(unbindName("{town}", "town")).toBeUndefined();
  });

  it("keep literal braces literal, and changes with their value", () => {
    expect(unbindName("\\[{town:upper}\\] {house}", "house")).toBe("\\[{town:upper}\\]");
  });

  it("undo each other", () => {
    const name = fc.constantFrom("street", "house", "town", "postcode");
    fc.assert(
      fc.property(fc.uniqueArray(name, { minLength: 1 }), (names) => {
        const bound = names.reduce<string | undefined>(bindName, undefined);
        expect(checkDefinition(form(field("x", { binding: bound })))).toEqual([]);
        expect(
          names.reduce<string | undefined>((left, n) => (left === undefined ? undefined : unbindName(left, n)), bound),
        ).toBeUndefined();
      }),
    );
  });
});

describe("checkDefinition", () => {
  it("lets a sound form pass", () => {
    expect(checkDefinition(form(field("a", { binding: "{street.abbr}[, {unit}] {position}" }), field("b")))).toEqual(
      [],
    );
  });

  it.each([
    [form(field("a"), field("a")), "two fields are named"],
    [form(field("a", { binding: "{town" })), "column 1"],
    [form(field("a", { binding: "{village}" })), "there is no address part or attribute “village”"],
    [form(field("a", { binding: "{town.short}" })), "an address part has no “short”"],
  ])("finds what is wrong (%#)", (definition, message) => {
    expect(checkDefinition(definition)[0].message).toContain(message);
  });
});

describe("what is filled, and what is the person's own", () => {
  const two = form(field("street", { binding: "{street}" }), field("town", { binding: "{town}" }), field("name"));
  const values = { street: "Harbour Row", town: "Tidewell", name: "Ann" };
  const { state } = fill(two, EMPTY_STATE, ANSWER, "", { isConfirmed: true });
  const typed = (known: typeof state, name: string, value: string) =>
    correct(two, known, name, { ...values, [name]: value }).state;

  it("a field that the person changed is theirs", () => {
    expect(typed(state, "street", "Harbour Road").corrected).toEqual(["street"]);
  });

  it("a field that says again what was filled is not", () => {
    expect(typed(typed(state, "street", "x"), "street", "Harbour Row").corrected).toEqual([]);
  });

  it("a field that no lookup filled never counts as corrected", () => {
    expect(typed(state, "name", "Ann").corrected).toEqual([]);
    expect(typed(state, "toString", "x").corrected).toEqual([]);
  });

  it("clearing takes what was filled, and leaves what is theirs", () => {
    const step = clearFilled(typed(state, "street", "My own road"), "");
    expect(step.write).toEqual([{ field: "town", value: "" }]);
    expect(step.state).toEqual({ ...EMPTY_STATE, written: { street: "My own road" } });
  });

  it("clearing before anything was filled writes nothing", () => {
    expect(clearFilled(EMPTY_STATE).write).toEqual([]);
  });

  it("a corrected field can be given back", () => {
    const step = giveBack(two, typed(state, "street", "x"), "street", { ...values, street: "x" });
    expect(step).toEqual({ state, write: [{ field: "street", value: "Harbour Row" }] });
    expect(giveBack(two, state, "town", values).write).toEqual([]);
  });

  it("a new answer replaces every filled field, corrected ones too", () => {
    const elsewhere = { ...ANSWER, parts: { town: { name: "Tidewick" } } };
    const next = fill(two, typed(state, "town", "x"), elsewhere, "", { isConfirmed: true });
    expect(next.write).toEqual([
      { field: "street", value: "" },
      { field: "town", value: "Tidewick" },
    ]);
    expect(next.state.corrected).toEqual([]);
  });
});
