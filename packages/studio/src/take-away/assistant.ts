import {
  addressesOf,
  addressOf,
  type Field,
  type FormDefinition,
  formJson,
  ruleOf,
  startOf,
} from "@bibliotope/core/form";

/**
 * All that somebody who writes the form anew has to know, as one plain text: what it must do, the calls, the rules, and
 * the tests that notice when something gets lost.
 * @param service origin of the service
 * @param tests the form's rehearsals as a test file; empty without any
 */
export function assistantText(definition: FormDefinition, service: string, tests: string): string {
  const addresses = addressesOf(definition);
  return `# ${definition.title}

Write this form into the application at hand. It has to do everything below; the tests at the end tell whether it does.

## Fields

${definition.fields.map((field) => `- ${fieldLine(definition, field)}`).join("\n")}

## What it has to do

${addresses.map((name) => addressRules(definition, name, addresses.length > 1)).join("\n")}
- While the person types, the list follows; an answer to a text that has changed since is dropped. Down and Up move in the list, Enter takes the line it is on, or the one marked \`sure\`, else it goes to the first; Escape closes it, and nothing is asked after a choice.
- A choice is resolved by its ref (\`GET /v1/records/REF\`), never by its text.
- A new lookup replaces every filled field, so that nothing of an address before is left; what the person has corrected stays theirs until then. Clearing the field that starts the lookup clears what it filled.
- Filling starts no lookup, nor does the browser's own autofill, a reset or the back button.
- An error is never an empty list: off-line, too slow, refused and too many each have their own words. Going on with what was typed is always possible, and is stored as not confirmed.
- Text from the service is text, never markup.

## Calls

The service is ${service}; its full description is ${service}/v1/openapi.json (OpenAPI 3.1).

- \`GET /v1/suggest?q=\` lines while typing; \`GET /v1/records/REF\` one record; \`GET /v1/forward?q=\` or by parts; \`GET /v1/reverse?at=LAT,LON\` the nearest address.
- \`autofill\` of a record's properties holds the values for HTML's autofill tokens; \`parts\` has each part with its name, \`lines\` those of an envelope.
- \`outcome\` is \`none\`, \`ambiguous\` (let the person choose) or \`matched\`. Nothing found is no error.
- Errors are \`application/problem+json\`; show \`detail\` to the developer, words of your own to the person. After 429 and 503 wait for \`Retry-After\`.

The kit does all of this: \`import { Client, renderForm } from "${service}/kit/v1/bibliotope.js"\`, or \`bind\` for a form that is there already, or \`@bibliotope/kit/react\`. Give it the definition below.

## Keys

- A page carries a web key in \`access_token\`; it works only from the origins that it names. Read it from the application's settings (BIBLIOTOPE_WEB_KEY), never write it into the code.
- A server carries a server key in \`Authorization: Bearer\`, from its environment (BIBLIOTOPE_SERVER_KEY). It never reaches a browser.

## Definition

\`\`\`json
${formJson(definition)}
\`\`\`

## Tests

${tests ? `\`\`\`ts\n${tests}\`\`\`` : "No rehearsals are saved with this form yet. Use the form in Rehearse and save your steps."}
`;
}

const KIND_WORDS: Partial<Record<Field["kind"], string>> = {
  search: "searches as the user types",
  country: "a choice of countries",
  choice: "a choice",
  button: "a button",
  hidden: "hidden",
  still: "a picture of the place",
  map: "an interactive map",
  shown: "displayed, not stored",
  distance: "shows the distance between the two addresses",
};

function fieldLine(definition: FormDefinition, field: Field): string {
  const { name, label, kind, binding, autofill, required, show, task, options } = field;
  const address = addressOf(field);
  return [
    `**${label}** (\`${name}\`)`,
    KIND_WORDS[kind] ?? "text",
    ...(address && addressesOf(definition).length > 1 ? [`of the address \`${address}\``] : []),
    ...(binding ? [`filled with \`${binding}\``] : []),
    ...(autofill ? [`\`autocomplete="${autofill}"\``] : []),
    ...(task ? [`it does \`${task}\``] : []),
    ...(options ? [`of ${options.length}`] : []),
    ...(required ? ["required"] : []),
    ...(show ? [`shown by the rule \`${JSON.stringify(show)}\``] : []),
  ].join("; ");
}

function addressRules(definition: FormDefinition, name: string, isNamed: boolean): string {
  const rule = ruleOf(definition, name);
  const start = startOf(definition, name);
  const starts = {
    choice: () => "choosing a suggestion starts its lookup",
    button: (field: string) => `the button \`${field}\` looks up the fields`,
    leaving: (field: string) => `leaving \`${field}\` looks it up`,
    complete: () => "",
    never: () => "typing never starts a lookup",
  };
  const how =
    start.on === "complete"
      ? `once ${start.fields.map((field) => `\`${field}\``).join(", ")} are all filled it is looked up, and again when one changes`
      : starts[start.on]("field" in start ? start.field : "");
  return [
    `- ${isNamed ? `${name ? `The address \`${name}\`` : "The first address"}: ` : ""}${how}.`,
    ...(rule.countries?.length ? [`Only in ${rule.countries.join(", ")}.`] : []),
    ...(rule.kinds?.length ? [`Only ${rule.kinds.join(", ")}.`] : []),
    ...(rule.exactness ? [`If the exactness is below \`${rule.exactness}\`, it says so.`] : []),
    ...(rule.countryFirst
      ? ["The country is chosen first, and decides labels, order and shape of the other fields."]
      : []),
    ...(rule.none ? [`When nothing is found it says: “${rule.none}”`] : []),
  ].join(" ");
}
