import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import type { Field, FormDefinition } from "@bibliotope/core/form";
import { SAMPLE_FORMS } from "@bibliotope/islands";
import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import { Language, type Node, Parser } from "web-tree-sitter";
import { PROGRAM_LANGUAGES, type ProgramLanguage, programCode } from "./index.ts";
import { programOf, structsOf } from "./model.ts";

const SERVICE = "https://addresses.example";
const require = createRequire(import.meta.url);
const GRAMMARS = join(dirname(require.resolve("tree-sitter-wasms/package.json")), "out");
const LANGUAGES = Object.keys(PROGRAM_LANGUAGES) as ProgramLanguage[];

const parsers = new Map<string, Parser>();
beforeAll(async () => {
  await Parser.init();
  for (const language of LANGUAGES) {
    const name = language === "csharp" ? "c_sharp" : language;
    const parser = new Parser();
    parser.setLanguage(await Language.load(join(GRAMMARS, `tree-sitter-${name}.wasm`)));
    parsers.set(language, parser);
  }
});

/** Where a grammar finds fault with code, as the lines that it cannot read. */
function faultsIn(code: string, language: ProgramLanguage): string[] {
  const tree = parsers.get(language)!.parse(code)!;
  const faults: string[] = [];
  const walk = (node: Node) => {
    if (node.isError || node.isMissing)
      faults.push(`${node.startPosition.row + 1}: ${code.split("\n")[node.startPosition.row]}`);
    else if (node.hasError) for (const child of node.children) if (child) walk(child);
  };
  walk(tree.rootNode);
  tree.delete();
  return faults;
}

/** Titles, labels and names that are hard on a language. */
const AWKWARD = [
  "class",
  "def",
  "self",
  "as",
  "in",
  "x",
  "Straße",
  "名前",
  "a-b",
  "a_b",
  '"; drop',
  "*/ }",
  "$name",
  "\\u0000",
  "2nd",
  "true",
];
const field = (name: string, more: Partial<Field> = {}): Field => ({ name, label: name, kind: "text", ...more });
const PARTS = ["{street}", "{house}", "{town}", "{postcode}", "{street} {house}", "{fact.rating}"];
const definitions: fc.Arbitrary<FormDefinition> = fc
  .record({
    title: fc.oneof(fc.constantFrom(...AWKWARD), fc.string({ unit: "grapheme", maxLength: 30 })),
    fields: fc.uniqueArray(
      fc.record({
        name: fc.constantFrom(
          "class",
          "def",
          "self",
          "as",
          "in",
          "street",
          "a-b",
          "a_b",
          "A",
          "true",
          "asked",
          "call",
          "is",
        ),
        kind: fc.constantFrom(
          "text" as const,
          "search" as const,
          "map" as const,
          "country" as const,
          "button" as const,
        ),
        binding: fc.option(fc.constantFrom(...PARTS), { nil: undefined }),
        address: fc.option(fc.constantFrom("letters", "class"), { nil: undefined }),
      }),
      { selector: ({ name }) => name, maxLength: 8 },
    ),
    countries: fc.subarray(["QR", "QV"]),
  })
  .map(({ title, fields, countries }) => ({
    title,
    fields: fields.map(({ name, ...more }) => field(name, JSON.parse(JSON.stringify(more)))),
    addresses: [{ name: "", countries }],
  }));

describe("the lookups of a form in other languages", () => {
  it.each(LANGUAGES)("are code that the grammar of %s reads, for every sample form", (language) => {
    for (const { ref, definition } of SAMPLE_FORMS)
      expect(faultsIn(programCode(definition, SERVICE, language), language), ref).toEqual([]);
  });

  it.each(LANGUAGES)("would be found wrong by the grammar of %s", (language) => {
    const code = programCode(SAMPLE_FORMS[0].definition, SERVICE, language);
    for (const broken of [
      `${code}\n)))\n`,
      code.replace("class ", "class class class )").replace("type ", "type type ) "),
    ])
      expect(faultsIn(broken, language)).not.toEqual([]);
  });

  it.each(LANGUAGES)("are code in %s whatever the form is called and holds", { tags: ["long"] }, (language) => {
    fc.assert(
      fc.property(definitions, (definition) => {
        expect(faultsIn(programCode(definition, SERVICE, language), language)).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });

  it("hold no key, and take it from where keys belong", () => {
    for (const language of LANGUAGES) {
      const code = programCode(SAMPLE_FORMS[0].definition, SERVICE, language);
      expect(code, language).not.toMatch(/bt_(srv|app|web)_\w/);
      expect(code, language).toContain("Bearer");
      expect(code, language).toContain(SERVICE);
    }
  });

  it("are those that the form uses", () => {
    const plain: FormDefinition = { title: "Plain", fields: [field("town", { binding: "{town}" })] };
    expect(programOf(plain, SERVICE).calls).toEqual(["forward"]);
    const [reader] = SAMPLE_FORMS;
    expect(programOf(reader.definition, SERVICE).calls).toEqual(["suggest", "forward", "reverse", "record"]);
    const rooms = SAMPLE_FORMS.find(({ ref }) => ref === "reading-rooms")!;
    expect(programOf(rooms.definition, SERVICE).narrow).toEqual({ kinds: "place" });
    for (const language of LANGUAGES)
      expect(programCode(plain, SERVICE, language)).not.toMatch(/v1\/(suggest|reverse|records)/);
  });

  it("have the types that the service itself answers with", () => {
    const structs = structsOf(["suggest", "forward", "reverse", "record"]);
    const named = new Map(structs.map((struct) => [struct.name, struct]));
    expect([...named.keys()]).toEqual(
      expect.arrayContaining([
        "Suggestion",
        "RecordFeature",
        "RecordProperties",
        "Part",
        "Facts",
        "OwnFact",
        "Problem",
        "Position",
      ]),
    );
    const fields = Object.fromEntries(named.get("RecordProperties")!.fields.map((one) => [one.name, one]));
    expect(fields.parts.type).toEqual({ is: "map", of: { is: "struct", name: "Part" } });
    expect(fields.at).toMatchObject({ type: { is: "struct", name: "Position" }, isOptional: false });
    expect(fields.score.isOptional).toBe(true);
    expect(fields.height.isOptional).toBe(true);
    // what is used is before what uses it
    for (const { name, fields: its } of structs)
      for (const { type } of its) {
        const used = type.is === "struct" ? type.name : "of" in type && type.of.is === "struct" ? type.of.name : name;
        expect(named.has(used), `${name} uses ${used}`).toBe(true);
      }
  });
});
