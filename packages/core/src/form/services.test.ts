import { describe, expect, it } from "vitest";
import {
  addressState,
  changedFields,
  checkDefinition,
  compareForms,
  confirmByRegister,
  correct,
  EMPTY_STATE,
  type FormAnswer,
  type FormDefinition,
  fill,
  fillableFields,
  goBack,
  officialAnswer,
  removeField,
  renameField,
  type ServiceRule,
  serviceFillings,
  serviceInputs,
} from "./index.ts";

const FORM: FormDefinition = {
  title: "Lend",
  fields: [
    { name: "find", kind: "search", label: "Find" },
    { name: "street", kind: "text", label: "Street", binding: "{street} {house}" },
    { name: "books", kind: "text", label: "Books" },
    { name: "days", kind: "shown", label: "Days", binding: "{courier.days}" },
    { name: "line", kind: "text", label: "Line", binding: "{courier.days}" },
    { name: "day", kind: "choice", label: "Day", binding: "{courier.days}" },
    { name: "way", kind: "hidden", label: "Way", binding: "[{route.metres} m, ]{courier.next}" },
    { name: "plot", kind: "hidden", label: "Plot", binding: "{register.number}" },
    { name: "go", kind: "button", label: "Go", task: "ask" },
  ],
  services: [
    { ask: "courier", when: { on: "chosen" }, with: { town: "{town}", books: "{field.books}" } },
    { ask: "route", when: { on: "answered", service: "courier" }, with: { day: "{courier.next}" } },
    { ask: "register", when: { on: "complete", fields: ["street", "books"] }, with: {}, register: "ask" },
  ],
};
const ANSWER: FormAnswer = {
  ref: "qr-1",
  kind: "address",
  exactness: "surveyed",
  at: { lat: 1, lon: 2 },
  line: "12 Harbour Row, Tidewell",
  lines: ["12 Harbour Row", "Tidewell"],
  parts: { house: { name: "12" }, street: { name: "Harbour Row", abbr: "Harbour Rw" }, town: { name: "Tidewell" } },
  autofill: { "address-line1": "12 Harbour Row", "address-level2": "Tidewell" },
};
const issues = (services: Partial<ServiceRule>[], fields = FORM.fields) =>
  checkDefinition({
    ...FORM,
    fields,
    services: services.map((rule) => ({ ...FORM.services![0], ...rule })) as ServiceRule[],
  }).map(({ message }) => message);

describe("a form that asks services", () => {
  it("is right as it is", () => expect(checkDefinition(FORM)).toEqual([]));

  it.each<[string, string[], string]>([
    ["a name that a part has", issues([{ ask: "town" }]), "is the name of an address part"],
    ["a name in capitals", issues([{ ask: "Courier" }]), "lowercase letters only"],
    ["a field that is not there", issues([{ when: { on: "leaving", field: "nowhere" } }]), "which is not a field"],
    ["a button that is none", issues([{ when: { on: "button", field: "books" } }]), "but “books” is not one"],
    ["no field to be complete", issues([{ when: { on: "complete", fields: [] } }]), "none is named"],
    ["a service that is not asked", issues([{ when: { on: "answered", service: "baker" } }]), "does not call that"],
    ["itself", issues([{ when: { on: "answered", service: "courier" } }]), "does not call that"],
    ["an address that is not there", issues([{ address: "to" }]), "does not have"],
    ["a pattern", issues([{ with: { town: "{town" } }]), "column 1"],
    ["a part that is none", issues([{ with: { town: "{city}" } }]), "no address part or attribute “city”"],
    ["a field in a pattern", issues([{ with: { town: "{field.city}" } }]), "“city” is not a field"],
    [
      "a field bound to a service that is not asked",
      issues([{}], [{ name: "x", kind: "text", label: "X", binding: "{baker.bread}" }]),
      "there is no address part or attribute “baker”",
    ],
    [
      "a field bound to a service without a value",
      issues([{}], [{ name: "x", kind: "text", label: "X", binding: "{courier}" }]),
      "a value of “courier” is named too",
    ],
  ])("is told of %s", (_, found, words) => expect(found.join("\n")).toContain(words));

  it("asks with parts, fields and what another service said; what is empty is left out", () => {
    const [courier, route] = FORM.services!;
    expect(serviceInputs(courier, { books: "3" }, ANSWER)).toEqual({ town: "Tidewell", books: "3" });
    expect(serviceInputs(courier, {}, undefined)).toEqual({});
    expect(serviceInputs(route, {}, ANSWER, { courier: { next: "Monday" } })).toEqual({ day: "Monday" });
    expect(
      serviceInputs({ ...route, with: { all: "{courier.days}" } }, {}, ANSWER, { courier: { days: ["a", "b"] } }),
    ).toEqual({ all: "a, b" });
  });

  it("fills its fields with values and lists, and with nothing where there is none", () => {
    const answers = { courier: { days: ["Monday", "Friday"], next: "Monday" } };
    expect(serviceFillings(FORM, "courier", answers)).toEqual([
      { field: "days", value: "Monday\nFriday" },
      { field: "line", value: "Monday, Friday" },
      { field: "day", value: "", options: ["Monday", "Friday"] },
      { field: "way", value: "Monday" },
    ]);
    expect(serviceFillings(FORM, "route", { ...answers, route: { metres: "900" } })).toEqual([
      { field: "way", value: "900 m, Monday" },
    ]);
    expect(serviceFillings(FORM, "courier", {}).map(({ value }) => value)).toEqual(["", "", "", ""]);
  });

  it("keeps its fields out of what addresses fill", () => {
    expect(fillableFields(FORM, "").map(({ name }) => name)).toEqual(["street"]);
    expect(fill(FORM, EMPTY_STATE, ANSWER, "", { isConfirmed: true }).write).toEqual([
      { field: "street", value: "Harbour Row 12" },
    ]);
  });

  it("follows a field's new name, and loses what a field that goes would have started", () => {
    const renamed = renameField(FORM, "books", "volumes");
    expect(renamed.services).toMatchObject([
      { with: { books: "{field.volumes}" } },
      {},
      { when: { fields: ["street", "volumes"] } },
    ]);
    expect(checkDefinition(renamed)).toEqual([]);
    const leaving = { ...FORM, services: [{ ...FORM.services![0], when: { on: "leaving" as const, field: "books" } }] };
    expect(removeField(leaving, "books").services).toEqual([]);
    expect(removeField(FORM, "books").services).toHaveLength(3);
  });

  it("keeps a rehearsal whatever the moment at which a register was called", () => {
    const moment = { name: "when", kind: "hidden" as const, label: "When", binding: "{register.asked}" };
    const form = { ...FORM, fields: [...FORM.fields, moment] };
    const expected = { when: "2026-06-01T10:00:00Z", plot: "4-118" };
    expect(changedFields(form, expected, { when: "2026-06-02T10:00:00Z", plot: "4-119" })).toEqual([
      { field: "plot", expected: "4-118", found: "4-119" },
    ]);
  });

  it("is compared with what it was", () => {
    const after = { ...FORM, services: [{ ...FORM.services![0], called: "the van" }] };
    expect(compareForms(FORM, after).map(({ what, after: now }) => [what, now])).toContainEqual([
      "courier: called",
      "the van",
    ]);
  });
});

describe("a register", () => {
  it("names official parts, which take the place of those that were found, wherever they stand", () => {
    const { answer, parts } = officialAnswer(ANSWER, {
      street: "Harbour Rows",
      house: "12",
      town: "",
      number: "4-118",
    });
    expect(parts).toEqual(["street"]);
    expect(answer).toMatchObject({
      ref: "qr-1",
      line: "12 Harbour Rows, Tidewell",
      lines: ["12 Harbour Rows", "Tidewell"],
      parts: { street: { name: "Harbour Rows" }, town: { name: "Tidewell" } },
      autofill: { "address-line1": "12 Harbour Rows" },
    });
    expect(answer.parts.street).not.toHaveProperty("abbr");
    expect(officialAnswer(ANSWER, {}).answer).toEqual(ANSWER);
  });

  it("confirms what is there, until it is changed; and nothing that is not chosen", () => {
    const chosen = fill(FORM, EMPTY_STATE, ANSWER, "", { isConfirmed: true }).state;
    const state = confirmByRegister(chosen, "");
    const values = { street: "Harbour Row 12", find: ANSWER.line };
    expect(addressState(FORM, state, values, "")).toBe("registered");
    const changed = correct(FORM, state, "street", { ...values, street: "Mill Lane 12" }).state;
    expect(addressState(FORM, changed, { ...values, street: "Mill Lane 12" }, "")).toBe("changed");
    // the record is there again; the register has not been asked about it again
    expect(addressState(FORM, goBack(FORM, changed, "").state, values, "")).toBe("chosen");
    expect(confirmByRegister(changed, "")).toBe(changed);
    expect(confirmByRegister(EMPTY_STATE, "")).toBe(EMPTY_STATE);
  });
});
