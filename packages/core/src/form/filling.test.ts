import { describe, expect, it } from "vitest";
import { profileOf } from "../place/index.ts";
import {
  type AddressRule,
  addressesOf,
  checkDefinition,
  differingParts,
  type Field,
  type FormAnswer,
  type FormDefinition,
  fieldsFor,
  fillingsFor,
  hasShape,
  isSameQuestion,
  lineFor,
  outcomeOf,
  problemsOf,
  questionFor,
  startOf,
  storedPosition,
  typedFillings,
  visibilityOf,
} from "./index.ts";

const field = (name: string, more: Partial<Field> = {}): Field => ({ name, kind: "text", label: name, ...more });
const PLAIN: Field[] = [
  field("person", { autofill: "name" }),
  field("house", { binding: "{house}" }),
  field("street", { binding: "{street}" }),
  field("town", { binding: "{town}" }),
  field("country", { kind: "country", binding: "{country.code}" }),
  field("go", { kind: "button" }),
  field("position", { kind: "hidden", binding: "{position}" }),
  field("sure", { kind: "hidden", binding: "{confirmed}" }),
];
const form = (fields: Field[], ...addresses: AddressRule[]): FormDefinition => ({ title: "A form", fields, addresses });
const WHOLE = { house: "12", street: "Harbour Row", town: "Tidewell" };

describe("what starts a lookup", () => {
  const search = field("find", { kind: "search" });
  const complete: AddressRule = { name: "", start: { on: "complete", fields: ["house", "street", "town"] } };
  const leaving: AddressRule = { name: "", start: { on: "leaving", field: "street" } };
  const button: AddressRule = { name: "", start: { on: "button", field: "go" } };
  const never: AddressRule = { name: "", start: { on: "never" } };

  it.each([
    [
      "the first bound field, with no rule",
      form(PLAIN),
      { house: "12" },
      { did: "left", field: "house" },
      { parts: { house: "12" } },
    ],
    ["no other field then", form(PLAIN), WHOLE, { did: "left", field: "town" }, undefined],
    ["no field of other things", form(PLAIN, leaving), { person: "Ann" }, { did: "left", field: "person" }, undefined],
    ["leaving the field of the rule", form(PLAIN, leaving), WHOLE, { did: "left", field: "street" }, { parts: WHOLE }],
    ["not an empty one", form(PLAIN, leaving), { street: " " }, { did: "left", field: "street" }, undefined],
    [
      "not before all are complete",
      form(PLAIN, complete),
      { house: "12", street: "Harbour Row" },
      { did: "left", field: "street" },
      undefined,
    ],
    [
      "the last of several being complete",
      form(PLAIN, complete),
      WHOLE,
      { did: "left", field: "town" },
      { parts: WHOLE },
    ],
    [
      "one of them changed by the page's code",
      form(PLAIN, complete),
      WHOLE,
      { did: "set", field: "house" },
      { parts: WHOLE },
    ],
    ["the button", form(PLAIN, button), WHOLE, { did: "pressed", field: "go" }, { parts: WHOLE }],
    [
      "a button beside another rule",
      form(PLAIN, complete),
      { town: "Tidewell" },
      { did: "pressed", field: "go" },
      { parts: { town: "Tidewell" } },
    ],
    ["not a button with nothing to ask", form(PLAIN, button), {}, { did: "pressed", field: "go" }, undefined],
    [
      "nothing of the form, when the rule says so",
      form(PLAIN, never),
      WHOLE,
      { did: "left", field: "house" },
      undefined,
    ],
    [
      "not leaving a search field, whose list does",
      form([search, ...PLAIN]),
      { find: "12 harb" },
      { did: "left", field: "find" },
      undefined,
    ],
    [
      "a search field set by the page's code",
      form([search, ...PLAIN]),
      { find: "12 harb" },
      { did: "set", field: "find" },
      { q: "12 harb" },
    ],
    [
      "with the country as its narrowing",
      form(PLAIN, leaving),
      { ...WHOLE, country: "QR" },
      { did: "left", field: "street" },
      { parts: WHOLE, country: "QR" },
    ],
    ["no field that is not there", form(PLAIN), { toString: "x" }, { did: "left", field: "toString" }, undefined],
  ] as const)("%s", (_what, definition, values, happening, question) => {
    expect(questionFor(definition, values, happening)).toEqual(question && { address: "", ...question });
  });

  it("asks in words where a field holds more than one part", () => {
    const fields = [field("line", { autofill: "address-line1" }), field("post", { autofill: "postal-code" })];
    expect(
      questionFor(form(fields), { line: "12 Harbour Row", post: "HT0 10" }, { did: "left", field: "line" }),
    ).toEqual({
      address: "",
      q: "12 Harbour Row, HT0 10",
    });
  });

  it("knows the same question again", () => {
    const ask = (house: string) =>
      questionFor(form(PLAIN, complete), { ...WHOLE, house }, { did: "left", field: "house" });
    expect(isSameQuestion(ask("12"), ask("12"))).toBe(true);
    expect(isSameQuestion(ask("12"), ask("14"))).toBe(false);
  });

  it("keeps the addresses of a form apart", () => {
    const two = form([
      field("a", { autofill: "section-home address-line1" }),
      field("b", { autofill: "section-letters address-line1" }),
      field("c", { binding: "{town}", address: "letters" }),
    ]);
    expect(addressesOf(two)).toEqual(["home", "letters"]);
    expect(startOf(two, "letters")).toEqual({ on: "leaving", field: "b" });
    expect(
      questionFor(two, { a: "1 Mill Lane", b: "2 Mill Lane", c: "Tidewell" }, { did: "left", field: "b" }),
    ).toEqual({
      address: "letters",
      q: "2 Mill Lane, Tidewell",
    });
  });
});

const ANSWER: FormAnswer = {
  ref: "qr-1",
  kind: "address",
  exactness: "between",
  at: { lat: -35.2, lon: -21.4 },
  line: "12 Harbour Row, Tidewell",
  parts: { house: { name: "12" }, street: { name: "Harbour Row" }, town: { name: "Tidewell" } },
  autofill: { "address-line1": "12 Harbour Row" },
};

describe("what comes of a lookup", () => {
  const sure = { exactness: "surveyed", score: 0.95 } as const;
  const other = { exactness: "along", score: 0.4 } as const;
  const house = { part: "house", written: "12b", held: "12", how: "nearby" } as const;
  const code = { part: "postcode", written: "HT9 29", held: "HT4 29", how: "other" } as const;
  const unit = { part: "unit", written: "9", how: "absent" } as const;
  const one = (answer: unknown, isBelow = false, differences: unknown[] = []) => ({
    type: "one",
    answer,
    isBelow,
    differences,
  });
  const unlike = (...differences: (typeof house | typeof code | typeof unit)[]) => ({ ...sure, differences });
  it.each([
    ["nothing found", {}, [], "none", { type: "none" }],
    ["one that fits", {}, [sure], "matched", one(sure)],
    ["the best of a clear answer", {}, [sure, other], "matched", one(sure)],
    ["several alike", {}, [sure, other], "ambiguous", { type: "several", candidates: [sure, other] }],
    ["the first of several, where it is sure enough", { takeFrom: 0.9 }, [sure, other], "ambiguous", one(sure)],
    [
      "several, where none is",
      { takeFrom: 0.99 },
      [sure, other],
      "ambiguous",
      { type: "several", candidates: [sure, other] },
    ],
    [
      "several, where the sure one differs: no threshold fills over a difference",
      { takeFrom: 0.9 },
      [unlike(house), other],
      "ambiguous",
      { type: "several", candidates: [unlike(house), other] },
    ],
    ["one alone, though it is said to be ambiguous", {}, [other], "ambiguous", one(other)],
    ["less exact than the form asks for", { exactness: "between" }, [other], "matched", one(other, true)],
    ["just as exact", { exactness: "along" }, [other], "matched", one(other)],
    [
      "another number: the person agrees or not",
      {},
      [unlike(house)],
      "differs",
      { type: "differs", answer: unlike(house), differences: [house] },
    ],
    [
      "another number where the form lets it pass",
      { mayDiffer: ["house"] },
      [unlike(house)],
      "differs",
      one(unlike(house), false, [house]),
    ],
    ["a postcode put right", {}, [unlike(code)], "differs", one(unlike(code), false, [code])],
    [
      "a postcode where the form lets nothing pass",
      { mayDiffer: [] },
      [unlike(code)],
      "differs",
      { type: "differs", answer: unlike(code), differences: [code] },
    ],
    [
      "a unit that is not known, which is no difference",
      { mayDiffer: [] },
      [unlike(unit)],
      "matched",
      one(unlike(unit)),
    ],
  ] as const)("%s", (_what, rule, candidates, verdict, outcome) => {
    expect(outcomeOf<(typeof candidates)[number]>({ name: "", ...rule } as AddressRule, candidates, verdict)).toEqual(
      outcome,
    );
  });

  it("tells candidates apart by what differs", () => {
    const other = { parts: { ...ANSWER.parts, town: { name: "Samphwick" }, county: { name: "Sallow" } } };
    expect(differingParts([ANSWER, other])).toEqual(["town", "county"]);
    expect(differingParts([ANSWER])).toEqual([]);
  });

  it("fills only the fields of its own address", () => {
    const two = form([field("a", { binding: "{town}" }), field("b", { binding: "{town}", address: "letters" })]);
    expect(fillingsFor(two, ANSWER, "letters")).toEqual([{ field: "b", value: "Tidewell" }]);
  });

  it("says that an address was confirmed, or taken as typed, with nothing left of an earlier one", () => {
    expect(fillingsFor(form(PLAIN), ANSWER).at(-1)).toEqual({ field: "sure", value: "yes" });
    expect(typedFillings(form(PLAIN))).toEqual([
      { field: "position", value: "" },
      { field: "sure", value: "no" },
    ]);
  });

  it("writes hours by day, height and other facts", () => {
    const facts = {
      openingHours: [
        { dayOfWeek: ["Monday", "Tuesday", "Wednesday"], opens: "09:00", closes: "17:00" },
        { dayOfWeek: ["Saturday", "Monday", "Sunday"], opens: "10:00", closes: "14:00" },
      ],
      stepFree: false,
      languages: ["en", "el"],
    };
    const values = (binding: string) =>
      fillingsFor(form([field("x", { binding })]), { ...ANSWER, facts, height: 13.6 })[0].value;
    expect(values("{hours}")).toBe("Monday–Wednesday 09:00–17:00\nSaturday, Monday, Sunday 10:00–14:00");
    expect(values("{height} m")).toBe("14 m");
    expect(values("{stepfree}")).toBe("no");
    expect(values("{phone or url}")).toBe("");
    expect(values("{nearby}[, {away} away]")).toBe("");
  });

  it("writes the facts that the data has of its own, and what lies around the country; missing ones nowhere", () => {
    const own = {
      rating: { label: "Rating", kind: "number" as const, value: 4.5 },
      quiet: { label: "Quiet", kind: "yes-no" as const, value: false },
      stepfree: { label: "Step-free access", kind: "text" as const, value: "by the yard" },
      constructor: { label: "Built by", kind: "text" as const, value: "the guild" },
    };
    const answer = {
      ...ANSWER,
      facts: { hoursText: "ask inside", phone: "+990 1", own },
      continent: { code: "150", name: "Europe" },
    };
    const definition = (binding: string) => form([field("x", { binding })]);
    const values = (binding: string) => {
      expect(checkDefinition(definition(binding)), binding).toEqual([]);
      return fillingsFor(definition(binding), answer)[0].value;
    };
    expect(values("{fact.rating} of 5")).toBe("4.5 of 5");
    expect(values("{fact.quiet}")).toBe("no");
    expect(values("Rated[ {fact.stars}]")).toBe("Rated");
    expect(values("{fact.phone} {hours}")).toBe("+990 1 ask inside");
    expect(values("{stepfree}")).toBe("by the yard");
    expect(values("{fact.constructor}{fact.valueof}")).toBe("the guild");
    expect(values("{continent} ({continent.code})")).toBe("Europe (150)");
    for (const wrong of ["{fact}", "{fact.}", "{fact.Rating}", "{fact.a.b}"])
      expect(checkDefinition(definition(wrong)), wrong).toHaveLength(1);
  });

  it("tells of an answer by its line, its name or its position", () => {
    expect(lineFor(ANSWER)).toBe(ANSWER.line);
    const bare = { ...ANSWER, line: "", autofill: {}, parts: {} };
    expect(lineFor({ ...bare, parts: { place: { name: "Old Mill" } } })).toBe("Old Mill");
    expect(lineFor(bare)).toBe(`${ANSWER.at.lat}, ${ANSWER.at.lon}`);
  });

  it("tells the nearest of some places, and how far it is", () => {
    const told = (metres: number) =>
      fillingsFor(form([field("x", { binding: "{nearby}[, {away} away]" })]), {
        ...ANSWER,
        nearby: { name: "Mill Reading Room", metres },
      })[0].value;
    expect(told(222.3)).toBe("Mill Reading Room, 222 m away");
    expect(told(2218)).toBe("Mill Reading Room, 2.22 km away");
  });
});

describe("when a field is shown", () => {
  const standing = (show: Field["show"], values: Record<string, string>, wasAsked = false) =>
    visibilityOf(field("x", { show }), values, { wasAsked });
  it.each([
    [undefined, {}, false, "shown"],
    ["filled", {}, false, "hidden"],
    ["filled", { x: "a" }, false, "shown"],
    ["filled", {}, true, "shown"],
    ["locked", {}, false, "locked"],
    ["locked", {}, true, "shown"],
    [{ field: "y" }, {}, true, "hidden"],
    [{ field: "y" }, { y: "a" }, false, "shown"],
    [{ field: "y", is: "b" }, { y: "a" }, false, "hidden"],
    [{ field: "y", is: "b" }, { y: "b" }, false, "shown"],
    [{ field: "toString" }, {}, false, "hidden"],
  ] as const)("%j with %j (asked: %s) is %s", (show, values, wasAsked, expected) => {
    expect(standing(show, values, wasAsked)).toBe(expected);
  });
});

describe("a form that asks for the country first", () => {
  const definition = form(
    [
      field("country", { kind: "country", binding: "{country.code}" }),
      field("postcode", { binding: "{postcode}" }),
      field("town", { binding: "{town}" }),
      field("note"),
      field("street", { binding: "{street}" }),
      field("house", { binding: "{house}" }),
    ],
    { name: "", countryFirst: true },
  );
  const shown = (code: string) => fieldsFor(definition, "", profileOf(code)).filter(({ fits }) => fits);

  it("has its fields in the country's order and words", () => {
    expect(shown("QR").map(({ name }) => name)).toEqual(["country", "house", "street", "note", "town", "postcode"]);
    expect(shown("QV").map(({ name }) => name)).toEqual(["country", "street", "house", "note", "postcode", "town"]);
    expect(shown("QY").map(({ name }) => name)).not.toContain("house");
    expect(shown("QY").find(({ name }) => name === "town")?.label).toBe(profileOf("QY").labels.town);
  });

  it("knows the shape of its postcodes", () => {
    const postcode = shown("QR").find(({ name }) => name === "postcode")!;
    expect(postcode.placeholder).toBe("HT4 29, SM1 07");
    expect(hasShape("ht4 29", postcode.shape)).toBe(true);
    expect(hasShape("1234", postcode.shape)).toBe(false);
    expect(hasShape("", postcode.shape)).toBe(true);
  });

  it("is left as it is without the rule", () => {
    expect(fieldsFor({ ...definition, addresses: [] }, "", profileOf("QV")).map(({ name }) => name)).toEqual(
      definition.fields.map(({ name }) => name),
    );
  });
});

describe("what is wrong with a form, and what to look at", () => {
  it.each([
    [form([field("a", { kind: "choice" })]), "needs options"],
    [form([field("a", { show: { field: "b" } })]), "“b”, which is not a field"],
    [form([field("a", { show: { field: "a" } })]), "on its own value"],
    [form([], { name: "", start: { on: "leaving", field: "b" } }), "“b”, which is not a field"],
    [form([], { name: "", start: { on: "complete", fields: [] } }), "none is named"],
    [form([field("b")], { name: "", start: { on: "button", field: "b" } }), "“b” is not one"],
    [form([], { name: "", countryFirst: true }), "has no country field"],
    [form([], { name: "x" }, { name: "x" }), "two rules"],
  ])("finds it (%#)", (definition, message) => {
    expect(checkDefinition(definition)[0].message).toContain(message);
  });

  it("lists tokens used twice, fields that stay empty, and required ones that nothing fills", () => {
    const inLorramere = {
      ...ANSWER,
      parts: { ...ANSWER.parts, country: { name: "Lorramere" } },
      autofill: { "postal-code": "HT0 10" },
    };
    const problems = problemsOf(
      form([
        field("a", { autofill: "postal-code" }),
        field("b", { autofill: "postal-code" }),
        field("c", { binding: "{unit}" }),
        field("d", { required: true }),
        field("e", { autofill: "section-x postal-code" }),
      ]),
      [
        { title: "a house", answer: inLorramere },
        { title: "a flat", answer: { ...inLorramere, parts: { ...inLorramere.parts, unit: { name: "Flat 1" } } } },
        { title: "abroad", answer: { ...ANSWER, autofill: {}, parts: { country: { name: "Ovarde" } } } },
      ],
    );
    expect(problems.map(({ field: name, kind, message }) => [name, kind, message])).toEqual([
      ["b", "duplicate token", "“postal-code” is also used by a, and browsers fill only one of them."],
      ["a", "stays empty", "stays empty in Ovarde."],
      ["b", "stays empty", "stays empty in Ovarde."],
      ["c", "stays empty", "stays empty in Ovarde."],
      ["d", "nothing fills it", "is required and nothing fills it, so the user has to type it."],
      ["e", "stays empty", "stays empty in Ovarde."],
    ]);
    expect(
      problemsOf(form([field("x", { binding: "{floor}" })]), [{ title: "a house", answer: inLorramere }])[0].message,
    ).toBe("stays empty in every country.");
  });
});

describe("a stored record", () => {
  const fields = (...bindings: string[]) => form(bindings.map((binding, i) => field(`f${i}`, { binding })));
  it.each([
    ["one field", fields("{position}"), { f0: "-35.2,-21.4" }, { lat: -35.2, lon: -21.4 }],
    ["two fields", fields("{lat}", "{lon}"), { f0: "-35.2", f1: " -21.4" }, { lat: -35.2, lon: -21.4 }],
    ["nothing yet", fields("{position}"), {}, undefined],
    ["half a position", fields("{lat}", "{lon}"), { f0: "-35.2" }, undefined],
    ["no number", fields("{position}"), { f0: "here,there" }, undefined],
    ["beyond the pole", fields("{position}"), { f0: "-95,-21.4" }, undefined],
    ["no field for it", fields("{town}"), { f0: "Tidewell" }, undefined],
    ["0°, 0°, when it says so", fields("{position}"), { f0: "0,0" }, { lat: 0, lon: 0 }],
  ])("lies where %s says", (_what, definition, values, at) => {
    expect(storedPosition(definition, values)).toEqual(at);
  });
});
