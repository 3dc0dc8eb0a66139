import type {
  AddressRule,
  Field,
  FieldKind,
  FormDefinition,
  ServiceRule,
  ServiceStart,
  Show,
  Start,
} from "./definition.ts";

/** What a new field of each kind is called. */
const NEW_LABELS: Readonly<Record<FieldKind, string>> = {
  text: "New field",
  search: "Find the address",
  country: "Country",
  choice: "Choice",
  button: "Look up",
  hidden: "Hidden",
  still: "Picture",
  map: "On the map",
  shown: "Text",
  distance: "Distance",
};

/** Adds a field behind another one, or at the end. @returns the form, and the new field's name */
export function addField(
  definition: FormDefinition,
  kind: FieldKind,
  after?: string,
): { definition: FormDefinition; name: string } {
  const names = new Set(definition.fields.map((field) => field.name));
  const name = freeName(names, kind === "text" ? "field" : kind);
  const field: Field = {
    name,
    kind,
    label: NEW_LABELS[kind],
    ...(kind === "choice" ? { options: [{ value: "one", label: "One" }] } : {}),
    ...(kind === "country" ? { autofill: "country", binding: "{country.code}" } : {}),
  };
  const place = definition.fields.findIndex((existing) => existing.name === after) + 1 || definition.fields.length;
  return { definition: { ...definition, fields: definition.fields.toSpliced(place, 0, field) }, name };
}

/** A name that no other field has: the one that is wanted, or that one with a number. */
export function freeName(taken: ReadonlySet<string>, wanted: string): string {
  let name = wanted;
  for (let i = 2; taken.has(name); i++) name = `${wanted.slice(0, 36)}-${i}`;
  return name;
}

/** Takes a field out, and out of all rules that speak of it. */
export function removeField(definition: FormDefinition, name: string): FormDefinition {
  const fields = definition.fields
    .filter((field) => field.name !== name)
    .map((field) => {
      if (typeof field.show !== "object" || field.show.field !== name) return field;
      const { show: _, ...rest } = field;
      return rest;
    });
  const left = <S extends Start | ServiceStart>(start: S): S | undefined => {
    if ("field" in start && start.field === name) return undefined;
    if (!("fields" in start)) return start;
    const others = start.fields.filter((field) => field !== name);
    return others.length ? { ...start, fields: others } : undefined;
  };
  // a service that nothing asks any more is asked by nobody
  const services = (existing: readonly ServiceRule[]) =>
    existing.flatMap((rule) => {
      const when = left(rule.when);
      return when ? [{ ...rule, when }] : [];
    });
  return withRules({ ...definition, fields }, left, services);
}

/** Moves a field by some places, as far as there are any. */
export function moveField(definition: FormDefinition, name: string, by: number): FormDefinition {
  const from = definition.fields.findIndex((field) => field.name === name);
  if (from < 0) return definition;
  const to = Math.max(0, Math.min(definition.fields.length - 1, from + by));
  const field = definition.fields[from];
  return { ...definition, fields: definition.fields.toSpliced(from, 1).toSpliced(to, 0, field) };
}

/** Moves a field to just before or behind another one. */
export function placeField(definition: FormDefinition, name: string, side: "before" | "behind", other: string) {
  const order = definition.fields.map((field) => field.name).filter((existing) => existing !== name);
  const at = order.indexOf(other);
  const from = definition.fields.findIndex((field) => field.name === name);
  return at < 0 || from < 0 ? definition : moveField(definition, name, at + (side === "behind" ? 1 : 0) - from);
}

/** Gives a field another name, in all rules that speak of it too. */
export function renameField(definition: FormDefinition, from: string, to: string): FormDefinition {
  const renamed = (name: string) => (name === from ? to : name);
  const showOf = (show: Show): Show => (typeof show === "object" ? { ...show, field: renamed(show.field) } : show);
  const fields = definition.fields.map((field) => ({
    ...field,
    name: renamed(field.name),
    ...(field.show === undefined ? {} : { show: showOf(field.show) }),
  }));
  const params = <S extends Start | ServiceStart>(start: S): S => {
    if ("field" in start) return { ...start, field: renamed(start.field) };
    return "fields" in start ? { ...start, fields: start.fields.map(renamed) } : start;
  };
  const inPatterns = new RegExp(`(\\bfield\\.)${from}(?![\\w-])`, "g");
  const services = (existing: readonly ServiceRule[]) =>
    existing.map((rule) => ({
      ...rule,
      when: params(rule.when),
      with: Object.fromEntries(
        Object.entries(rule.with).map(([input, pattern]) => [input, pattern.replace(inPatterns, `$1${to}`)]),
      ),
    }));
  return withRules({ ...definition, fields }, params, services);
}

/** Changes the rule of an address; what is undefined is taken out of it. */
export function changeRule(definition: FormDefinition, name: string, to: Partial<AddressRule>): FormDefinition {
  const { addresses = [] } = definition;
  const before = addresses.find((rule) => rule.name === name) ?? { name };
  const entries = Object.entries({ ...before, ...to }).filter(([, value]) => value !== undefined && value !== "");
  const rule = { ...Object.fromEntries(entries), name } as AddressRule;
  const others = addresses.filter((existing) => existing.name !== name);
  return { ...definition, addresses: Object.keys(rule).length > 1 ? [...others, rule] : others };
}

function withRules(
  definition: FormDefinition,
  change: (start: Start) => Start | undefined,
  services: (existing: readonly ServiceRule[]) => ServiceRule[],
): FormDefinition {
  const withServices = definition.services ? { ...definition, services: services(definition.services) } : definition;
  if (!withServices.addresses) return withServices;
  const addresses = withServices.addresses.map((rule) => {
    if (!rule.start) return rule;
    const { start, ...rest } = rule;
    const changed = change(start);
    return changed ? { ...rest, start: changed } : rest;
  });
  return { ...withServices, addresses };
}
