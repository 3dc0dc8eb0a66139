import type { Position } from "../geo/index.ts";
import { namesIn, parsePattern } from "../pattern/index.ts";
import {
  type AutofillValues,
  type Exactness,
  type Facts,
  type Kind,
  PARTS,
  type PartName,
  type Parts,
} from "../place/index.ts";

/**
 * Kinds of field. `search` asks while the person types, `button` looks up what the fields say, `map` shows and takes a
 * position, `still` is a picture of the place, `hidden` is never seen, `shown` is only seen and never sent, `distance` is
 * how far the form's two addresses are from each other.
 */
export const FIELD_KINDS = [
  "text",
  "search",
  "country",
  "choice",
  "button",
  "hidden",
  "still",
  "map",
  "shown",
  "distance",
] as const;
export type FieldKind = (typeof FIELD_KINDS)[number];

/**
 * What a button does: looks up what the fields say; asks where the device is, and offers the address there; or exchanges
 * the form's two addresses.
 */
export const BUTTON_TASKS = ["look", "locate", "exchange"] as const;
export type ButtonTask = (typeof BUTTON_TASKS)[number];

/** What the name of a field looks like. */
export const FIELD_NAME = /^[A-Za-z][\w-]{0,39}$/;

/** A field of a form. */
export interface Field {
  /** Name under which it is sent; one field to a name. */
  name: string;
  kind: FieldKind;
  label: string;
  /** Token of the HTML standard's autofill section, such as `postal-code`. Fills the field when nothing is bound. */
  autofill?: string;
  /** Name of the address that it is of, where a form has several; else the section of its token, else the first. */
  address?: string;
  /** Pattern of what it is filled with: `{town}`, `{street} {house}[, {unit}]`. */
  binding?: string;
  placeholder?: string;
  help?: string;
  required?: boolean;
  /** Two half fields stand side by side. */
  half?: boolean;
  /** A map offers the ground in relief. */
  relief?: boolean;
  /** A map opens over the form by a button, and fills it on Done alone. */
  opens?: boolean;
  /** What a choice offers. */
  options?: Option[];
  /** What a button does; it looks up what the fields say when not given. */
  task?: ButtonTask;
  /** When it is shown; always when not given. */
  show?: Show;
}

/** One of the values of a choice. */
export interface Option {
  value: string;
  label: string;
}

/**
 * When a field is shown: `filled` once there is something in it to edit; `locked` shown but not to be edited until a
 * lookup was made; or while another field has a value, or just this one.
 */
export type Show = "filled" | "locked" | { field: string; is?: string };

/**
 * What starts a lookup: a line chosen from a search field's list; a button; leaving a field that was changed; some
 * fields being complete, and again when one of them changes; or nothing but the page's own code, map and position.
 */
export type Start =
  | { on: "choice" }
  | { on: "button"; field: string }
  | { on: "leaving"; field: string }
  | { on: "complete"; fields: string[] }
  | { on: "never" };

/** How one of a form's addresses is looked up, and what happens afterwards. */
export interface AddressRule {
  /** Empty for the first one; else as in the token `section-NAME`. */
  name: string;
  /** Its search field's list, else leaving its first bound field, when not given. */
  start?: Start;
  /** Only these kinds of record, such as `["place"]`. */
  kinds?: Kind[];
  /** Only these countries, by code. */
  countries?: string[];
  /** Words when nothing is found. */
  none?: string;
  /** Of several that fit the person chooses, unless the first one's score is at least this, above 0 to 1. */
  takeFrom?: number;
  /**
   * Parts that may differ from what the person wrote without asking them; it is filled, with a word, and not confirmed
   * before they agree. The postcode when not given.
   */
  mayDiffer?: PartName[];
  /** The least exactness that will do; what is less exact is filled, and said. */
  exactness?: Exactness;
  /** A position is taken as it is, wherever it lies; the nearest address only stands beside it. */
  anywhere?: boolean;
  /** Words for a place, such as `reading room`: the nearest one is told by the facts `nearby` and `away`. */
  nearby?: string;
  /** The country is asked first, and decides labels, order and shape of the other fields. */
  countryFirst?: boolean;
}

/** A form: what is asked, and what addresses fill. */
export interface FormDefinition {
  title: string;
  intro?: string;
  /** Words on the button that sends it. */
  submit?: string;
  fields: Field[];
  /** Rules of its addresses; one without a rule goes by what is said there. */
  addresses?: AddressRule[];
}

/** What an answer of the wire gives to a form. */
export interface FormAnswer {
  ref: string;
  kind: Kind;
  exactness: Exactness;
  at: Position;
  line: string;
  /** Lines of an envelope. */
  lines?: string[];
  parts: Parts;
  autofill: AutofillValues;
  facts?: Facts;
  /** Metres above the sea, where it was asked for. */
  height?: number;
  /** The nearest of the places that were asked for, and how far it is. */
  nearby?: { name: string; metres: number };
}

/** What is wrong with a definition, and where. */
export interface FormIssue {
  field: string;
  message: string;
}

/** Facts of an answer that a pattern may name beside the parts. */
export const FACTS = [
  "position",
  "lat",
  "lon",
  "kind",
  "exactness",
  "ref",
  "line",
  "lines",
  "confirmed",
  "height",
  "nearby",
  "away",
  "hours",
  "phone",
  "url",
  "languages",
  "stepfree",
] as const;

const KNOWN: ReadonlySet<string> = new Set([...PARTS, ...FACTS]);
const FORMS: ReadonlySet<string> = new Set(["name", "abbr", "code", "ref"]);

/**
 * Finds what would go wrong when a form is used: names given twice, patterns that cannot be read or name nothing known,
 * rules that speak of fields or addresses that are not there.
 */
export function checkDefinition(definition: FormDefinition): FormIssue[] {
  const names = new Set(definition.fields.map(({ name }) => name));
  return [
    ...twice(definition.fields.map(({ name }) => name)).map((name) => issue(name, `two fields are named “${name}”`)),
    ...definition.fields.flatMap((field) => checkField(field, names)),
    ...twice((definition.addresses ?? []).map(({ name }) => name)).map((name) =>
      issue("", `two rules are of the address “${name}”`),
    ),
    ...(definition.addresses ?? []).flatMap((rule) => checkRule(rule, definition)),
  ];
}

const issue = (field: string, message: string): FormIssue => ({ field, message });

function twice(names: readonly string[]): string[] {
  return [...new Set(names.filter((name, i) => names.indexOf(name) !== i))];
}

function checkField({ name, kind, binding, show, options }: Field, names: ReadonlySet<string>): FormIssue[] {
  const issues: FormIssue[] = [];
  if (kind === "choice" && !options?.length) issues.push(issue(name, "a choice needs something to choose from"));
  if (typeof show === "object") {
    if (!names.has(show.field)) issues.push(issue(name, `it is shown by “${show.field}”, which is no field`));
    else if (show.field === name) issues.push(issue(name, "it cannot be shown by its own value"));
  }
  if (binding === undefined) return issues;
  const parsed = parsePattern(binding);
  if (!parsed.ok) return [...issues, issue(name, `column ${parsed.error.column}: ${parsed.error.message}`)];
  for (const asked of namesIn(parsed.pattern)) {
    const [part, form] = asked.split(".");
    if (!KNOWN.has(part)) issues.push(issue(name, `no part or fact is named “${part}”`));
    else if (form && !FORMS.has(form)) issues.push(issue(name, `a part has no “${form}”`));
  }
  return issues;
}

function checkRule({ name, start, countryFirst }: AddressRule, { fields }: FormDefinition): FormIssue[] {
  const of = name ? `the address “${name}”` : "the address";
  const kindOf = (wanted: string) => fields.find((field) => field.name === wanted)?.kind;
  const needed = start && "fields" in start ? start.fields : start && "field" in start ? [start.field] : [];
  const issues = needed
    .filter((wanted) => kindOf(wanted) === undefined)
    .map((wanted) => issue(wanted, `${of} is looked up by “${wanted}”, which is no field`));
  if (start?.on === "complete" && !start.fields.length)
    issues.push(issue("", `${of} is looked up when fields are complete, and none is named`));
  if (start?.on === "button" && kindOf(start.field) !== "button")
    issues.push(issue(start.field, `${of} is looked up by a button, and “${start.field}” is none`));
  if (countryFirst && !fields.some((field) => field.kind === "country" && addressOf(field) === name))
    issues.push(issue("", `${of} asks for the country first, and has no country field`));
  return issues;
}

/**
 * Name of the address that a field is of; empty for the first. Without a name of its own: the section of its token, or
 * whether that is for billing or shipping (HTML standard, autofill).
 */
export function addressOf({ address, autofill = "" }: Pick<Field, "address" | "autofill">): string {
  if (address !== undefined) return address;
  const section = /(?:^|\s)section-(\S+)/.exec(autofill)?.[1];
  const group = /(?:^|\s)(billing|shipping)\s/.exec(autofill)?.[1];
  return section ?? group ?? "";
}

/** The most fields that a form has. */
export const MOST_FIELDS = 60;

/** True for a field that is of both addresses of a form. */
export function isOfBoth({ kind, task }: Field): boolean {
  return kind === "distance" || (kind === "button" && task === "exchange");
}

/** Names of a form's addresses, in the order of their fields; one at least. */
export function addressesOf({ fields }: FormDefinition): string[] {
  const names = fields.filter(
    (field) => !isOfBoth(field) && (field.kind !== "text" || field.binding || field.autofill),
  );
  return names.length ? [...new Set(names.map(addressOf))] : [""];
}

/** The rule of an address; an empty one where none is given. */
export function ruleOf({ addresses }: FormDefinition, name: string): AddressRule {
  return addresses?.find((rule) => rule.name === name) ?? { name };
}
