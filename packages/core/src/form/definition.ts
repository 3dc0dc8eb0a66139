import type { Position } from "../geo/index.ts";
import { type PictureTiles, pictureUrlTrouble } from "../map/picture-tiles.ts";
import { namesIn, parsePattern } from "../pattern/index.ts";
import {
  type AutofillValues,
  type Continent,
  type Exactness,
  FACT_NAME,
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
 * the form's two addresses; or asks an outside service, as its rule requires.
 */
export const BUTTON_TASKS = ["look", "locate", "exchange", "ask"] as const;
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
  /** Name of the address that it is of, where a form has several; else the section of the token, else the first. */
  address?: string;
  /** Pattern of what it is filled with: `{town}`, `{street} {house}[, {unit}]`. */
  binding?: string;
  placeholder?: string;
  help?: string;
  required?: boolean;
  /** Two half fields are side by side. */
  half?: boolean;
  /** A map offers the ground in relief. */
  relief?: boolean;
  /** A map opens over the form by a button, and fills it on Done alone. */
  opens?: boolean;
  /** A map offers these pictures in place of its own styles, and shows them first. */
  pictures?: PictureTiles;
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
   * Parts that may differ from what the person wrote: the record is filled with a message, and counts as confirmed once the person
   * agrees. The postcode when not given.
   */
  mayDiffer?: PartName[];
  /** The least exactness that will do; what is less exact is filled, and said. */
  exactness?: Exactness;
  /** A position is taken as it is, wherever it lies; the nearest address only is next to it. */
  anywhere?: boolean;
  /** Words for a place, such as `reading room`: the nearest one is in the facts `nearby` and `away`. */
  nearby?: string;
  /** The country is chosen first, and decides labels, order and shape of the other fields. */
  countryFirst?: boolean;
}

/**
 * When a service is called: an address was chosen; a field that was changed was left; a button was pressed; some fields are complete,
 * and again when one of them changes; or another service has answered.
 */
export type ServiceStart =
  | { on: "chosen" }
  | { on: "leaving"; field: string }
  | { on: "button"; field: string }
  | { on: "complete"; fields: string[] }
  | { on: "answered"; service: string };

/** What is done with an address that a register knows in another form. */
export const REGISTER_WAYS = ["take", "ask", "note"] as const;
export type RegisterWay = (typeof REGISTER_WAYS)[number];

/** When a form asks an outside service, and with what. Fields get its values by their patterns: `{courier.days}`. */
export interface ServiceRule {
  /** Name of the service. */
  ask: string;
  /** What people know it as, such as `the courier`; its name when not given. */
  called?: string;
  when: ServiceStart;
  /** The address whose parts go into its inputs, and with which its values fall; the first when not given. */
  address?: string;
  /** A pattern for each of the inputs: parts and facts of the address, values of another service, `{field.seats}`. */
  with: Record<string, string>;
  /** It is a register and confirms the address; in another form, that is taken, asked about, or only noted. */
  register?: RegisterWay;
  /** Name of a value that is a line: it is drawn on the form's map beside the straight one, with these words at it, a pattern. */
  draws?: { line: string; words?: string };
}

/** A form: what is requested, and what addresses fill. */
export interface FormDefinition {
  title: string;
  intro?: string;
  /** Words on the button that sends it. */
  submit?: string;
  fields: Field[];
  /** Rules of the addresses; one without a rule goes by what is said there. */
  addresses?: AddressRule[];
  /** Outside services that it asks. */
  services?: ServiceRule[];
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
  continent?: Continent;
  /** Metres above the sea, where it was requested and is known. */
  height?: number | null;
  /** The nearest of the places that were requested, and how far it is. */
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
  "continent",
] as const;

const KNOWN: ReadonlySet<string> = new Set([...PARTS, ...FACTS]);
/** A name that a pattern gives to a fact of the data's own: `{fact.rating}`. */
const isOwnFact = (name: string) => name.startsWith("fact.") && FACT_NAME.test(name.slice("fact.".length));
/** What a register's answer contains beyond its values: the state, and when it was requested. */
export const REGISTER_FACTS = ["standing", "asked"] as const;
/** True for the name of a part or a fact, which no service may have. */
const isPartOrFact = (name: string) => KNOWN.has(name.split(".")[0]) || name === "fact" || name === "field";

const FORMS: ReadonlySet<string> = new Set(["name", "abbr", "code", "ref"]);

/**
 * Finds what would go wrong when a form is used: names given twice, patterns that cannot be read or name nothing known,
 * rules that speak of fields or addresses that are not there.
 */
export function checkDefinition(definition: FormDefinition): FormIssue[] {
  const names = new Set(definition.fields.map(({ name }) => name));
  return [
    ...twice(definition.fields.map(({ name }) => name)).map((name) => issue(name, `two fields are named “${name}”`)),
    ...definition.fields.flatMap((field) => checkField(field, names, servicesOf(definition))),
    ...twice((definition.addresses ?? []).map(({ name }) => name)).map((name) =>
      issue("", `two rules are for the address “${name}”`),
    ),
    ...(definition.addresses ?? []).flatMap((rule) => checkRule(rule, definition)),
    ...(definition.services ?? []).flatMap((rule) => checkServiceRule(rule, definition)),
  ];
}

const issue = (field: string, message: string): FormIssue => ({ field, message });

function twice(names: readonly string[]): string[] {
  return [...new Set(names.filter((name, i) => names.indexOf(name) !== i))];
}

const servicesOf = ({ services = [] }: FormDefinition): ReadonlySet<string> => new Set(services.map(({ ask }) => ask));

function checkField(
  { name, kind, binding, show, options, pictures }: Field,
  names: ReadonlySet<string>,
  services: ReadonlySet<string>,
): FormIssue[] {
  const issues: FormIssue[] = [];
  // a list that a service answers is chosen from
  if (kind === "choice" && !options?.length && !binding) issues.push(issue(name, "a choice needs options"));
  if (pictures && kind !== "map") issues.push(issue(name, "only a map can have its own tiles"));
  const trouble = pictures && pictureUrlTrouble(pictures.url);
  if (trouble) issues.push(issue(name, `the URL of its tiles ${trouble}`));
  if (typeof show === "object") {
    if (!names.has(show.field))
      issues.push(issue(name, `its visibility depends on “${show.field}”, which is not a field`));
    else if (show.field === name) issues.push(issue(name, "its visibility cannot depend on its own value"));
  }
  if (binding === undefined) return issues;
  const parsed = parsePattern(binding);
  if (!parsed.ok) return [...issues, issue(name, `column ${parsed.error.column}: ${parsed.error.message}`)];
  for (const pattern of namesIn(parsed.pattern)) {
    const [part, form] = pattern.split(".");
    if (isOwnFact(pattern)) continue;
    if (services.has(part)) {
      if (!form) issues.push(issue(name, `a value of “${part}” is named too: {${part}.days}`));
    } else if (!KNOWN.has(part)) issues.push(issue(name, `there is no address part or attribute “${part}”`));
    else if (form && !FORMS.has(form)) issues.push(issue(name, `an address part has no “${form}”`));
  }
  return issues;
}

function checkRule({ name, start, countryFirst }: AddressRule, { fields }: FormDefinition): FormIssue[] {
  const of = name ? `the address “${name}”` : "the address";
  const kindOf = (wanted: string) => fields.find((field) => field.name === wanted)?.kind;
  const needed = start && "fields" in start ? start.fields : start && "field" in start ? [start.field] : [];
  const issues = needed
    .filter((wanted) => kindOf(wanted) === undefined)
    .map((wanted) => issue(wanted, `${of} is looked up by “${wanted}”, which is not a field`));
  if (start?.on === "complete" && !start.fields.length)
    issues.push(issue("", `${of} is looked up when fields are filled in, but none is named`));
  if (start?.on === "button" && kindOf(start.field) !== "button")
    issues.push(issue(start.field, `${of} is looked up by a button, but “${start.field}” is not one`));
  if (countryFirst && !fields.some((field) => field.kind === "country" && addressOf(field) === name))
    issues.push(issue("", `${of} asks for the country first, but has no country field`));
  return issues;
}

function checkServiceRule(
  { ask, when, address = "", with: inputs }: ServiceRule,
  definition: FormDefinition,
): FormIssue[] {
  const of = `the service “${ask}”`;
  const services = servicesOf(definition);
  const kindOf = (wanted: string) => definition.fields.find((field) => field.name === wanted)?.kind;
  const needed = "fields" in when ? when.fields : "field" in when ? [when.field] : [];
  const issues = needed
    .filter((wanted) => kindOf(wanted) === undefined)
    .map((wanted) => issue(wanted, `${of} is called by “${wanted}”, which is not a field`));
  if (!/^[a-z]{1,30}$/.test(ask)) issues.push(issue("", `“${ask}” is not a service name: use lowercase letters only`));
  if (isPartOrFact(ask))
    issues.push(issue("", `“${ask}” is the name of an address part or attribute, so a service cannot have it`));
  if (when.on === "complete" && !when.fields.length)
    issues.push(issue("", `${of} is called when fields are filled in, but none is named`));
  if (when.on === "button" && kindOf(when.field) !== undefined && kindOf(when.field) !== "button")
    issues.push(issue(when.field, `${of} is called by a button, but “${when.field}” is not one`));
  if (when.on === "answered" && (!services.has(when.service) || when.service === ask))
    issues.push(issue("", `${of} is called when “${when.service}” has answered, but the form does not call that`));
  if (!addressesOf(definition).includes(address))
    issues.push(issue("", `${of} is called with the address “${address}”, which the form does not have`));
  for (const [input, pattern] of Object.entries(inputs)) {
    const parsed = parsePattern(pattern);
    if (!parsed.ok) {
      issues.push(issue("", `${of}, ${input}: column ${parsed.error.column}: ${parsed.error.message}`));
      continue;
    }
    for (const name of namesIn(parsed.pattern)) {
      const [part, rest] = name.split(".", 2);
      if (isOwnFact(name)) continue;
      if (
        part === "field" ? kindOf(name.slice("field.".length)) === undefined : !services.has(part) && !KNOWN.has(part)
      )
        issues.push(
          issue(
            "",
            `${of}, ${input}: ${part === "field" ? `“${rest}” is not a field` : `there is no address part or attribute “${part}”`}`,
          ),
        );
    }
  }
  return issues;
}

/**
 * Name of the address that a field is of; empty for the first. Without a name of its own: the section of the token, or
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

/** True for a field whose pattern names a value of an outside service: `{courier.days}`. */
export function isOfServices(field: Pick<Field, "binding">): boolean {
  return serviceNamesOf(field).length > 0;
}

/** The values of services that a field's binding names, such as `courier.days`. */
export function serviceNamesOf({ binding }: Pick<Field, "binding">): string[] {
  const parsed = parsePattern(binding ?? "");
  // of parts there are forms, {country.code}, and of facts those of the data's own, {fact.rating}
  const isOfService = (name: string) => name.includes(".") && !isPartOrFact(name.split(".")[0]);
  return parsed.ok ? namesIn(parsed.pattern).filter(isOfService) : [];
}

/** Names of a form's addresses, in the order of their fields; one at least. */
export function addressesOf({ fields }: FormDefinition): string[] {
  const names = fields.filter(
    (field) =>
      !isOfBoth(field) &&
      !isOfServices(field) &&
      field.task !== "ask" &&
      (field.kind !== "text" || field.binding || field.autofill),
  );
  return names.length ? [...new Set(names.map(addressOf))] : [""];
}

/** The rule of an address; an empty one where none is given. */
export function ruleOf({ addresses }: FormDefinition, name: string): AddressRule {
  return addresses?.find((rule) => rule.name === name) ?? { name };
}
