import { addressesOf, addressOf, type FormDefinition, fillableFields, partOf, ruleOf } from "@bibliotope/core/form";

/** An address of a form that a server can look up: by the parts that its fields hold, else by all that they say. */
export interface ServerLookup {
  address: string;
  /** Name of the field, by part; of several for `q`. */
  lookups: [part: string, fields: string[]][];
}

/**
 * What a server can look up of a form's values, as the form itself asks: by parts where each of the fields is one, else by
 * their texts one behind the other; by its search field's text where it has no others.
 */
export function serverLookups(definition: FormDefinition): ServerLookup[] {
  return addressesOf(definition).flatMap((address): ServerLookup[] => {
    const seen = fillableFields(definition, address).filter(({ kind }) => kind !== "hidden" && kind !== "shown");
    const country = seen.find(({ kind }) => kind === "country");
    const own = seen.filter(({ kind }) => kind !== "country");
    const search = definition.fields.find((field) => field.kind === "search" && addressOf(field) === address);
    const narrow: ServerLookup["lookups"] = country ? [["countries", [country.name]]] : [];
    if (!own.length) return search ? [{ address, lookups: [["q", [search.name]], ...narrow] }] : [];
    const parts = own.map((field) => partOf(field));
    const isByParts = parts.every((part) => part) && new Set(parts).size === own.length;
    const lookups = isByParts
      ? own.map((field, i): [string, string[]] => [parts[i] ?? "", [field.name]])
      : [["q", own.map(({ name }) => name)] as [string, string[]]];
    return [{ address, lookups: [...lookups, ...narrow] }];
  });
}

/** The lookups of a form as calls of curl, for programs in any language. @param service origin of the service */
export function curlOf(definition: FormDefinition, service: string): string {
  const lookups = serverLookups(definition).map(({ address, lookups }) => {
    const { countries, kinds } = ruleOf(definition, address);
    const words = [
      // a field that is empty asks for nothing
      ...lookups.map(([part, fields]) =>
        fields.length === 1
          ? `\${${variableOf(fields[0])}:+--data-urlencode "${part}=$${variableOf(fields[0])}"}`
          : `--data-urlencode "${part}=${fields.map((field) => `\${${variableOf(field)}:+$${variableOf(field)}, }`).join("")}"`,
      ),
      ...(countries?.length && !lookups.some(([part]) => part === "countries")
        ? [`--data-urlencode "countries=${countries.join(",")}"`]
        : []),
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
