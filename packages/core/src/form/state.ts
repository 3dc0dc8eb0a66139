import { type Difference, PARTS, type Parts } from "../place/index.ts";
import { type Filling, fillableFields, fillingsFor, namesOf, tokenOf, typedFillings } from "./binding.ts";
import { addressOf, type Field, type FormAnswer, type FormDefinition } from "./definition.ts";
import { isSameStatement } from "./same.ts";
import { partOf, type Values, valueIn } from "./starts.ts";

/**
 * What an address of a form is now: nothing is in it; the person's own words, of which nothing more is known; a
 * record; a record that a register has confirmed; or a record of which the person has since changed what tells the place, so that it is that place no more.
 */
export const ADDRESS_STATES = ["empty", "typed", "chosen", "registered", "changed"] as const;
export type AddressState = (typeof ADDRESS_STATES)[number];

/** An address that a record was filled into. */
export interface FilledAddress {
  state: "chosen" | "changed";
  /** True when the person chose or agreed to exactly this record, or a lookup matched it. */
  confirmed: boolean;
  /** What was filled, by field. */
  stated: Readonly<Record<string, string>>;
  /** Names of the record with their short forms. */
  parts: Parts;
  /** True for a record that the form was opened on: its values are no lookup's. */
  isStored?: boolean;
  /** True once a register has confirmed it. */
  isRegistered?: boolean;
}

/** What lookups have put into a form, and what the person has written. Plain data. */
export interface FormState {
  /** Value by field, as it was filled. */
  filled: Readonly<Record<string, string>>;
  /** Fields that the person has changed since. */
  corrected: readonly string[];
  /** What the person wrote, by field; lookups are called with nothing else. */
  written: Readonly<Record<string, string>>;
  /** By name of the address; none for one that holds no record. */
  addresses: Readonly<Record<string, FilledAddress>>;
}

export const EMPTY_STATE: FormState = { filled: {}, corrected: [], written: {}, addresses: {} };

/** Values to write into fields, and the state afterwards. */
export interface Step {
  state: FormState;
  write: Filling[];
}

/** How an answer came into a form. */
export interface FilledHow {
  /** True when the fields were looked up as they stood: what the person wrote in them stays. */
  isAsked?: boolean;
  /** True when the person chose or agreed to this record, or nothing that was written differs from it. */
  isConfirmed: boolean;
  /** What is in the search field then; the record's line when not given. */
  text?: string;
}

/**
 * A new answer replaces every field that it fills, corrected ones too, so that no old value is left behind. Fields of
 * other addresses stay as they are.
 */
export function fill(
  definition: FormDefinition,
  state: FormState,
  answer: FormAnswer,
  address: string,
  { isAsked = false, isConfirmed, text = answer.line }: FilledHow,
): Step {
  const fillings = fillingsFor(definition, answer, address, isConfirmed);
  const stated = Object.fromEntries(fillings.map(({ field, value }) => [field, value]));
  for (const { name, kind } of statingFields(definition, address)) if (kind === "search") stated[name] = text;
  const names = new Set([...Object.keys(stated), ...searchesOf(definition, address)]);
  return {
    state: {
      filled: { ...state.filled, ...stated },
      corrected: state.corrected.filter((name) => !names.has(name)),
      written: isAsked ? state.written : omit(state.written, names),
      addresses: {
        ...state.addresses,
        [address]: { state: "chosen", confirmed: isConfirmed, stated, parts: answer.parts },
      },
    },
    write: fillings,
  };
}

/**
 * A stored record opens as it was stored: chosen when it holds a ref (a position, where the form keeps no ref), and
 * confirmed when it states so. Nothing counts as filled.
 */
export function opened(definition: FormDefinition, state: FormState, values: Values, address: string): FormState {
  const fields = fillableFields(definition, address);
  const of = (binding: string) => fields.find((field) => field.binding?.trim() === binding)?.name;
  const [ref, confirmed] = [of("{ref}"), of("{confirmed}")];
  const said = (name: string | undefined) => (name === undefined ? "" : valueIn(values, name));
  const isHeld = ref ? said(ref) : said(of("{position}")) || said(of("{lat}")) || said(confirmed) === "yes";
  if (!isHeld) return state;
  const filled: FilledAddress = {
    state: "chosen",
    confirmed: confirmed === undefined || said(confirmed) === "yes",
    stated: Object.fromEntries(fields.map(({ name }) => [name, valueIn(values, name)])),
    parts: {},
    isStored: true,
  };
  return { ...state, addresses: { ...state.addresses, [address]: filled } };
}

/**
 * The person has written into a field: it is their own from now on. When the fields then state another place than the one
 * they were filled with, all that is known of that place is taken out of those that nobody sees; when they state it
 * again, it comes back.
 * @param values of the form, with what was written
 */
export function correct(definition: FormDefinition, state: FormState, field: string, values: Values): Step {
  const value = values[field] ?? "";
  const isFilled = Object.hasOwn(state.filled, field);
  const others = state.corrected.filter((name) => name !== field);
  const corrected = isFilled && state.filled[field] !== value ? [...others, field] : others;
  const { [field]: _, ...rest } = state.written;
  const written = value.trim() === "" ? rest : { ...rest, [field]: value };
  const next: FormState = { ...state, corrected, written };
  const found = definition.fields.find(({ name }) => name === field);
  return found ? restate(definition, next, values, addressOf(found)) : { state: next, write: [] };
}

/** Compares what the fields of an address state with what they were filled with. */
function restate(definition: FormDefinition, state: FormState, values: Values, address: string): Step {
  const filled = filledAddressOf(state, address);
  if (!filled) return { state, write: [] };
  const isSame = statingFields(definition, address).every((field) =>
    isSameStatement(filled.stated[field.name] ?? "", valueIn(values, field.name), filled.parts, hasUnit(field)),
  );
  const now = isSame ? "chosen" : "changed";
  // a register has confirmed what stood there before
  const { isRegistered: _, ...unregistered } = filled;
  if (now === filled.state) return { state, write: [] };
  const unseen = new Set(unseenFields(definition, address).map(({ name }) => name));
  const write = isSame
    ? Object.entries(filled.stated).flatMap(([field, value]) => (unseen.has(field) ? [{ field, value }] : []))
    : typedFillings(definition, address);
  return {
    state: {
      ...state,
      filled: { ...state.filled, ...Object.fromEntries(write.map(({ field, value }) => [field, value])) },
      addresses: { ...state.addresses, [address]: { ...unregistered, state: now } },
    },
    write,
  };
}

/** A register has confirmed the record of an address, as it is there. */
export function confirmByRegister(state: FormState, address: string): FormState {
  const filled = filledAddressOf(state, address);
  if (filled?.state !== "chosen") return state;
  return { ...state, addresses: { ...state.addresses, [address]: { ...filled, isRegistered: true } } };
}

/**
 * Differences between the fields of a body and a record. A field that is empty, or was not sent, does not differ.
 * @param answer the record
 */
export function differencesIn(
  definition: FormDefinition,
  values: Values,
  answer: FormAnswer,
  address: string,
): Difference[] {
  const stated = new Map(fillingsFor(definition, answer, address).map(({ field, value }) => [field, value]));
  return statingFields(definition, address).flatMap((field): Difference[] => {
    const written = valueIn(values, field.name);
    const shown = field.kind === "search" ? answer.line : (stated.get(field.name) ?? "");
    if (!written || isSameStatement(shown, written, answer.parts, hasUnit(field))) return [];
    const part = partOf(field) ?? PARTS.find((one) => namesOf(field).includes(one)) ?? "street";
    return [{ part, written, ...(shown ? { held: shown } : {}), how: shown ? "other" : "absent" }];
  });
}

/** Puts back what an address was filled with, all of it. */
export function goBack(definition: FormDefinition, state: FormState, address: string): Step {
  const filled = filledAddressOf(state, address);
  if (!filled) return { state, write: [] };
  const names = new Set([...Object.keys(filled.stated), ...searchesOf(definition, address)]);
  return {
    state: {
      filled: { ...state.filled, ...filled.stated },
      corrected: state.corrected.filter((name) => !names.has(name)),
      written: omit(state.written, names),
      addresses: { ...state.addresses, [address]: { ...filled, state: "chosen" } },
    },
    write: Object.entries(filled.stated).map(([field, value]) => ({ field, value })),
  };
}

/** The person agrees to the record that was filled, whatever differs in it from what they wrote. */
export function agree(definition: FormDefinition, state: FormState, address: string): Step {
  const filled = filledAddressOf(state, address);
  if (!filled || filled.confirmed || filled.state === "changed") return { state, write: [] };
  const write = fillableFields(definition, address).flatMap(({ name, binding }) =>
    binding?.trim() === "{confirmed}" ? [{ field: name, value: "yes" }] : [],
  );
  const said = Object.fromEntries(write.map(({ field, value }) => [field, value]));
  return {
    state: {
      ...state,
      filled: { ...state.filled, ...said },
      addresses: {
        ...state.addresses,
        [address]: { ...filled, confirmed: true, stated: { ...filled.stated, ...said } },
      },
    },
    write,
  };
}

/** The person wants what they wrote: nothing that a lookup knew is left in fields that are not seen. */
export function keepTyped(definition: FormDefinition, state: FormState, address: string): Step {
  const write = typedFillings(definition, address);
  return {
    state: {
      ...state,
      filled: { ...state.filled, ...Object.fromEntries(write.map(({ field, value }) => [field, value])) },
      addresses: omit(state.addresses, new Set([address])),
    },
    write,
  };
}

/** Gives a corrected field back to the lookup: what was filled is in it again. */
export function giveBack(definition: FormDefinition, state: FormState, field: string, values: Values): Step {
  if (!state.corrected.includes(field)) return { state, write: [] };
  const value = state.filled[field];
  const { [field]: _, ...written } = state.written;
  const next = { ...state, written, corrected: state.corrected.filter((name) => name !== field) };
  const found = definition.fields.find(({ name }) => name === field);
  const step = found
    ? restate(definition, next, { ...values, [field]: value }, addressOf(found))
    : { state: next, write: [] };
  return { state: step.state, write: [{ field, value }, ...step.write] };
}

/**
 * The starting field was cleared: what it filled is cleared, what the person corrected stays.
 * @param fields those of the address; all when not given
 */
export function clearFilled(
  state: FormState,
  address?: string,
  fields: readonly string[] = Object.keys(state.filled),
): Step {
  const own = Object.keys(state.filled).filter((field) => fields.includes(field));
  const write = own.filter((field) => !state.corrected.includes(field)).map((field) => ({ field, value: "" }));
  const names = new Set(own);
  return {
    state: {
      filled: omit(state.filled, names),
      corrected: state.corrected.filter((field) => !names.has(field)),
      written: omit(state.written, new Set(write.map(({ field }) => field))),
      addresses: address === undefined ? {} : omit(state.addresses, new Set([address])),
    },
    write,
  };
}

/** Some fields were emptied: what the person wrote in them is gone too. */
export function forget(state: FormState, fields: readonly string[]): FormState {
  const names = new Set(fields);
  return {
    ...state,
    filled: omit(state.filled, names),
    corrected: state.corrected.filter((field) => !names.has(field)),
    written: omit(state.written, names),
  };
}

/** What an address of a form is now. @param values of the form */
export function addressState(
  definition: FormDefinition,
  state: FormState,
  values: Values,
  address: string,
): AddressState {
  const filled = filledAddressOf(state, address);
  if (filled) return filled.state === "chosen" && filled.isRegistered ? "registered" : filled.state;
  const seen = [...statingFields(definition, address).map(({ name }) => name), ...searchesOf(definition, address)];
  return seen.some((name) => valueIn(values, name)) ? "typed" : "empty";
}

/** The record that an address holds. */
export function filledAddressOf(state: FormState, address: string): FilledAddress | undefined {
  return Object.hasOwn(state.addresses, address) ? state.addresses[address] : undefined;
}

/**
 * What the person wrote of an address, for a lookup: nothing that a lookup filled is asked as if it had been written. Of
 * an address that holds no record, all that is there; of a stored record that was changed, what its fields state.
 */
export function writtenValues(definition: FormDefinition, state: FormState, values: Values, address: string): Values {
  const filled = filledAddressOf(state, address);
  if (!filled) return values;
  const names = definition.fields.filter((field) => addressOf(field) === address).map(({ name }) => name);
  const stated = statedValues(definition, state, values, address);
  const question: Record<string, string | undefined> = { ...values };
  for (const name of names) {
    if (filled.isStored && !Object.hasOwn(state.filled, name)) {
      question[name] = stated[name];
      continue;
    }
    const text = Object.hasOwn(state.written, name) ? state.written[name] : undefined;
    // what a lookup put in the place of what was written is not what was written
    question[name] = values[name] === (filled.stated[name] ?? state.filled[name]) ? text : text && values[name];
  }
  return question;
}

/**
 * What the fields of a changed address state, for the person who asks for just that: what they see, without what only
 * belonged to the place before. With another postcode nothing of that is left; with another town its street and number.
 */
export function statedValues(definition: FormDefinition, state: FormState, values: Values, address: string): Values {
  const filled = filledAddressOf(state, address);
  if (!filled) return values;
  const stating = statingFields(definition, address);
  const isChanged = (field: Field) =>
    !isSameStatement(filled.stated[field.name] ?? "", valueIn(values, field.name), filled.parts, hasUnit(field));
  const changed = stating.filter(isChanged).flatMap(levelsOf);
  const broadest = Math.max(...changed);
  const question: Record<string, string | undefined> = { ...values };
  for (const field of stating) {
    if (Object.hasOwn(state.written, field.name) || field.kind === "country") continue;
    const levels = levelsOf(field);
    if (levels.includes(POSTCODE) || changed.includes(POSTCODE)) question[field.name] = "";
    else if (broadest >= TOWN && levels.some((level) => level > STREET && level !== broadest))
      question[field.name] = "";
  }
  for (const name of searchesOf(definition, address)) question[name] = "";
  return question;
}

const [STREET, TOWN, POSTCODE] = [1, 2, 9];
const LEVEL: Readonly<Record<string, number>> = {
  house: 0,
  building: 0,
  block: STREET,
  street: STREET,
  place: STREET,
  district: TOWN,
  town: TOWN,
  county: 3,
  region: 4,
  country: 5,
  postcode: POSTCODE,
};

function levelsOf(field: Field): number[] {
  const token = tokenOf(field) ?? "";
  if (field.binding === undefined && /^(street-address|address-line)/.test(token)) return [0, STREET];
  const part = partOf(field);
  if (part) return [LEVEL[part] ?? TOWN];
  return namesOf(field).flatMap((name) => LEVEL[name] ?? []);
}

/** Fields that show which place it is. Where there are none, the text of the search field does. */
export function statingFields(definition: FormDefinition, address: string): Field[] {
  const seen = fillableFields(definition, address).filter(
    ({ kind }) => kind === "text" || kind === "country" || kind === "choice",
  );
  const stating = seen.filter(isStating);
  return stating.length
    ? stating
    : definition.fields.filter((field) => field.kind === "search" && addressOf(field) === address);
}

/** True for a field whose value tells one place from another; a unit, a telephone number or hours do not. */
function isStating(field: Field): boolean {
  if (field.binding === undefined) return !/^address-line[23]$/.test(tokenOf(field) ?? "");
  return namesOf(field).some((name) => Object.hasOwn(LEVEL, name) || /^(line|lines|position|lat|lon)$/.test(name));
}

const hasUnit = (field: Field) =>
  field.binding === undefined
    ? /^(street-address|address-line1)$/.test(tokenOf(field) ?? "")
    : namesOf(field).some((name) => name === "unit" || name === "floor");

const unseenFields = (definition: FormDefinition, address: string) =>
  fillableFields(definition, address).filter(({ kind }) => kind === "hidden" || kind === "shown");

const searchesOf = ({ fields }: FormDefinition, address: string) =>
  fields.flatMap((field) => (field.kind === "search" && addressOf(field) === address ? [field.name] : []));

function omit<T>(record: Readonly<Record<string, T>>, names: ReadonlySet<string>): Record<string, T> {
  return Object.fromEntries(Object.entries(record).filter(([name]) => !names.has(name)));
}
