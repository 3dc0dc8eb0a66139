import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  addressOf,
  addressState,
  agree,
  clearFilled,
  correct,
  differencesIn,
  EMPTY_STATE,
  type Field,
  type FormAnswer,
  type FormDefinition,
  type FormState,
  fill,
  fillableFields,
  filledAddressOf,
  giveBack,
  goBack,
  isSameStatement,
  keepTyped,
  opened,
  type Step,
  statedValues,
  statingFields,
  writtenValues,
} from "./index.ts";

/** Houses of a world of six; nothing of one is said by another's ref. */
const HOUSES: FormAnswer[] = [
  ["12", "Harbour Row", "Harbour Rw", "Tidewell", "HT4 29"],
  ["14", "Harbour Row", "Harbour Rw", "Tidewell", "HT4 29"],
  ["12", "Mill Lane", "Mill Ln", "Tidewell", "HT4 30"],
  ["12", "Harbour Row", "Harbour Rw", "Sandmouth", "SM1 07"],
  ["7b", "Åsgata", "Åsg", "Vårhamn", "2000"],
  ["3", "Saint Anne Street", "St Anne St", "Sandmouth", "SM1 09"],
].map(([house, street, abbr, town, postcode], i) => ({
  ref: `qr-${i}`,
  kind: "address",
  exactness: "surveyed",
  at: { lat: -35 - i / 10, lon: -21 - i / 10 },
  line: `${house} ${street}, ${town}, ${postcode}`,
  parts: { house: { name: house }, street: { name: street, abbr }, town: { name: town }, postcode: { name: postcode } },
  autofill: { "address-line1": `${house} ${street}`, "address-level2": town, "postal-code": postcode },
  facts: { phone: `+990 ${i}` },
}));

const SEEN: Omit<Field, "name">[] = [
  { kind: "text", label: "Street", binding: "{street}" },
  { kind: "text", label: "House", binding: "{house}" },
  { kind: "text", label: "Street and house", binding: "{street} {house}[, {unit}]" },
  { kind: "text", label: "Line", autofill: "address-line1" },
  { kind: "text", label: "Town", binding: "{town}" },
  { kind: "text", label: "Postcode", autofill: "postal-code" },
  { kind: "text", label: "Phone", binding: "{phone}" },
];
const UNSEEN: Omit<Field, "name">[] = [
  { kind: "hidden", label: "Ref", binding: "{ref}" },
  { kind: "hidden", label: "Position", binding: "{position}" },
  { kind: "hidden", label: "Latitude", binding: "{lat}" },
  { kind: "hidden", label: "Exactness", binding: "{exactness}" },
  { kind: "hidden", label: "Confirmed", binding: "{confirmed}" },
  { kind: "shown", label: "Kind", binding: "{kind}" },
];

const definitions = fc
  .record({
    addresses: fc.constantFrom([""], ["", "letters"]),
    isSearched: fc.boolean(),
    seen: fc.subarray(SEEN),
    unseen: fc.subarray(UNSEEN, { minLength: 2 }),
  })
  .filter(({ isSearched, seen }) => isSearched || seen.length > 0)
  .map(({ addresses, isSearched, seen, unseen }): FormDefinition => {
    const search: Omit<Field, "name">[] = isSearched ? [{ kind: "search", label: "Find" }] : [];
    const fields = addresses.flatMap((address) =>
      [...search, ...seen, ...unseen].map((field, i) => ({
        ...field,
        name: `${address || "first"}-${i}`,
        ...(address ? { address } : {}),
      })),
    );
    return { title: "A form", fields };
  });

type Event =
  | { did: "answer"; address: number; house: number; why: "chosen" | "asked"; differs: boolean }
  | { did: "type"; field: number; text: string }
  | { did: "retype"; field: number; how: number }
  | { did: "clear" | "back" | "agree" | "typed"; address: number }
  | { did: "giveBack"; field: number };

const at = fc.nat(1);
const texts = fc.constantFrom("", "99 Elsewhere Lane", "Sandmouth", "ZZ9 99", "14", "Harbour Row", "12", "x");
const events: fc.Arbitrary<Event> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({
      did: fc.constant("answer" as const),
      address: at,
      house: fc.nat(5),
      why: fc.constantFrom("chosen" as const, "asked" as const),
      differs: fc.boolean(),
    }),
  },
  { weight: 5, arbitrary: fc.record({ did: fc.constant("type" as const), field: fc.nat(20), text: texts }) },
  { weight: 3, arbitrary: fc.record({ did: fc.constant("retype" as const), field: fc.nat(20), how: fc.nat(3) }) },
  {
    weight: 2,
    arbitrary: fc.record({
      did: fc.constantFrom("clear" as const, "back" as const, "agree" as const, "typed" as const),
      address: at,
    }),
  },
  { weight: 1, arbitrary: fc.record({ did: fc.constant("giveBack" as const), field: fc.nat(20) }) },
);

/** The same place in other letters: capitals, spaces, no accents, the short form; none of it moves the place. */
const rewritten = (text: string, how: number) =>
  [
    text.toUpperCase(),
    `  ${text} `,
    text.normalize("NFD").replace(/\p{M}/gu, ""),
    HOUSES.reduce((now, { parts }) => now.replace(parts.street?.name ?? "", parts.street?.abbr ?? ""), text),
  ][how];

/**
 * What a person who watches the form knows, without any of the code above: which record is there, what its fields said
 * then, whether they were agreed to, and what they have typed since.
 */
interface Watched {
  record: FormAnswer | undefined;
  confirmed: boolean;
  said: Map<string, string>;
  typed: Map<string, string>;
}

class Walk {
  state: FormState = EMPTY_STATE;
  readonly values: Record<string, string> = {};
  readonly watched = new Map<string, Watched>();

  constructor(readonly definition: FormDefinition) {
    for (const { name } of definition.fields) this.values[name] = "";
    for (const address of this.addresses) this.watched.set(address, this.nothing());
  }

  get addresses(): string[] {
    return [...new Set(this.definition.fields.map(addressOf))];
  }

  nothing = (): Watched => ({ record: undefined, confirmed: false, said: new Map(), typed: new Map() });

  take({ state, write }: Step): void {
    this.state = state;
    for (const { field, value } of write) this.values[field] = value;
  }

  do(event: Event): void {
    const { definition } = this;
    const address = "address" in event ? this.addresses[event.address % this.addresses.length] : "";
    const typeable = definition.fields.filter(({ kind }) => kind === "text" || kind === "search");
    if (event.did === "answer") {
      const answer = HOUSES[event.house];
      const isConfirmed = event.why === "chosen" || !event.differs;
      this.take(fill(definition, this.state, answer, address, { isAsked: event.why === "asked", isConfirmed }));
      const search = this.fieldsOf(address).find(({ kind }) => kind === "search");
      const isRead = !this.fieldsOf(address).some(({ kind, label }) => kind === "text" && label !== "Phone");
      if (search && (event.why === "chosen" || isRead)) this.values[search.name] = answer.line;
      const before = this.watched.get(address);
      this.watched.set(address, {
        record: answer,
        confirmed: isConfirmed,
        said: new Map(this.fieldsOf(address).map(({ name }) => [name, this.values[name]])),
        typed: event.why === "asked" ? (before?.typed ?? new Map()) : new Map(),
      });
    } else if (event.did === "type" || event.did === "retype") {
      const field = typeable[event.field % typeable.length];
      const its = this.watched.get(addressOf(field));
      const text =
        event.did === "type" ? event.text : rewritten(its?.said.get(field.name) ?? this.values[field.name], event.how);
      this.values[field.name] = text;
      if (text.trim()) its?.typed.set(field.name, text);
      else its?.typed.delete(field.name);
      this.take(correct(definition, this.state, field.name, this.values));
    } else if (event.did === "giveBack") {
      const field = typeable[event.field % typeable.length];
      if (this.state.corrected.includes(field.name)) this.watched.get(addressOf(field))?.typed.delete(field.name);
      this.take(giveBack(definition, this.state, field.name, this.values));
    } else if (event.did === "clear") {
      const names = this.fieldsOf(address).map(({ name }) => name);
      this.take(clearFilled(this.state, address, names));
      const its = this.nothing();
      for (const [name, text] of this.watched.get(address)?.typed ?? [])
        if (this.values[name]) its.typed.set(name, text);
      this.watched.set(address, its);
    } else if (event.did === "back") {
      const its = this.watched.get(address);
      this.take(goBack(definition, this.state, address));
      for (const { name, kind } of this.fieldsOf(address))
        if (its?.record && kind === "search") this.values[name] = its.record.line;
      if (its?.record) its.typed = new Map([...its.typed].filter(([name]) => !its.said.has(name)));
    } else if (event.did === "agree") {
      const its = this.watched.get(address);
      const isChanged = its?.record && this.isMoved(address, its);
      this.take(agree(definition, this.state, address));
      if (its?.record && !isChanged) its.confirmed = true;
    } else {
      this.take(keepTyped(definition, this.state, address));
      const its = this.watched.get(address);
      if (its) Object.assign(its, { record: undefined, confirmed: false });
    }
  }

  fieldsOf(address: string): Field[] {
    return this.definition.fields.filter((field) => addressOf(field) === address);
  }

  /** True when somebody who reads the fields would go elsewhere than to the record. */
  isMoved(address: string, { record, said }: Watched): boolean {
    const seen = this.fieldsOf(address).filter(({ kind, label }) => kind === "text" && label !== "Phone");
    const read = seen.length ? seen : this.fieldsOf(address).filter(({ kind }) => kind === "search");
    return read.some(({ name }) => !isSamePlace(said.get(name) ?? "", this.values[name], record));
  }
}

/** By letters and digits alone, with the short form of the street put back to the long one; a flat behind it aside. */
function isSamePlace(said: string, now: string, record: FormAnswer | undefined): boolean {
  const bare = (text: string) => {
    const { name = "", abbr = "" } = record?.parts.street ?? {};
    const flat = (one: string) =>
      one
        .normalize("NFKD")
        .replace(/\p{M}/gu, "")
        .toLowerCase()
        .replace(/[^\p{L}\p{N}]+/gu, " ")
        .trim();
    const words = flat(text);
    return abbr && words.includes(flat(abbr)) && !words.includes(flat(name))
      ? words.replace(flat(abbr), flat(name))
      : words;
  };
  return bare(said) === bare(now);
}

const FACTS: Record<string, (answer: FormAnswer) => string> = {
  "{ref}": ({ ref }) => ref,
  "{position}": ({ at }) => `${at.lat},${at.lon}`,
  "{lat}": ({ at }) => String(at.lat),
  "{exactness}": ({ exactness }) => exactness,
  "{kind}": ({ kind }) => kind,
};

/** What must hold after every event. */
function holds(walk: Walk): void {
  const { definition, values, state } = walk;
  // corrected is what was filled and holds something else now
  for (const name of state.corrected) expect([name, values[name]]).not.toEqual([name, state.filled[name]]);
  for (const [address, its] of walk.watched) {
    const isMoved = its.record !== undefined && walk.isMoved(address, its);
    const known = isMoved ? undefined : its.record;
    for (const { name, binding = "", kind } of walk.fieldsOf(address)) {
      if (kind !== "hidden" && kind !== "shown") continue;
      const value = values[name];
      if (binding === "{confirmed}") {
        const said = known ? (its.confirmed ? "yes" : "no") : undefined;
        if (said) expect(value, "confirmed").toBe(said);
        else expect(value, "confirmed").not.toBe("yes");
      } else expect(value, binding).toBe(known ? FACTS[binding](known) : "");
    }
    const now = addressState(definition, state, values, address);
    if (its.record) expect(now).toBe(isMoved ? "changed" : "chosen");
    else expect(["empty", "typed"]).toContain(now);
    // nothing is requested as written that a lookup filled, and what was written is asked as typed
    if (!its.record) continue;
    const request = writtenValues(definition, state, values, address);
    for (const { name, kind } of walk.fieldsOf(address)) {
      if (kind !== "text" && kind !== "search") continue;
      const typed = its.typed.get(name);
      if (request[name]) expect(typed, `asked ${name}`).toBeDefined();
      if (request[name]) expect([typed, values[name]]).toContain(request[name]);
      if (typed && values[name] === typed) expect(request[name]).toBe(typed);
    }
  }
}

const RUNS = process.env.BIBLIOTOPE_LONG ? 20_000 : 150;

describe("one place in a form", () => {
  it("is what its fields state, whatever is done to it in whatever order", { timeout: 300_000 }, () => {
    fc.assert(
      fc.property(definitions, fc.array(events, { minLength: 1, maxLength: 14 }), (definition, walked) => {
        const walk = new Walk(definition);
        for (const event of walked) {
          walk.do(event);
          holds(walk);
        }
      }),
      { numRuns: RUNS },
    );
  });

  it("never touches another address", () => {
    fc.assert(
      fc.property(definitions, fc.array(events, { maxLength: 8 }), (definition, walked) => {
        const walk = new Walk(definition);
        for (const event of walked) {
          const before = { ...walk.values };
          walk.do(event);
          const touched = new Set(
            definition.fields.filter(({ name }) => walk.values[name] !== before[name]).map(addressOf),
          );
          expect(touched.size).toBeLessThanOrEqual(1);
        }
      }),
      { numRuns: 500 },
    );
  });

  const READER: FormDefinition = {
    title: "Become a reader",
    fields: [
      { name: "find", kind: "search", label: "Find" },
      { name: "line", kind: "text", label: "Street", binding: "{house} {street}[, {unit}]" },
      { name: "town", kind: "text", label: "Town", binding: "{town}" },
      { name: "code", kind: "text", label: "Postcode", binding: "{postcode}" },
      { name: "ref", kind: "hidden", label: "Ref", binding: "{ref}" },
      { name: "sure", kind: "hidden", label: "Confirmed", binding: "{confirmed}" },
    ],
  };
  const chosen = () => {
    const walk = new Walk(READER);
    walk.do({ did: "answer", address: 0, house: 0, why: "chosen", differs: false });
    return walk;
  };
  const type = (walk: Walk, field: string, text: string) => {
    walk.values[field] = text;
    walk.take(correct(READER, walk.state, field, walk.values));
  };

  it.each([
    ["12 HARBOUR ROW", "chosen"],
    ["12 Harbour Rw.", "chosen"],
    ["12 Harbour Row, Flat 3", "chosen"],
    ["12 Harbour Row, 3b", "chosen"],
    ["12b Harbour Row", "changed"],
    ["12 Harbour Row Elsewhere", "changed"],
    ["12 Harbour Road", "changed"],
    ["", "changed"],
  ])("a street field of “%s” over 12 Harbour Row is %s", (text, state) => {
    const walk = chosen();
    type(walk, "line", text);
    expect(addressState(READER, walk.state, walk.values, "")).toBe(state);
    expect(walk.values.sure).toBe(state === "chosen" ? "yes" : "no");
  });

  it("is looked up without what only the place before had", () => {
    const town = chosen();
    type(town, "town", "Sandmouth");
    expect(statedValues(READER, town.state, town.values, "")).toMatchObject({
      line: "12 Harbour Row",
      town: "Sandmouth",
      code: "",
      find: "",
    });
    const code = chosen();
    type(code, "code", "SM1 07");
    expect(statedValues(READER, code.state, code.values, "")).toMatchObject({ line: "", town: "", code: "SM1 07" });
  });

  it("opens as it was stored", () => {
    const values = { line: "12 Harbour Row", town: "Tidewell", code: "HT4 29", ref: "qr-0", sure: "no" };
    const state = opened(READER, EMPTY_STATE, values, "");
    expect(filledAddressOf(state, "")).toMatchObject({ state: "chosen", confirmed: false });
    expect(state.filled).toEqual({});
    expect(correct(READER, state, "town", { ...values, town: "Sandmouth" }).write).toEqual([
      { field: "ref", value: "" },
      { field: "sure", value: "no" },
    ]);
    expect(opened(READER, EMPTY_STATE, { ...values, ref: "" }, "")).toBe(EMPTY_STATE);
  });

  it("says what of a body is not so in a record", () => {
    const values = { line: "99 Elsewhere Lane", town: "tidewell", code: "" };
    expect(differencesIn(READER, values, HOUSES[0], "")).toEqual([
      { part: "house", written: "99 Elsewhere Lane", held: "12 Harbour Row", how: "other" },
    ]);
    expect(differencesIn(READER, { line: "12 harbour rw" }, HOUSES[0], "")).toEqual([]);
  });

  it("takes the same letters for the same, and no others", () => {
    fc.assert(
      fc.property(fc.constantFrom(...HOUSES), fc.nat(3), ({ line, parts }, how) => {
        expect(isSameStatement(line, rewritten(line, how), parts)).toBe(true);
        expect(isSameStatement(line, `${line} more`, parts)).toBe(false);
      }),
    );
    // where a record has no street, a number is no flat of it
    expect(isSameStatement("", "12b", {}, true)).toBe(false);
    expect(isSameStatement("12 Harbour Row", "12 Harbour Row, 12b", {}, true)).toBe(true);
    expect(fillableFields(READER, "").length - statingFields(READER, "").length).toBe(2);
  });
});
