/** The reference of the HTTP API as Markdown, made from its OpenAPI document. */
export function apiReference(document) {
  const { paths, tags, components } = document;
  const operations = Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method: method.toUpperCase(), operation })),
  );
  return `${[
    "# HTTP reference",
    "Every call with its parameters and its response, made from the OpenAPI document that a server has at `/v1/openapi.json`.",
    "[The guide](api.md) explains the conventions and has an example of each call.",
    ...tags.flatMap(({ name, description }) => [
      `## ${name}`,
      ...(description ? [description] : []),
      ...callsOf(operations.filter(({ operation }) => operation.tags.includes(name))),
    ]),
    "## Types",
    ...Object.entries(components.schemas).flatMap(([name, schema]) => [
      `### ${name}`,
      ...(schema.description ? [schema.description] : []),
      ...(schema.properties ? [fieldsOf(schema)] : [`${typeOf(schema)}.`]),
    ]),
  ].join("\n\n")}\n`;
}

/** A call by GET and POST is one section: POST takes the same as JSON. */
function callsOf(operations) {
  const paths = [...new Set(operations.map(({ path }) => path))];
  return paths.flatMap((path) => {
    const calls = operations.filter((one) => one.path === path);
    const [{ operation }] = calls;
    const many = calls.find((one) => one.method === "POST" && one !== calls[0])?.operation;
    return [
      `### ${calls.map(({ method }) => method).join(", ")} ${path}`,
      operation.description,
      ...parametersOf(operation),
      ...bodyOf(operation),
      ...(many ? [postWords(operation, many)] : []),
      ...answerOf(operation),
    ];
  });
}

function parametersOf({ parameters }) {
  if (!parameters.length) return [];
  const rows = parameters.map(({ name, in: place, required, description, schema, example }) =>
    row(
      `\`${name}\``,
      [typeOf(schema), limitsOf(schema), place === "path" ? "in the path" : required ? "required" : defaultOf(schema)],
      [description, example === undefined || schema.enum || schema.type !== "string" ? "" : `Example: \`${example}\`.`]
        .filter(Boolean)
        .join(" "),
    ),
  );
  return [["| parameter | type | meaning |", "| --- | --- | --- |", ...rows].join("\n")];
}

const row = (name, about, description = "") =>
  `| ${name} | ${inCell(about.filter(Boolean).join(", "))} | ${inCell(description)} |`;
const inCell = (text) => text.replaceAll("|", "\\|").replaceAll("\n", " ");
const defaultOf = ({ default: value }) => (value === undefined ? "" : `default ${JSON.stringify(value)}`);

function bodyOf({ requestBody }) {
  if (!requestBody) return [];
  const types = Object.entries(requestBody.content);
  const [[type, { schema }]] = types;
  if (type !== "application/json") return [`Body: a file, ${types.map(([one]) => `\`${one}\``).join(" or ")}.`];
  return ["Body, as JSON:", schema.properties ? fieldsOf(schema) : `${typeOf(schema)}.`];
}

/** What differs by POST: that it is JSON, and where one body may hold many lookups. */
function postWords(operation, { requestBody, responses }) {
  const schema = requestBody?.content["application/json"]?.schema ?? {};
  const known = new Set(operation.parameters.map(({ name }) => name));
  const other = Object.keys(schema.properties ?? {}).filter((name) => !known.has(name));
  const [[, answer]] = Object.entries(responses);
  const own = other.map(
    (name) => `\`${name}\`: ${schema.properties[name].description ?? typeOf(schema.properties[name])}`,
  );
  return [
    "POST takes the same as JSON, with lists as arrays and positions as objects.",
    ...(own.length ? [`It also takes ${own.join("; ")}`] : []),
    ...(answer && own.length ? [`Its response is ${typeOf(Object.values(answer.content)[0].schema)}.`] : []),
  ].join(" ");
}

function answerOf({ responses }) {
  const [[status, { content }], ...others] = Object.entries(responses);
  const [[type, { schema }]] = Object.entries(content);
  const words = `Response ${status}, \`${type}\``;
  return [
    schema.properties ? `${words}:` : type.startsWith("image/") ? `${words}.` : `${words}: ${typeOf(schema)}.`,
    ...(schema.properties ? [fieldsOf(schema)] : []),
    `Errors: ${others.map(([code, { description }]) => `${code} ${description}`).join(", ")}.`,
  ];
}

/** Fields of an object, with those of objects inside it. */
function fieldsOf(schema, depth = 0) {
  const required = new Set(schema.required);
  return Object.entries(schema.properties)
    .flatMap(([name, field]) => {
      const about = [typeOf(field), limitsOf(field), required.has(name) ? "" : "optional", defaultOf(field)];
      const words = field.description && !field.$ref ? `. ${field.description}` : "";
      const inner = insideOf(field);
      return [
        `${"  ".repeat(depth)}- \`${name}\`: ${about.filter(Boolean).join(", ")}${words}`,
        ...(inner && depth < 4 ? [fieldsOf(inner, depth + 1)] : []),
      ];
    })
    .join("\n");
}

/** The object that a field is, or is a list of; undefined for what has a type of its own. */
function insideOf(schema) {
  if (schema.$ref) return undefined;
  if (schema.properties) return schema;
  return schema.items && insideOf(schema.items);
}

/** A type in words. */
function typeOf(schema) {
  if (schema.$ref) {
    const name = schema.$ref.split("/").at(-1);
    return `[${name}](#${name.toLowerCase()})`;
  }
  if ("const" in schema) return `\`${JSON.stringify(schema.const)}\``;
  if (schema.enum) return schema.enum.map((value) => `\`${value}\``).join(" or ");
  const ways = schema.anyOf ?? schema.oneOf;
  if (ways) return [...new Set(ways.map(typeOf))].join(" or ");
  if (schema.allOf) return schema.allOf.map(typeOf).join(" and ");
  if (schema.type === "array")
    return schema.prefixItems
      ? `list of ${schema.prefixItems.map(typeOf).join(", ")}`
      : `list of ${typeOf(schema.items ?? {})}`;
  if (schema.type === "object" && typeof schema.additionalProperties === "object" && !schema.properties)
    return `object with ${typeOf(schema.additionalProperties)} by name`;
  return TYPES[schema.type] ?? (Array.isArray(schema.type) ? schema.type.join(" or ") : "any value");
}

const TYPES = {
  string: "text",
  boolean: "true or false",
  null: "null",
  object: "object",
  integer: "integer",
  number: "number",
};

/** The limits of a text, a number or a list. */
function limitsOf({ minimum, maximum, minLength, maxLength, minItems, maxItems, format, $ref }) {
  if ($ref) return "";
  const between = (from, to, of) =>
    from !== undefined && to !== undefined
      ? `${from} to ${to}${of}`
      : to !== undefined
        ? `at most ${to}${of}`
        : from !== undefined
          ? `at least ${from}${of}`
          : "";
  const isSafe = (value) => (value !== undefined && Math.abs(value) < Number.MAX_SAFE_INTEGER ? value : undefined);
  return [
    between(isSafe(minimum), isSafe(maximum), ""),
    between(minLength, maxLength, " characters"),
    between(minItems, maxItems, " items"),
    format && format !== "binary" ? format : "",
  ]
    .filter(Boolean)
    .join(", ");
}
