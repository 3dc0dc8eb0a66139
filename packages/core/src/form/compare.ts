import type { AddressRule, Field, FormDefinition, ServiceRule } from "./definition.ts";

/** One way in which two forms differ. */
export interface Difference {
  /** Name of the field; empty for what is the form's own. */
  field: string;
  kind: "added" | "removed" | "moved" | "changed";
  /** What changed; empty when all of a field did. */
  what: string;
  before: string;
  after: string;
}

/** In what a form differs from one before: the form's own words, its fields in order, its rules. */
export function compareForms(before: FormDefinition, after: FormDefinition): Difference[] {
  return [
    ...compareValues(
      "",
      { title: before.title, intro: before.intro, submit: before.submit },
      {
        title: after.title,
        intro: after.intro,
        submit: after.submit,
      },
    ),
    ...compareFields(before.fields, after.fields),
    ...compareRules(before.addresses ?? [], after.addresses ?? []),
    ...compareServices(before.services ?? [], after.services ?? []),
  ];
}

function compareFields(before: readonly Field[], after: readonly Field[]): Difference[] {
  const wholeField = (kind: "added" | "removed" | "moved", { name, label }: Field): Difference => ({
    field: name,
    kind,
    what: "",
    before: kind === "added" ? "" : label,
    after: kind === "removed" ? "" : label,
  });
  const names = (fields: readonly Field[], others: readonly Field[]) =>
    fields.map(({ name }) => name).filter((name) => others.some((other) => other.name === name));
  const stays = longestCommon(names(before, after), names(after, before));
  return [
    ...before
      .filter(({ name }) => !after.some((field) => field.name === name))
      .map((field) => wholeField("removed", field)),
    ...after.flatMap((field): Difference[] => {
      const was = before.find(({ name }) => name === field.name);
      if (!was) return [wholeField("added", field)];
      return [...(stays.has(field.name) ? [] : [wholeField("moved", field)]), ...compareValues(field.name, was, field)];
    }),
  ];
}

function compareRules(before: readonly AddressRule[], after: readonly AddressRule[]): Difference[] {
  const names = new Set([...before, ...after].map(({ name }) => name));
  return [...names].flatMap((name) => {
    const of = (rules: readonly AddressRule[]) => rules.find((rule) => rule.name === name) ?? { name };
    return compareValues("", of(before), of(after)).map((difference) => ({
      ...difference,
      what: name ? `${name}: ${difference.what}` : difference.what,
    }));
  });
}

function compareServices(before: readonly ServiceRule[], after: readonly ServiceRule[]): Difference[] {
  const names = new Set([...before, ...after].map(({ ask }) => ask));
  return [...names].flatMap((name) => {
    const [was, is] = [before, after].map((rules) => rules.find(({ ask }) => ask === name) ?? {});
    return compareValues("", was, is).map((difference) => ({ ...difference, what: `${name}: ${difference.what}` }));
  });
}

function compareValues(field: string, before: object, after: object): Difference[] {
  const keys = new Set([...Object.keys(before), ...Object.keys(after)]);
  return [...keys].flatMap((what): Difference[] => {
    const [was, is] = [before, after].map((of) => textOf((of as Record<string, unknown>)[what]));
    return was === is ? [] : [{ field, kind: "changed", what, before: was, after: is }];
  });
}

function textOf(value: unknown): string {
  if (value === undefined) return "";
  if (typeof value === "string") return value;
  return typeof value === "boolean" ? (value ? "yes" : "no") : JSON.stringify(value);
}

/** What is in both lists in the same order: the most that does. */
function longestCommon(a: readonly string[], b: readonly string[]): Set<string> {
  const length = Array.from({ length: a.length + 1 }, () => new Uint16Array(b.length + 1));
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--)
      length[i][j] = a[i] === b[j] ? length[i + 1][j + 1] + 1 : Math.max(length[i + 1][j], length[i][j + 1]);
  const common = new Set<string>();
  for (let i = 0, j = 0; i < a.length && j < b.length; ) {
    if (a[i] === b[j]) {
      common.add(a[i]);
      i++;
      j++;
    } else if (length[i + 1][j] >= length[i][j + 1]) i++;
    else j++;
  }
  return common;
}
