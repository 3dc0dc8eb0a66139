import * as z from "zod";
import { CALLS, type Call } from "./calls.ts";
import { PROBLEMS, problemSchema } from "./problem.ts";

type JsonSchema = Record<string, unknown> & { properties?: Record<string, JsonSchema>; required?: string[] };

/** Parameters that stand in a query string as one text, by name: `LAT,LON` or a list by comma. */
const AS_TEXT = new Set(["at", "near", "from", "to", "box", "countries", "kinds", "lang", "facts", "markers", "line"]);
const SHARED = [401, 403, 429, 503];

/** The OpenAPI 3.1 document of the public wire, made from the schemas. */
export function openApi(version: string): Record<string, unknown> {
  const paths: Record<string, unknown> = {};
  const named: Record<string, JsonSchema> = {};
  named.Problem = schemaOf(problemSchema, "output", named);
  for (const [name, call] of Object.entries(CALLS) as [string, Call][]) {
    paths[call.path] = {
      ...(call.takes || call.isOnlyPost ? {} : { get: operation(name, call, "get", named) }),
      ...(call.post ? { post: operation(name, call, "post", named) } : {}),
    };
  }
  return {
    openapi: "3.1.1",
    info: {
      title: "Bibliotope",
      version,
      description:
        "Address and place search for forms: suggestions, forward and reverse lookups, records, countries, published forms.",
    },
    servers: [{ url: "/" }],
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
  method: "get" | "post",
  named: Record<string, JsonSchema>,
): Record<string, unknown> {
  const { asking: asked, answer } = (method === "post" && call.many) || call;
  const asking = asked && schemaOf(asked, "input", named);
  return {
    operationId: method === "get" || call.takes || call.isOnlyPost ? name : `${name}Post`,
    summary: call.summary,
    parameters: [
      ...pathParameters(call.path),
      ...(asking && (method === "get" || call.takes) ? queryParameters(asking) : []),
    ],
    ...(call.takes ? { requestBody: { required: true, content: fileOf(call.takes) } } : {}),
    ...(method === "post" && asking && !call.takes
      ? { requestBody: { required: true, content: { "application/json": { schema: asking } } } }
      : {}),
    responses: {
      [call.takes || call.isOnlyPost ? 202 : 200]: {
        description: call.summary,
        content: {
          [call.mediaType]: { schema: schemaOf(answer, "output", named) },
          ...Object.fromEntries((call.others ?? []).map((type) => [type, { schema: { type: "string" } }])),
        },
      },
      ...Object.fromEntries(
        [400, ...(call.path.includes("{") ? [404] : []), ...SHARED].map((status) => [status, problemResponse(status)]),
      ),
    },
  };
}

const fileOf = (types: readonly string[]) =>
  Object.fromEntries(types.map((type) => [type, { schema: { type: "string", format: "binary" } }]));

function pathParameters(path: string) {
  return [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: "path",
    required: true,
    schema: { type: "string" },
  }));
}

function queryParameters(asking: JsonSchema) {
  return Object.entries(asking.properties ?? {}).map(([name, schema]) => ({
    name,
    in: "query",
    required: asking.required?.includes(name) ?? false,
    description: schema.description,
    schema: AS_TEXT.has(name) ? { type: "string" } : schema,
  }));
}

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
