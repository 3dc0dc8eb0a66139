import { formatPattern, type Lookup, namesIn, parsePattern } from "../pattern/index.ts";
import { type AutofillValues, factText, hoursText, partLookup } from "../place/index.ts";
import {
  addressOf,
  type Field,
  type FieldKind,
  type FormAnswer,
  type FormDefinition,
  isOfServices,
} from "./definition.ts";
import { distanceIn } from "./distance.ts";

/** What a field gets from an answer. */
export interface Filling {
  field: string;
  /** Empty when the answer has nothing for it: old values must not stay. */
  value: string;
}

/**
 * Reads an answer by name: parts (`street`, `country.code`) and facts (`position`, `lat`, `hours`, …).
 * @param isConfirmed whether the person chose or agreed to it
 */
export function lookupIn(answer: FormAnswer, isConfirmed = true): Lookup {
  const parts = partLookup(answer.parts);
  const { facts: existing = {}, height, nearby } = answer;
  /** A common fact that could not be read as what it should be. */
  const textOf = (name: string) => existing.own?.[name] && factText(existing.own[name]);
  const facts: Record<string, string | readonly string[] | undefined> = {
    position: `${degrees(answer.at.lat)},${degrees(answer.at.lon)}`,
    lat: degrees(answer.at.lat),
    lon: degrees(answer.at.lon),
    kind: answer.kind,
    exactness: answer.exactness,
    ref: answer.ref,
    line: answer.line,
    lines: answer.lines,
    confirmed: isConfirmed ? "yes" : "no",
    height: typeof height === "number" ? String(Math.round(height)) : undefined,
    nearby: nearby?.name,
    away: nearby && awayOf(nearby.metres),
    phone: existing.phone,
    url: existing.url,
    languages: existing.languages ?? textOf("languages"),
    hours: existing.openingHours?.map((hours) => hoursText(hours)) ?? existing.hoursText,
    stepfree: existing.stepFree === undefined ? textOf("stepfree") : existing.stepFree ? "yes" : "no",
    continent: answer.continent?.name,
    "continent.code": answer.continent?.code,
  };
  const own = existing.own ?? {};
  return (name) => {
    if (Object.hasOwn(facts, name)) return facts[name];
    if (!name.startsWith("fact.")) return parts(name);
    const fact = name.slice("fact.".length);
    if (Object.hasOwn(own, fact)) return factText(own[fact]);
    return Object.hasOwn(facts, fact) ? facts[fact] : undefined;
  };
}

/** Six decimals are a decimetre. */
const degrees = (value: number) => String(Math.round(value * 1e6) / 1e6);

/** How far something is: in metres as long as those are few. */
function awayOf(metres: number): string {
  return distanceIn(metres, metres < 999.5 ? "m" : "km");
}

/** What a place is called beside the sign on a map: its name, or street and number, without all that lies around it. */
export function shortLine({ parts, autofill, line }: Pick<FormAnswer, "parts" | "autofill" | "line">): string {
  return parts.place?.name ?? autofill["address-line1"] ?? line.split(",")[0];
}

/** The line that shows an answer to a person: its own, else its name, else its position. */
export function lineFor(answer: FormAnswer): string {
  return answer.line || shortLine(answer) || `${answer.at.lat}, ${answer.at.lon}`;
}

/** The last token of an autofill attribute: `section-home shipping postal-code` asks for `postal-code`. */
export function tokenOf({ autofill }: Pick<Field, "autofill">): keyof AutofillValues | undefined {
  return autofill?.trim().split(/\s+/).at(-1) as keyof AutofillValues | undefined;
}

const FILLED_KINDS: ReadonlySet<FieldKind> = new Set(["text", "country", "choice", "hidden", "shown"]);

/** True for a kind of field that parts and facts may fill. */
export function takesValues({ kind }: Field): boolean {
  return FILLED_KINDS.has(kind);
}

/** True for a field that an answer fills: one that takes values, with a binding to parts and facts, or a token of an address. */
export function isFillable(field: Field): boolean {
  if (!takesValues(field) || isOfServices(field)) return false;
  return field.binding !== undefined || ADDRESS_TOKEN.test(tokenOf(field) ?? "");
}

const ADDRESS_TOKEN = /^(street-address|address-line[1-3]|address-level[1-4]|postal-code|country|country-name)$/;

/** The fields of an address that answers fill, in the order of the form. */
export function fillableFields(definition: FormDefinition, address: string): Field[] {
  return definition.fields.filter((field) => addressOf(field) === address && isFillable(field));
}

/**
 * What every fillable field of an address gets from an answer, in the order of the form. A pattern that cannot be read
 * fills nothing.
 */
export function fillingsFor(
  definition: FormDefinition,
  answer: FormAnswer,
  address = "",
  isConfirmed = true,
): Filling[] {
  const lookup = lookupIn(answer, isConfirmed);
  return fillableFields(definition, address).map((field) => {
    if (field.binding === undefined) return { field: field.name, value: answer.autofill[tokenOf(field)!] ?? "" };
    return { field: field.name, value: written(field.binding, lookup) };
  });
}

/**
 * What an address gets that the person wants to be taken as typed: fields that are not seen lose what an earlier answer
 * left in them, and say that it was not confirmed.
 */
export function typedFillings(definition: FormDefinition, address = ""): Filling[] {
  return fillableFields(definition, address)
    .filter(({ kind }) => kind === "hidden" || kind === "shown")
    .map(({ name, binding = "" }) => ({
      field: name,
      value: written(binding, (params) => (params === "confirmed" ? "no" : undefined)),
    }));
}

/** The parts and facts that a field's binding names; none without one. */
export function namesOf({ binding }: Pick<Field, "binding">): string[] {
  const parsed = parsePattern(binding ?? "");
  return parsed.ok ? [...new Set(namesIn(parsed.pattern).map((name) => name.split(".")[0]))] : [];
}

/** The rule by which a field is filled: its pattern, else its autofill token; empty when no answer fills it. */
export function writtenBy({ fields }: FormDefinition, name: string): string {
  const field = fields.find((existing) => existing.name === name);
  return field && isFillable(field) ? (field.binding ?? tokenOf(field)!) : "";
}

/** A pattern with values in it; nothing for one that cannot be read. */
export function written(binding: string, lookup: Lookup): string {
  const parsed = parsePattern(binding);
  return parsed.ok ? formatPattern(parsed.pattern, lookup) : "";
}

/**
 * The names a field draws on.
 * @param ofToken the parts that an autofill token takes in the country at hand
 */
export function effectiveBinding(field: Field, ofToken: (token: string) => readonly string[]): string[] {
  if (!isFillable(field)) return [];
  if (field.binding === undefined) return [...ofToken(tokenOf(field)!)];
  return namesOf(field);
}
