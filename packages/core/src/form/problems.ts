import { fillableFields, fillingsFor } from "./binding.ts";
import { addressesOf, addressOf, type FormAnswer, type FormDefinition, isOfBoth } from "./definition.ts";

/** A warning about a form; nothing that keeps it from working. */
export interface FormProblem {
  field: string;
  kind: "duplicate token" | "stays empty" | "nothing fills it" | "needs two addresses";
  message: string;
}

/** An address of a country, to try a form with. */
export interface FormExample {
  title: string;
  /** Name of the country for the developer; the answer's own when not given. */
  country?: string;
  answer: FormAnswer;
}

/** Warnings for the developer: tokens used twice, fields that stay empty somewhere, required ones that nothing fills. */
export function problemsOf(definition: FormDefinition, examples: readonly FormExample[]): FormProblem[] {
  const { fields } = definition;
  const problems: FormProblem[] = [];
  const tokens = new Map<string, string>();
  for (const field of fields) {
    const token = field.autofill?.trim();
    if (!token) continue;
    const key = `${addressOf(field)} ${token}`;
    const other = tokens.get(key);
    if (other === undefined) tokens.set(key, field.label);
    else
      problems.push({
        field: field.name,
        kind: "duplicate token",
        message: `“${token}” is also used by ${other}, and browsers fill only one of them.`,
      });
  }
  const addresses = addressesOf(definition);
  for (const field of fields)
    if (isOfBoth(field) && addresses.length !== 2)
      problems.push({
        field: field.name,
        kind: "needs two addresses",
        message: `needs two addresses, but the form has ${addresses.length === 1 ? "one" : addresses.length}.`,
      });
  for (const address of addresses) {
    const fillable = new Set(fillableFields(definition, address).map(({ name }) => name));
    const found = examples.map(({ answer, country = answer.parts.country?.name ?? "" }) => ({
      country,
      values: new Map(fillingsFor(definition, answer, address).map(({ field, value }) => [field, value])),
    }));
    const countries = [...new Set(found.map(({ country }) => country))];
    for (const field of fields.filter((one) => addressOf(one) === address)) {
      const filled = new Set(found.flatMap(({ country, values }) => (values.get(field.name) ? [country] : [])));
      const empty = countries.filter((country) => !filled.has(country));
      if (fillable.has(field.name) && empty.length) {
        const where = filled.size ? listed(empty) : "every country";
        problems.push({ field: field.name, kind: "stays empty", message: `stays empty in ${where}.` });
      }
      if (field.required && !fillable.has(field.name) && field.kind === "text")
        problems.push({
          field: field.name,
          kind: "nothing fills it",
          message: "is required and nothing fills it, so the user has to type it.",
        });
    }
  }
  return problems;
}

const listed = (words: readonly string[]) =>
  words.length < 2 ? words.join("") : `${words.slice(0, -1).join(", ")} and ${words.at(-1)}`;
