import { namesIn, parsePattern } from "../pattern/index.ts";
import { PARTS, type PartName } from "../place/index.ts";
import { fillableFields, tokenOf } from "./binding.ts";
import { addressesOf, addressOf, type Field, type FormDefinition, isOfBoth, ruleOf, type Start } from "./definition.ts";

/**
 * What was done to a field: the person changed it and left it; pressed it, which is a button; or the page's own code set
 * it. What fills the form, the browser's autofill, a reset and the back button are none of these.
 */
export interface Happening {
  did: "left" | "pressed" | "set";
  field: string;
}

/** What is to be looked up for an address: words, or parts by name. */
export interface Question {
  address: string;
  q?: string;
  parts?: Partial<Record<PartName, string>>;
  /** Code of the one country in which to search. */
  country?: string;
}

/** Value by field, as it is in the form. */
export type Values = Readonly<Record<string, string | undefined>>;

/** What starts the lookups of an address when its rule does not define it: its search field's list, else its first bound field. */
export function startOf(definition: FormDefinition, address: string): Start {
  const { start } = ruleOf(definition, address);
  if (start) return start;
  if (definition.fields.some((field) => field.kind === "search" && addressOf(field) === address))
    return { on: "choice" };
  const [first] = seenFields(definition, address);
  return first ? { on: "leaving", field: first.name } : { on: "never" };
}

/** The field beside which it is said what came of an address's lookups: the one that starts them, else one that could. */
export function startingField(definition: FormDefinition, address: string): string | undefined {
  const start = startOf(definition, address);
  if (start.on === "complete") return start.fields.at(-1);
  if ("field" in start) return start.field;
  const fields = definition.fields.filter((field) => addressOf(field) === address && !isOfBoth(field));
  const starter = fields.find(({ kind }) => kind === "search") ?? fields.find(({ kind }) => kind === "button");
  return (starter ?? fillableFields(definition, address).find(({ kind }) => kind !== "hidden"))?.name;
}

/** The lookup that something starts; undefined when it starts none, or when there is nothing to ask. */
export function questionFor(definition: FormDefinition, values: Values, happening: Happening): Question | undefined {
  const { did, field } = happening;
  for (const address of addressesOf(definition)) {
    const start = startOf(definition, address);
    const found = definition.fields.find(({ name }) => name === field);
    const isIts = found !== undefined && addressOf(found) === address;
    const starts =
      did === "pressed"
        ? (start.on === "button" && start.field === field) || (isIts && isLookUp(found))
        : start.on === "leaving"
          ? start.field === field
          : start.on === "complete"
            ? start.fields.includes(field) && start.fields.every((name) => valueIn(values, name))
            : did === "set" && isIts && found.kind === "search";
    if (!starts) continue;
    if (did !== "pressed" && !valueIn(values, field)) return undefined;
    return questionOf(definition, values, address);
  }
  return undefined;
}

/** What the fields of an address ask for as they stand; undefined when they are empty. */
export function questionOf(definition: FormDefinition, values: Values, address: string): Question | undefined {
  const search = definition.fields.find((field) => field.kind === "search" && addressOf(field) === address);
  const typed = search && valueIn(values, search.name);
  if (typed && startOf(definition, address).on !== "complete") return { address, q: typed };
  const fields = seenFields(definition, address).flatMap((field) => {
    const value = valueIn(values, field.name);
    return value ? [{ field, value, part: partOf(field) }] : [];
  });
  const country = fields.find(({ field }) => field.kind === "country")?.value;
  const named = fields.filter(({ field }) => field.kind !== "country");
  if (!named.length) return undefined;
  const narrowed = country && /^[A-Z]{2}$/.test(country) ? { country } : {};
  if (named.every(({ part }) => part) && new Set(named.map(({ part }) => part)).size === named.length)
    return { address, parts: Object.fromEntries(named.map(({ part, value }) => [part, value])), ...narrowed };
  return { address, q: named.map(({ value }) => value).join(", "), ...narrowed };
}

/** True for a button that looks up what the fields say. */
export function isLookUp({ kind, task = "look" }: Field): boolean {
  return kind === "button" && task === "look";
}

/** True for two questions that ask the same: the later one need not be sent. */
export function isSameQuestion(a: Question | undefined, b: Question | undefined): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

/** The fields of an address that people see and type into. */
function seenFields(definition: FormDefinition, address: string): Field[] {
  return fillableFields(definition, address).filter(({ kind }) => kind !== "hidden" && kind !== "shown");
}

/** What is in a field, without spaces around it; empty for a field that is not there. */
export function valueIn(values: Values, name: string): string {
  return (Object.hasOwn(values, name) && values[name]?.trim()) || "";
}

/** The one part that a field holds; undefined for several, or for a fact. */
export function partOf(field: Field): PartName | undefined {
  const { binding } = field;
  if (binding === undefined) return tokenOf(field) === "postal-code" ? "postcode" : undefined;
  const parsed = parsePattern(binding);
  if (!parsed.ok || parsed.pattern.nodes.length !== 1 || parsed.pattern.nodes[0].type !== "value") return undefined;
  const part = namesIn(parsed.pattern)[0].split(".")[0] as PartName;
  return PARTS.includes(part) ? part : undefined;
}
