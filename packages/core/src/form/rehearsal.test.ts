import { describe, expect, it } from "vitest";
import type { FormDefinition } from "./definition.ts";
import { changedFields, type RehearsalStep, stepWords, withStep } from "./rehearsal.ts";

const FORM: FormDefinition = {
  title: "A form",
  fields: [
    { name: "find", kind: "search", label: "Find it" },
    { name: "street", kind: "text", label: "Street" },
    { name: "kind", kind: "choice", label: "What it is", options: [{ value: "b", label: "A bench" }] },
    { name: "ask", kind: "button", label: "Look up" },
  ],
};

describe("steps of a person", () => {
  const all = (steps: RehearsalStep[]) => steps.reduce<RehearsalStep[]>(withStep, []);
  const type = (field: string, text: string): RehearsalStep => ({ do: "type", field, text });

  it("are one step for all letters typed into a field", () => {
    expect(all([type("find", "1"), type("find", "12"), type("find", "12 "), type("street", "x")])).toEqual([
      type("find", "12 "),
      type("street", "x"),
    ]);
  });

  it("keep that a field was emptied in between, since that clears what it filled", () => {
    const steps = [type("find", "12"), type("find", ""), type("find", "7")];
    expect(all(steps)).toEqual([type("find", ""), type("find", "7")]);
    expect(all([{ do: "take", field: "find", line: "12 A Street" }, ...steps.slice(1)])).toHaveLength(3);
  });

  it("keep the last of what was chosen in one list, and each place on the map", () => {
    const select = (value: string): RehearsalStep => ({ do: "select", field: "kind", value });
    const point = (lat: number): RehearsalStep => ({ do: "point", at: { lat, lon: 0 } });
    expect(all([select("a"), select("b"), point(1), point(2)])).toEqual([select("b"), point(1), point(2)]);
  });

  it.each<[RehearsalStep, string]>([
    [type("find", "12 harb"), "Type “12 harb” into Find it"],
    [type("find", ""), "Empty Find it"],
    [{ do: "leave", field: "street" }, "Leave Street"],
    [{ do: "take", field: "find", line: "12 A Street" }, "Choose “12 A Street” from the suggestions of Find it"],
    [{ do: "select", field: "kind", value: "b" }, "Choose “A bench” in What it is"],
    [{ do: "press", field: "ask" }, "Click Look up"],
    [{ do: "choose", address: "", line: "12 B Street" }, "Choose “12 B Street” from the matches"],
    [{ do: "keep", address: "" }, "Use what was typed"],
    [{ do: "point", at: { lat: -35.2, lon: -21.123456 } }, "Click -35.20000, -21.12346 on the map"],
    [{ do: "press", field: "gone" }, "Click gone"],
  ])("are told in words: %j", (step, words) => {
    expect(stepWords(step, FORM)).toBe(words);
  });
});

describe("what is expected", () => {
  it("is compared field by field, in the order of the form", () => {
    const expected = { gone: "x", street: "A Street", find: "12 A Street", kind: "" };
    expect(changedFields(FORM, expected, { find: "7 A Street", street: "", kind: "" })).toEqual([
      { field: "find", expected: "12 A Street", found: "7 A Street" },
      { field: "street", expected: "A Street", found: "" },
      { field: "gone", expected: "x", found: undefined },
    ]);
    expect(changedFields(FORM, { street: "A" }, { street: "A", kind: "new" })).toEqual([]);
  });
});
