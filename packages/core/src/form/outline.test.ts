import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addressesOf, FIELD_KINDS, type FormDefinition, outlineOf, startOf } from "./index.ts";

const field = fc.record({
  name: fc.stringMatching(/^[a-z]{1,6}$/),
  kind: fc.constantFrom(...FIELD_KINDS),
  label: fc.string({ maxLength: 10 }),
  half: fc.option(fc.boolean(), { nil: undefined }),
  binding: fc.option(fc.constantFrom("{town}", "{street} {house}", "Flat {unit}", "{house}[, {unit}]"), {
    nil: undefined,
  }),
  autofill: fc.option(fc.constantFrom("postal-code", "country", "name", "address-line1"), { nil: undefined }),
  address: fc.option(fc.constantFrom("", "other"), { nil: undefined }),
});
const form = fc.record({ title: fc.string(), fields: fc.uniqueArray(field, { selector: ({ name }) => name }) });

describe("the outline of a form", () => {
  it("has every visible field in its order, and nothing else", () => {
    fc.assert(
      fc.property(form, (definition: FormDefinition) => {
        const seen = definition.fields.filter(({ kind }) => kind !== "hidden");
        const { fields } = outlineOf(definition);
        expect(fields.map(({ kind, isHalf }) => [kind, isHalf])).toEqual(
          seen.map(({ kind, half }) => [kind, half === true]),
        );
        for (const [i, { part }] of fields.entries())
          if (part && seen[i].binding) expect(seen[i].binding).toContain(`{${part}}`);
      }),
    );
  });

  it("counts its addresses, and names what starts each, once", () => {
    fc.assert(
      fc.property(form, (definition: FormDefinition) => {
        const { addresses, starts } = outlineOf(definition);
        const names = addressesOf(definition);
        expect(addresses).toBe(names.length);
        expect(new Set(starts)).toEqual(new Set(names.map((name) => startOf(definition, name).on)));
        expect(starts.length).toBe(new Set(starts).size);
      }),
    );
  });

  it("marks fields by their first part, by pattern or by autofill token", () => {
    const definition: FormDefinition = {
      title: "",
      fields: [
        { name: "a", kind: "text", label: "", binding: "Flat {unit}, {house}" },
        { name: "b", kind: "text", label: "", autofill: "postal-code" },
        { name: "c", kind: "text", label: "", autofill: "name" },
      ],
      services: [
        { ask: "courier", when: { on: "chosen" }, with: {} },
        { ask: "courier", when: { on: "leaving", field: "a" }, with: {} },
      ],
    };
    const { fields, services } = outlineOf(definition);
    expect(fields.map(({ part }) => part)).toEqual(["unit", "postcode", undefined]);
    expect(services).toEqual(["courier"]);
  });
});
