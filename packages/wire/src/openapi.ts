import * as z from "zod";
import { type Call, TAGS } from "./call.ts";
import { CALLS } from "./calls.ts";
import { EXAMPLES, jsonOfQuery } from "./lookup-requests.ts";
import { PROBLEMS, problemSchema } from "./problem.ts";

type JsonSchema = Record<string, unknown> & { properties?: Record<string, JsonSchema>; required?: string[] };

/** Parameters that stand in a query string as one text, by name: `LAT,LON` or a list by comma. */
const AS_TEXT = new Set(["at", "near", "from", "to", "box", "countries", "kinds", "lang", "facts", "points", "line"]);
const SHARED = [400, 401, 403, 429, 503];

/**
 * The OpenAPI 3.1 document of the public wire, made from the calls. An operation has one media type, the usual one, so
 * that programs made from the document know what they read; the others are described in words.
 */
export function openApi(version: string): Record<string, unknown> {
  const paths: Record<string, unknown> = {};
  const named: Record<string, JsonSchema> = {};
  named.Problem = schemaOf(problemSchema, "output", named);
  for (const [name, call] of Object.entries(CALLS) as [string, Call][])
    paths[call.path] = Object.fromEntries(
      call.methods.map((method) => [method.toLowerCase(), operation(name, call, method, named)]),
    );
  return {
    openapi: "3.1.1",
    info: {
      title: "Bibliotope",
      version,
      summary: "Address and place search for forms.",
      description:
        "Suggestions, forward and reverse lookups, records, postcodes, countries, a map, published forms, and lookups in batches. Errors are problems (RFC 9457).",
      license: { name: "MIT", identifier: "MIT" },
    },
    servers: [{ url: "/" }],
    tags: Object.entries(TAGS).map(([name, description]) => ({ name, description })),
    security: [{ bearer: [] }, { token: [] }],
    components: {
      securitySchemes: {
        bearer: { type: "http", scheme: "bearer", description: "From servers and programs (RFC 6750)." },
        token: {
          type: "apiKey",
          in: "query",
          name: "access_token",
          description: "From pages: no preflight for each letter.",
        },
      },
      schemas: named,
    },
    paths,
  };
}

function operation(
  name: string,
  call: Call,
  method: "GET" | "POST",
  named: Record<string, JsonSchema>,
): Record<string, unknown> {
  const { asks, answers } = (method === "POST" && call.many) || call;
  const schema = asks && schemaOf(asks, "input", named);
  const isBody = method === "POST" && schema && !call.takes;
  const { status = 200 } = call;
  return {
    operationId: method === call.methods[0] ? name : `${name}Post`,
    tags: [call.tag],
    summary: call.summary,
    description: `${call.description}${formsOf(call)}${keysOf(call)}`,
    parameters: [...pathParameters(call), ...(schema && !isBody ? queryParameters(schema, call) : [])],
    ...(call.takes ? { requestBody: { required: true, content: fileOf(call.takes) } } : {}),
    ...(isBody
      ? { requestBody: { required: true, content: { "application/json": { schema, example: bodyOf(call) } } } }
      : {}),
    responses: {
      [status]: {
        description: call.summary,
        content: { [call.mediaType]: { schema: schemaOf(answers, "output", named) } },
      },
      ...Object.fromEntries(
        [...SHARED, ...(call.path.includes("{") ? [404] : [])].map((other) => [other, problemResponse(other)]),
      ),
    },
  };
}

/** What other forms an answer has. */
function formsOf({ forms }: Call): string {
  if (!forms) return "";
  const listed = Object.entries(forms).map(([word, type]) => `\`format=${word}\` or \`Accept: ${type}\``);
  return ` Other forms of the answer: ${listed.join(", ")}.`;
}

function keysOf({ key }: Call): string {
  return key.kinds ? ` For keys of the kind ${key.kinds.map((kind) => `bt_${kind}_`).join(", ")}.` : "";
}

/** The example of a call as a body has it. */
function bodyOf({ path, example, many }: Call): unknown {
  const params = jsonOfQuery(Object.entries(example).filter(([name]) => !pathPartsOf(path).includes(name)));
  return many ? Object.fromEntries(Object.entries(params).map(([name, value]) => [name, [value]])) : params;
}

const fileOf = (types: readonly string[]) =>
  Object.fromEntries(types.map((type) => [type, { schema: { type: "string", format: "binary" } }]));

const pathPartsOf = (path: string) => [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name);

function pathParameters({ path, example }: Call) {
  return pathPartsOf(path).map((name) => ({
    name,
    in: "path",
    required: true,
    schema: { type: "string" },
    example: example[name],
  }));
}

function queryParameters(request: JsonSchema, { example }: Call) {
  return Object.entries(request.properties ?? {}).map(([name, schema]) => ({
    name,
    in: "query",
    required: request.required?.includes(name) ?? false,
    description: schema.description,
    schema: AS_TEXT.has(name) ? { type: "string" } : schema,
    ...(example[name] === undefined
      ? AS_TEXT.has(name) && { example: EXAMPLES[name] }
      : { example: jsonExample(name, example[name]) }),
  }));
}

/** An example as the parameter's schema has it. */
const jsonExample = (name: string, written: string) =>
  AS_TEXT.has(name) ? written : (jsonOfQuery([[name, written]])[name] ?? EXAMPLES[name]);

function problemResponse(status: number) {
  const found = Object.values(PROBLEMS).find((problem) => problem.status === status);
  return {
    description: found?.title ?? "Too many requests",
    content: { "application/problem+json": { schema: { $ref: "#/components/schemas/Problem" } } },
  };
}

/** A schema as JSON Schema 2020-12; what it names by id goes among the document's own. */
function schemaOf(schema: z.ZodType, io: "input" | "output", named: Record<string, JsonSchema>): JsonSchema {
  const {
    $schema: _,
    $defs,
    ...json
  } = z.toJSONSchema(schema, { io, unrepresentable: "any" }) as JsonSchema & { $defs?: Record<string, JsonSchema> };
  for (const [id, def] of Object.entries($defs ?? {})) named[id] = relink(def);
  return relink(json);
}

function relink(json: JsonSchema): JsonSchema {
  return JSON.parse(JSON.stringify(json).replaceAll('"#/$defs/', '"#/components/schemas/'));
}
