import { describe, expect, it } from "vitest";
import { compareForms, type FormDefinition } from "./index.ts";

const FORM: FormDefinition = {
  title: "A form",
  fields: [
    { name: "a", kind: "text", label: "A" },
    { name: "b", kind: "text", label: "B", required: true },
    { name: "c", kind: "text", label: "C" },
  ],
};
const said = (after: FormDefinition) =>
  compareForms(FORM, after).map(
    ({ field, kind, what, before, after: now }) => `${field} ${kind} ${what} ${before}>${now}`,
  );

describe("compareForms", () => {
  it("says nothing of the same form", () => {
    expect(said(structuredClone(FORM))).toEqual([]);
  });

  it("names fields that came, went and moved, each once", () => {
    const [a, b, c] = FORM.fields;
    expect(said({ ...FORM, fields: [c, a, { name: "d", kind: "map", label: "D" }] })).toEqual([
      "b removed  B>",
      "a moved  A>A",
      "d added  >D",
    ]);
    expect(said({ ...FORM, fields: [b, a, c] })).toHaveLength(1);
  });

  it("names what changed in a field, in the form and in its rules", () => {
    const [a, b, c] = FORM.fields;
    const after: FormDefinition = {
      title: "Another form",
      fields: [{ ...a, binding: "{town}" }, { name: "b", kind: "text", label: "B" }, c],
      addresses: [
        { name: "", none: "Nothing." },
        { name: "letters", takeFrom: 0.9 },
      ],
    };
    expect(said(after)).toEqual([
      " changed title A form>Another form",
      "a changed binding >{town}",
      "b changed required yes>",
      " changed none >Nothing.",
      " changed letters: takeFrom >0.9",
    ]);
    expect(b.required).toBe(true);
  });
});
