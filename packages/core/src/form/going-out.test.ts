import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  correct,
  EMPTY_STATE,
  type Field,
  type FormAnswer,
  type FormDefinition,
  type FormState,
  fill,
  goingOut,
  keepTyped,
  opened,
  type Step,
  type Values,
} from "./index.ts";

const ANSWER: FormAnswer = {
  ref: "qr-5k2c9f",
  kind: "address",
  exactness: "surveyed",
  at: { lat: -35.20881, lon: -21.40713 },
  line: "12 Harbour Row, Tidewell",
  parts: { house: { name: "12" }, street: { name: "Harbour Row" }, town: { name: "Tidewell" } },
  autofill: {},
};
const field = (name: string, binding?: string, more: Partial<Field> = {}): Field => ({
  name,
  label: name,
  kind: "text",
  ...(binding ? { binding } : {}),
  ...more,
});
const FORM: FormDefinition = {
  title: "A form",
  fields: [
    field("find", undefined, { kind: "search" }),
    field("who"),
    field("plan", undefined, { kind: "choice", options: [{ value: "a", label: "A" }] }),
    field("street", "{house} {street}"),
    field("town", "{town}"),
    field("position", "{position}", { kind: "hidden" }),
    field("confirmed", "{confirmed}", { kind: "hidden" }),
    field("also", "{town}", { address: "other", show: { field: "plan", is: "b" } }),
  ],
};

/** A form as it stands: its state and its values. */
class Filled {
  state: FormState = EMPTY_STATE;
  values: Record<string, string> = {
    find: "",
    who: "",
    plan: "a",
    street: "",
    town: "",
    position: "",
    confirmed: "",
    also: "",
  };

  take({ state, write }: Step): this {
    this.state = state;
    for (const { field: name, value } of write) this.values[name] = value;
    return this;
  }

  write(name: string, value: string): this {
    this.values[name] = value;
    return this.take(correct(FORM, this.state, name, this.values));
  }

  fill(): this {
    this.values.find = ANSWER.line;
    return this.take(fill(FORM, this.state, ANSWER, "", { isConfirmed: true }));
  }

  get going() {
    return goingOut(FORM, this.state, this.values as Values, Object.entries(this.values));
  }

  origin(name: string) {
    return this.going.values.find((one) => one.field === name)?.origin;
  }

  get address() {
    return this.going.addresses[0];
  }
}

describe("what a form would send", () => {
  it("says of each value where it comes from", () => {
    const form = new Filled().write("who", "Ann").fill();
    expect(form.going.values).toEqual([
      { field: "find", value: "12 Harbour Row, Tidewell", origin: "record", isUnseen: false },
      { field: "who", value: "Ann", origin: "typed", isUnseen: false },
      { field: "plan", value: "a", origin: "form", isUnseen: false },
      { field: "street", value: "12 Harbour Row", origin: "record", isUnseen: false },
      { field: "town", value: "Tidewell", origin: "record", isUnseen: false },
      { field: "position", value: "-35.20881,-21.40713", origin: "record", isUnseen: false },
      { field: "confirmed", value: "yes", origin: "record", isUnseen: false },
      { field: "also", value: "", origin: "empty", isUnseen: true },
    ]);
    expect(form.going.addresses).toEqual([
      { address: "", state: "chosen", isConfirmed: true, isUnseen: false },
      { address: "other", state: "empty", isConfirmed: false, isUnseen: true },
    ]);
  });

  it("tells what was typed over, and that the rest is from the previous place", () => {
    const form = new Filled().fill().write("street", "99 Elsewhere Lane");
    expect(form.going.values.find((one) => one.field === "street")).toMatchObject({
      origin: "corrected",
      was: "12 Harbour Row",
    });
    expect(form.origin("town")).toBe("left");
    expect(form.origin("position")).toBe("empty");
    expect(form.origin("confirmed")).toBe("form");
    expect(form.address).toMatchObject({ state: "changed", isConfirmed: false });
    expect(form.write("street", "12 Harbour Row").address.state).toBe("chosen");
  });

  it("knows what was wanted as typed, and what was stored", () => {
    const typed = new Filled().write("street", "12b Harbour Row");
    expect(typed.take(keepTyped(FORM, typed.state, "")).origin("street")).toBe("typed");
    expect(typed.address.state).toBe("typed");
    const stored = new Filled();
    stored.values = { ...stored.values, street: "12 Harbour Row", position: "-35.2,-21.4", confirmed: "yes" };
    stored.state = opened(FORM, stored.state, stored.values, "");
    expect(["street", "position"].map((name) => stored.origin(name))).toEqual(["stored", "stored"]);
    expect(stored.address).toMatchObject({ state: "chosen", isConfirmed: true });
  });

  it("never calls a value the record's where the address is not the record any more, whatever was written", () => {
    const step = fc.oneof(
      fc.constant((form: Filled) => form.fill()),
      fc.constant((form: Filled) => form.take(keepTyped(FORM, form.state, ""))),
      fc
        .tuple(fc.constantFrom("street", "town", "who"), fc.constantFrom("", "Tidewell", "12 Harbour Row", "Elsewhere"))
        .map(
          ([name, value]) =>
            (form: Filled) =>
              form.write(name, value),
        ),
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        const form = new Filled();
        for (const one of steps) one(form);
        const { values, addresses } = form.going;
        for (const { field: name, value, origin } of values) {
          expect(origin === "empty").toBe(value === "");
          if (origin === "record") expect(addresses[0].state).toBe("chosen");
          if (name === "position" && value) expect(addresses[0].state).toBe("chosen");
        }
        if (addresses[0].isConfirmed) expect(form.values.confirmed).toBe("yes");
      }),
      { numRuns: 500 },
    );
  });
});
