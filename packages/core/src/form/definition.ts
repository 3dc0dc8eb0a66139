import type { Position } from "../geo/index.ts";
import { namesIn, parsePattern } from "../pattern/index.ts";
import { type AutofillValues, type Exactness, type Kind, PARTS, type Parts } from "../place/index.ts";

/** Kinds of field. `search` asks while the person types, `map` shows and takes a position, `hidden` is never seen. */
export const FIELD_KINDS = ["text", "search", "country", "hidden", "map"] as const;
export type FieldKind = (typeof FIELD_KINDS)[number];

/** A field of a form. */
export interface Field {
  /** Name under which it is sent; one field to a name. */
  name: string;
  kind: FieldKind;
  label: string;
  /** Token of the HTML standard's autofill section, such as `postal-code`. Fills the field when nothing is bound. */
  autofill?: string;
  /** Pattern of what it is filled with: `{town}`, `{street} {house}[, {unit}]`. */
  binding?: string;
  placeholder?: string;
  help?: string;
  required?: boolean;
  /** Two half fields stand side by side. */
  half?: boolean;
}

/** A form: what is asked, and what an address fills. */
export interface FormDefinition {
  title: string;
  intro?: string;
  /** Words on the button that sends it. */
  submit?: string;
  fields: Field[];
}

/** What an answer of the wire gives to a form. */
export interface FormAnswer {
  ref: string;
  kind: Kind;
  exactness: Exactness;
  at: Position;
  line: string;
  parts: Parts;
  autofill: AutofillValues;
}

/** What is wrong with a definition, and where. */
export interface FormIssue {
  field: string;
  message: string;
}

/** Facts of an answer that a pattern may name beside the parts. */
export const FACTS = ["position", "lat", "lon", "kind", "exactness", "ref", "line"] as const;

const KNOWN: ReadonlySet<string> = new Set([...PARTS, ...FACTS]);
const FORMS: ReadonlySet<string> = new Set(["name", "abbr", "code", "ref"]);

/** Finds what would go wrong when a form is filled: names given twice, patterns that cannot be read or name nothing known. */
export function checkDefinition(definition: FormDefinition): FormIssue[] {
  const issues: FormIssue[] = [];
  const seen = new Set<string>();
  for (const field of definition.fields) {
    if (seen.has(field.name)) issues.push({ field: field.name, message: `two fields are named “${field.name}”` });
    seen.add(field.name);
    if (field.binding === undefined) continue;
    const parsed = parsePattern(field.binding);
    if (!parsed.ok) {
      issues.push({ field: field.name, message: `column ${parsed.error.column}: ${parsed.error.message}` });
      continue;
    }
    for (const name of namesIn(parsed.pattern)) {
      const [part, form] = name.split(".");
      if (!KNOWN.has(part)) issues.push({ field: field.name, message: `no part or fact is named “${part}”` });
      else if (form && !FORMS.has(form)) issues.push({ field: field.name, message: `a part has no “${form}”` });
    }
  }
  return issues;
}
