import { formatPattern, type Lookup, namesIn, parsePattern } from "../pattern/index.ts";
import { type AutofillValues, partLookup } from "../place/index.ts";
import type { Field, FormAnswer, FormDefinition } from "./definition.ts";

/** What a field gets from an answer. */
export interface Filling {
  field: string;
  /** Empty when the answer has nothing for it: old values must not stay. */
  value: string;
}

/** Reads an answer by name: parts (`street`, `country.code`) and facts (`position`, `lat`, `ref`, …). */
export function lookupIn(answer: FormAnswer): Lookup {
  const parts = partLookup(answer.parts);
  const facts: Record<string, string> = {
    position: `${answer.at.lat},${answer.at.lon}`,
    lat: String(answer.at.lat),
    lon: String(answer.at.lon),
    kind: answer.kind,
    exactness: answer.exactness,
    ref: answer.ref,
    line: answer.line,
  };
  return (name) => (Object.hasOwn(facts, name) ? facts[name] : parts(name));
}

/** What a place is called beside its sign on a map: its name, or street and number, without all that lies around it. */
export function shortLine({ parts, autofill, line }: Pick<FormAnswer, "parts" | "autofill" | "line">): string {
  return parts.place?.name ?? autofill["address-line1"] ?? line.split(",")[0];
}

/** The last token of an autofill attribute: `section-home shipping postal-code` asks for `postal-code`. */
function tokenOf(field: Field): keyof AutofillValues | undefined {
  return field.autofill?.trim().split(/\s+/).at(-1) as keyof AutofillValues | undefined;
}

/** True for a field that an answer may fill: a hidden or visible value with a binding or a token. */
function isFillable(field: Field): boolean {
  return (
    field.kind !== "search" &&
    field.kind !== "map" &&
    (field.binding !== undefined || ADDRESS_TOKEN.test(tokenOf(field) ?? ""))
  );
}

const ADDRESS_TOKEN = /^(street-address|address-line[1-3]|address-level[1-4]|postal-code|country|country-name)$/;

/** What every fillable field gets from an answer, in the order of the form. A pattern that cannot be read fills nothing. */
export function fillingsFor(definition: FormDefinition, answer: FormAnswer): Filling[] {
  const lookup = lookupIn(answer);
  return definition.fields.filter(isFillable).map((field) => {
    if (field.binding === undefined) return { field: field.name, value: answer.autofill[tokenOf(field)!] ?? "" };
    const parsed = parsePattern(field.binding);
    return { field: field.name, value: parsed.ok ? formatPattern(parsed.pattern, lookup) : "" };
  });
}

/**
 * The names a field draws on.
 * @param ofToken the parts that an autofill token takes in the country at hand
 */
export function effectiveBinding(field: Field, ofToken: (token: string) => readonly string[]): string[] {
  if (!isFillable(field)) return [];
  if (field.binding === undefined) return [...ofToken(tokenOf(field)!)];
  const parsed = parsePattern(field.binding);
  return parsed.ok ? [...new Set(namesIn(parsed.pattern).map((name) => name.split(".")[0]))] : [];
}
