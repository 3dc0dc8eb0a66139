import { type FormDefinition, type FormUse, ruleOf, usesOf } from "@bibliotope/core/form";
import { answerSchemas } from "@bibliotope/wire";
import { type ServerLookup, serverLookups } from "../calls.ts";

/** What a value is, in any language. */
export type TypeOf =
  | { is: "text" | "number" | "integer" | "yesNo" | "any" }
  | { is: "list" | "map"; of: TypeOf }
  | { is: "struct"; name: string };

export interface FieldOf {
  /** As the wire has it. */
  name: string;
  type: TypeOf;
  isOptional: boolean;
  words?: string;
}

/** A type of what is answered. */
export interface Struct {
  name: string;
  words?: string;
  fields: FieldOf[];
}

/** Lookups that programs have, by their calls. */
const PROGRAM_CALLS = ["suggest", "forward", "reverse", "record"] as const;
export type ProgramCall = (typeof PROGRAM_CALLS)[number];

/** What a program for a form is written from. */
export interface Program {
  title: string;
  /** Origin of the service. */
  service: string;
  calls: readonly ProgramCall[];
  /** What its lookups are narrowed to, as they stand in a query string. */
  narrow: Readonly<Record<string, string>>;
  /** Its addresses as a back end can look them up. */
  lookups: readonly (ServerLookup & { name: string })[];
  structs: readonly Struct[];
}

const USES: Readonly<Record<ProgramCall, FormUse>> = {
  suggest: "suggest",
  forward: "forward",
  reverse: "reverse",
  record: "records",
};
/** What no program needs: how each word was read, and what is elsewhere in the same answer. */
const LEFT_OUT: ReadonlySet<string> = new Set([
  "gloss",
  "reading",
  "geometry",
  "RecordFeature.type",
  "bbox",
  "$schema",
]);

/** The program of a form: the lookups that it uses, and the types of what they answer. @param service origin of the service */
export function programOf(definition: FormDefinition, service: string): Program {
  const uses = new Set<FormUse>(usesOf(definition));
  const calls = PROGRAM_CALLS.filter((call) => uses.has(USES[call]));
  const { countries, kinds } = ruleOf(definition, "");
  const all = serverLookups(definition);
  return {
    title: definition.title,
    service,
    // a form without any lookup still shows how one is made
    calls: calls.length ? calls : ["forward"],
    narrow: {
      ...(countries?.length ? { countries: countries.join(",") } : {}),
      ...(kinds?.length ? { kinds: kinds.join(",") } : {}),
    },
    lookups: all.map((one) => ({ ...one, name: one.address || "address" })),
    structs: structsOf(calls.length ? calls : ["forward"]),
  };
}

type Schema = Readonly<Record<string, unknown>> & {
  type?: string | string[];
  properties?: Record<string, Schema>;
  required?: string[];
  items?: Schema;
  additionalProperties?: Schema | boolean;
  description?: string;
  $ref?: string;
  $defs?: Record<string, Schema>;
};

/** The types of what some calls answer, from the schemas that the service itself is made of; what is used before what uses it. */
export function structsOf(calls: readonly ProgramCall[]): Struct[] {
  const schemas = answerSchemas(calls) as Schema;
  const structs = new Map<string, Struct>();
  const add = (name: string, { properties = {}, required = [], description }: Schema) => {
    if (structs.has(name)) return;
    const struct: Struct = { name, fields: [], ...(description ? { words: description } : {}) };
    const fields = Object.entries(properties).flatMap(([field, schema]): FieldOf[] => {
      if (LEFT_OUT.has(field) || LEFT_OUT.has(`${name}.${field}`) || (field === "type" && name.endsWith("Answer")))
        return [];
      const words = schema.description;
      const isNullable = Array.isArray(schema.type) && schema.type.includes("null");
      return [
        {
          name: field,
          type: typeOf(schema, field),
          isOptional: isNullable || !required.includes(field),
          ...(words ? { words } : {}),
        },
      ];
    });
    // what must be there comes first: some languages want that
    struct.fields = [
      ...fields.filter(({ isOptional }) => !isOptional),
      ...fields.filter(({ isOptional }) => isOptional),
    ];
    structs.set(name, struct);
  };
  const typeOf = (schema: Schema, field: string): TypeOf => {
    if (schema.$ref) {
      const name = schema.$ref.split("/").at(-1)!;
      add(name, schemas.$defs![name]);
      return { is: "struct", name };
    }
    const type = [schema.type].flat().find((one) => one !== "null");
    if (type === "string") return { is: "text" };
    if (type === "number" || type === "integer") return { is: type === "number" ? "number" : "integer" };
    if (type === "boolean") return { is: "yesNo" };
    if (type === "array")
      return { is: "list", of: schema.items ? typeOf(schema.items, singular(field)) : listed(schema) };
    if (type !== "object") return { is: "any" };
    if (schema.properties) {
      const name = "lat" in schema.properties && "lon" in schema.properties ? "Position" : pascal(field);
      add(name, schema);
      return { is: "struct", name };
    }
    const of = schema.additionalProperties;
    return { is: "map", of: typeof of === "object" ? typeOf(of, MEMBERS[field] ?? singular(field)) : { is: "any" } };
  };
  for (const [name, schema] of Object.entries(schemas.properties ?? {})) {
    const resolved = schema.$ref ? schemas.$defs![schema.$ref.split("/").at(-1)!] : schema;
    add(name, resolved);
  }
  return [...structs.values()];
}

/** What the members of a map are called, where its name does not say. */
const MEMBERS: Readonly<Record<string, string>> = { own: "ownFact", parts: "part" };

/** A pair or a box: numbers one behind the other. */
const listed = ({ prefixItems }: Schema): TypeOf => {
  const [first] = (prefixItems ?? []) as Schema[];
  return { is: first?.type === "integer" ? "integer" : "number" };
};

const singular = (name: string) => (name === "openingHours" ? name : name.replace(/s$/, ""));

export const pascal = (name: string) =>
  name.replace(/(?:^|[^A-Za-z0-9]+)([A-Za-z0-9])/g, (_, letter: string) => letter.toUpperCase());
export const camel = (name: string) => pascal(name).replace(/^[A-Z]/, (letter) => letter.toLowerCase());
export const snake = (name: string) =>
  camel(name)
    .replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`)
    .replace(/^_/, "");

/** A text as most languages write it between double quotes. */
export const quoted = (text: string) =>
  JSON.stringify(text).replace(/[$\u0080-\uffff]/g, (unit) => (unit === "$" ? "\\u0024" : unit));
/** Text within a comment of one line. */
export const commented = (text: string) => text.replace(/\s+/g, " ").replace(/\*\//g, "* /").slice(0, 200);

/** Names of a form's fields as parameters, each once, and the address part each is looked up as. */
export function parametersOf({ lookups }: ServerLookup, named: (name: string) => string) {
  const names = [...new Set(lookups.flatMap(([, fields]) => fields))];
  const taken = new Map<string, string>();
  for (const name of names) {
    let own = named(name) || "value";
    while ([...taken.values()].includes(own)) own += "2";
    taken.set(name, own);
  }
  return {
    parameters: [...taken.values()],
    lookups: lookups.map(([part, fields]) => ({ part, parameters: fields.map((field) => taken.get(field)!) })),
  };
}

/** What a language calls plain values. */
type PlainNames = Readonly<Record<"text" | "number" | "integer" | "yesNo" | "any", string>>;

/** Writes types as a language does. */
export function typeWriter(plain: PlainNames, list: (of: string) => string, map: (of: string) => string) {
  return function write(type: TypeOf): string {
    if (type.is === "struct") return type.name;
    if (type.is === "list") return list(write(type.of));
    return type.is === "map" ? map(write(type.of)) : plain[type.is];
  };
}

/**
 * Writes names as a language does.
 * @param kept words that the language keeps for itself, with spaces between
 * @param otherwise a kept word as a name all the same
 */
export function nameWriter(style: (name: string) => string, kept: string, otherwise: (name: string) => string) {
  const words = new Set(kept.split(" "));
  return (name: string): string => {
    const plain = style(name);
    if (words.has(plain)) return otherwise(plain);
    return /^[A-Za-z_]/.test(plain) ? plain : style(`value ${name}`);
  };
}
