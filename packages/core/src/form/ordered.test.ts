import { describe, expect, it } from "vitest";
import { type FormDefinition, formJson } from "./index.ts";

describe("a form as JSON for people", () => {
  const definition = {
    addresses: [{ start: { field: "look", on: "button" as const }, name: "" }],
    fields: [
      { label: "Town", show: { is: "x", field: "look" }, kind: "text" as const, binding: "{town}", name: "town" },
      { kind: "choice" as const, options: [{ label: "One", value: "1" }], name: "one", label: "One" },
    ],
    unknown: 1,
    title: "A form",
  } as FormDefinition;

  it("is the same form", () => {
    expect(JSON.parse(formJson(definition))).toEqual(definition);
  });

  it("has what says most first, and what nobody knows last", () => {
    const read = JSON.parse(formJson(definition));
    expect(Object.keys(read)).toEqual(["title", "fields", "addresses", "unknown"]);
    expect(Object.keys(read.fields[0])).toEqual(["name", "kind", "label", "binding", "show"]);
    expect(Object.keys(read.fields[0].show)).toEqual(["field", "is"]);
    expect(Object.keys(read.addresses[0].start)).toEqual(["on", "field"]);
  });
});
