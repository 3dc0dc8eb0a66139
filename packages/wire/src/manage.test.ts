import { describe, expect, it } from "vitest";
import { formDefinitionJsonSchema, formDefinitionSchema, makeKeyRequest } from "./index.ts";

describe("a new key", () => {
  it.each(["https://members.example", "http://localhost:5173", "http://localhost:*"])(
    "may name the origin %s",
    (origin) => {
      expect(makeKeyRequest.safeParse({ kind: "web", name: "Members", origins: [origin] }).success).toBe(true);
    },
  );

  it.each([
    "members.example",
    "https://members.example/",
    "https://members.example/path",
    "ftp://x",
    "*",
    "https://",
    "javascript:alert(1)",
  ])("may not name %s", (origin) => {
    expect(makeKeyRequest.safeParse({ kind: "web", name: "Members", origins: [origin] }).success).toBe(false);
  });

  it("has a kind that we know, and a name", () => {
    expect(makeKeyRequest.safeParse({ kind: "root", name: "x" }).success).toBe(false);
    expect(makeKeyRequest.safeParse({ kind: "srv", name: "  " }).success).toBe(false);
  });
});

describe("a form's definition", () => {
  const field = { name: "street", kind: "text", label: "Street" };

  it("is read as it is", () => {
    const definition = { title: "A form", fields: [{ ...field, binding: "{street} {house}", half: true }] };
    expect(formDefinitionSchema.parse(definition)).toEqual(definition);
  });

  it.each([
    [{ ...field, name: "1st" }],
    [{ ...field, name: "__proto__" }],
    [{ ...field, name: "a b" }],
    [{ ...field, label: "" }],
    [{ ...field, kind: "slider" }],
    [{ ...field, onclick: "x" }],
    [{ ...field, binding: "x".repeat(301) }],
  ])("is refused with a field that is wrong (%#)", (wrong) => {
    expect(formDefinitionSchema.safeParse({ title: "A form", fields: [wrong] }).success).toBe(false);
  });

  it("is refused without a title, and with too many fields", () => {
    expect(formDefinitionSchema.safeParse({ title: " ", fields: [] }).success).toBe(false);
    expect(
      formDefinitionSchema.safeParse({
        title: "x",
        fields: Array.from({ length: 61 }, (_, i) => ({ ...field, name: `f${i}` })),
      }).success,
    ).toBe(false);
  });
});

describe("a form's definition as JSON Schema", () => {
  it("is of 2020-12 and names what is needed", () => {
    const schema = formDefinitionJsonSchema() as {
      $schema: string;
      $ref: string;
      $defs: Record<string, { required: string[] }>;
    };
    expect(schema.$schema).toBe("https://json-schema.org/draft/2020-12/schema");
    expect(schema.$ref).toBe("#/$defs/FormDefinition");
    expect(schema.$defs.FormDefinition.required).toEqual(["title", "fields"]);
    expect(schema.$defs.FormField.required).toEqual(["name", "kind", "label"]);
  });

  it("takes rules of addresses, and refuses what no rule can be", () => {
    const form = (rule: object) => formDefinitionSchema.safeParse({ title: "A form", fields: [], addresses: [rule] });
    const rules = [
      { name: "" },
      { name: "letters", start: { on: "complete", fields: ["house", "street"] }, exactness: "between" },
      { name: "", start: { on: "never" }, kinds: ["place"], countries: ["QR"], takeFrom: 0.9, countryFirst: true },
    ];
    for (const rule of rules) expect(form(rule).success).toBe(true);
    const wrong = [
      { name: "a b" },
      { name: "", start: { on: "hover" } },
      { name: "", start: { on: "button" } },
      { name: "", takeFrom: 0 },
      { name: "", countries: ["Lorramere"] },
      { name: "", unknown: 1 },
    ];
    for (const rule of wrong) expect(form(rule).success, JSON.stringify(rule)).toBe(false);
  });
});
