import type { FormDefinition } from "./definition.ts";

/** Keys in the order in which people read them; others follow. */
const ORDER = [
  ...["title", "intro", "submit", "fields", "addresses", "services"],
  ...["name", "kind", "label", "autofill", "address", "binding", "task", "placeholder", "help"],
  ...["required", "half", "relief", "pictures", "opens", "options", "show"],
  ...["url", "attribution", "least", "most", "names"],
  ...[
    "start",
    "kinds",
    "countries",
    "none",
    "takeFrom",
    "mayDiffer",
    "exactness",
    "anywhere",
    "nearby",
    "countryFirst",
  ],
  ...["ask", "called", "when", "with", "register", "draws", "line", "words"],
  ...["value", "on", "field", "is"],
];

/** A form as JSON for people: a store may have put the keys of the objects into any order. */
export function formJson(definition: FormDefinition): string {
  const rank = (key: string) => (ORDER.indexOf(key) + 1 || ORDER.length + 1) - 1;
  return JSON.stringify(
    definition,
    (_, value: unknown) =>
      value !== null && typeof value === "object" && !Array.isArray(value)
        ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => rank(a) - rank(b)))
        : value,
    2,
  );
}
