import { addressesOf, addressOf, type FormDefinition, fillableFields, partOf, ruleOf } from "@bibliotope/core/form";

/** An address of a form that a server can look up: the fields that are parts of it. */
export interface ServerLookup {
  address: string;
  /** Name of the field, by part. */
  parts: [part: string, field: string][];
}

/** What a server can look up of a form's values: by the parts that fields hold, else by what its search field says. */
export function serverLookups(definition: FormDefinition): ServerLookup[] {
  return addressesOf(definition).flatMap((address) => {
    const parts = new Map<string, string>();
    for (const field of fillableFields(definition, address)) {
      const part = field.kind === "country" ? "country" : partOf(field);
      if (part && field.kind !== "shown" && !parts.has(part)) parts.set(part, field.name);
    }
    const search = definition.fields.find((field) => field.kind === "search" && addressOf(field) === address);
    if (!parts.size && search) return [{ address, parts: [["q", search.name]] }];
    return parts.size ? [{ address, parts: [...parts] }] : [];
  });
}

/** The lookups of a form as calls of curl, for programs in any language. @param service origin of the service */
export function curlOf(definition: FormDefinition, service: string): string {
  const lookups = serverLookups(definition).map(({ address, parts }) => {
    const { countries, kinds } = ruleOf(definition, address);
    const words = [
      // a field that is empty asks for nothing
      ...parts.map(([part, field]) => `\${${variableOf(field)}:+--data-urlencode "${part}=$${variableOf(field)}"}`),
      ...(countries?.length ? [`--data-urlencode "countries=${countries.join(",")}"`] : []),
      ...(kinds?.length ? [`--data-urlencode "kinds=${kinds.join(",")}"`] : []),
    ];
    return [
      ...(address ? [`# ${address}`] : []),
      `curl --get ${service}/v1/forward \\`,
      `  --header "Authorization: Bearer $BIBLIOTOPE_SERVER_KEY" \\`,
      ...words.map((word, i) => `  ${word}${i < words.length - 1 ? " \\" : ""}`),
    ].join("\n");
  });
  return `# The key stands in the environment: BIBLIOTOPE_SERVER_KEY is a server key, which a browser never sees.
# The values of the form's fields stand in variables of their names.

${lookups.join("\n\n") || "# No field of this form is looked up by a server."}

# Every call, for generators of clients:
curl ${service}/v1/openapi.json
`;
}

/** A field's name as a variable of the shell. */
const variableOf = (field: string) => field.replace(/[^A-Za-z0-9]+/g, "_").toUpperCase();
