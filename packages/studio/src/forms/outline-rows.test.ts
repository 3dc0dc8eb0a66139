import { type Field, outlineOf } from "@bibliotope/core/form";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { aboutForm, rowsOf } from "./outline-rows.ts";

const kinds = ["text", "search", "choice", "button", "map", "still"] as const;
const fields = fc.array(fc.record({ kind: fc.constantFrom(...kinds), isHalf: fc.boolean() }), { maxLength: 20 });

describe("rows of a small picture of a form", () => {
  it("have all fields but maps and pictures, in order, and two only where both are half", () => {
    fc.assert(
      fc.property(fields, (all) => {
        const rows = rowsOf(all);
        expect(rows.flat()).toEqual(all.filter(({ kind }) => kind !== "map" && kind !== "still"));
        for (const row of rows) {
          expect(row.length).toBeLessThanOrEqual(2);
          if (row.length === 2) expect(row.every(({ isHalf }) => isHalf)).toBe(true);
        }
        // no row is left half empty for nothing
        for (const [i, row] of rows.entries())
          if (i && row[0].isHalf && rows[i - 1].length === 1) expect(rows[i - 1][0].isHalf).toBe(false);
      }),
    );
  });
});

describe("the line about a form", () => {
  const about = (list: Field[], more = {}) => aboutForm(outlineOf({ title: "", fields: list, ...more }));
  const search: Field = { name: "find", kind: "search", label: "Find" };
  const map: Field = { name: "place", kind: "map", label: "Map" };

  it.each([
    ["a search field", [search], {}, "Suggestions while typing"],
    ["a search field and a map", [search, map], {}, "Suggestions while typing, clicks on the map"],
    ["a map", [map], { addresses: [{ name: "", start: { on: "never" } }] }, "Clicks on the map"],
    [
      "code alone",
      [{ ...search, kind: "text" }],
      { addresses: [{ name: "", start: { on: "never" } }] },
      "The page's own code",
    ],
    [
      "two addresses and a service",
      [search, { ...search, name: "other", address: "other" }],
      { services: [{ ask: "courier", when: { on: "chosen" }, with: {} }] },
      "Suggestions while typing · 2 addresses · calls courier",
    ],
  ] as [string, Field[], object, string][])("names how addresses are found with %s", (_, list, more, words) => {
    expect(about(list, more)).toBe(words);
  });
});
