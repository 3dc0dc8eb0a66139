import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  addField,
  changeRule,
  checkDefinition,
  FIELD_KINDS,
  type FormDefinition,
  moveField,
  placeField,
  removeField,
  renameField,
} from "./index.ts";

const FORM: FormDefinition = {
  title: "A form",
  fields: [
    { name: "house", kind: "text", label: "House", binding: "{house}" },
    { name: "town", kind: "text", label: "Town", binding: "{town}" },
    { name: "letters", kind: "choice", label: "Letters", options: [{ value: "yes", label: "Yes" }] },
    { name: "note", kind: "text", label: "Note", show: { field: "letters", is: "yes" } },
  ],
  addresses: [{ name: "", start: { on: "complete", fields: ["house", "town"] } }],
};
const names = ({ fields }: FormDefinition) => fields.map(({ name }) => name);

describe("editing a form", () => {
  it("adds a field behind another one, under a name that is free", () => {
    const once = addField(FORM, "text", "house");
    expect(names(once.definition)).toEqual(["house", "field", "town", "letters", "note"]);
    const twice = addField(once.definition, "text");
    expect(twice.name).toBe("field-2");
    expect(names(twice.definition).at(-1)).toBe("field-2");
    expect(names(addField(FORM, "map", "nowhere").definition).at(-1)).toBe("map");
  });

  it("moves a field, as far as there are places", () => {
    expect(names(moveField(FORM, "town", -1))).toEqual(["town", "house", "letters", "note"]);
    expect(names(moveField(FORM, "house", 9))).toEqual(["town", "letters", "note", "house"]);
    expect(moveField(FORM, "nobody", 1)).toBe(FORM);
  });

  it("puts a field before or behind another one", () => {
    expect(names(placeField(FORM, "note", "before", "town"))).toEqual(["house", "note", "town", "letters"]);
    expect(names(placeField(FORM, "house", "behind", "letters"))).toEqual(["town", "letters", "house", "note"]);
    expect(names(placeField(FORM, "house", "before", "town"))).toEqual(names(FORM));
    expect(placeField(FORM, "house", "before", "house")).toBe(FORM);
    expect(placeField(FORM, "house", "before", "nobody")).toBe(FORM);
  });

  it("renames a field in the rules that speak of it too", () => {
    const form = renameField(renameField(FORM, "town", "place"), "letters", "post");
    expect(form.addresses?.[0].start).toEqual({ on: "complete", fields: ["house", "place"] });
    expect(form.fields[3].show).toEqual({ field: "post", is: "yes" });
    expect(checkDefinition(form)).toEqual([]);
  });

  it("takes a field out of the rules that speak of it too", () => {
    expect(removeField(FORM, "town").addresses?.[0].start).toEqual({ on: "complete", fields: ["house"] });
    expect(removeField(removeField(FORM, "town"), "house").addresses).toEqual([{ name: "" }]);
    expect(removeField(FORM, "letters").fields[2]).not.toHaveProperty("show");
  });

  it("changes a rule, and forgets one that says nothing", () => {
    const form = changeRule(FORM, "", { exactness: "between", none: "Not found." });
    expect(form.addresses).toEqual([{ ...FORM.addresses![0], exactness: "between", none: "Not found." }]);
    expect(changeRule(form, "", { start: undefined, exactness: undefined, none: "" }).addresses).toEqual([]);
    expect(changeRule(FORM, "letters", { countries: ["QR"] }).addresses).toHaveLength(2);
  });

  it("leaves a sound form sound, whatever is done to it", () => {
    const step = fc.oneof(
      fc.record({ add: fc.constantFrom(...FIELD_KINDS), after: fc.nat(6) }),
      fc.record({ remove: fc.nat(6) }),
      fc.record({ move: fc.nat(6), by: fc.integer({ min: -3, max: 3 }) }),
      fc.record({ rename: fc.nat(6), to: fc.constantFrom("a", "b", "c", "d") }),
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        let form = FORM;
        for (const one of steps) {
          const at = (place: number) => form.fields[place]?.name ?? "none";
          if ("add" in one) form = addField(form, one.add, at(one.after)).definition;
          else if ("remove" in one) form = removeField(form, at(one.remove));
          else if ("move" in one) form = moveField(form, at(one.move), one.by);
          else if (!names(form).includes(one.to)) form = renameField(form, at(one.rename), one.to);
        }
        expect(checkDefinition(form)).toEqual([]);
      }),
    );
  });
});
