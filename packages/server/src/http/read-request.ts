import type { IncomingMessage } from "node:http";
import { exampleOf, type Issue, jsonOfQuery } from "@bibliotope/wire";
import type { Request } from "express";
import type * as z from "zod";
import { HttpProblem } from "./problem.ts";

/** Words of the query string that are not part of the request. */
const ASIDE = new Set(["access_token", "situation"]);
/** Things that are wrong of which an answer tells. */
const MOST_ISSUES = 10;

/**
 * Reads what a call of the workbench asks, from the query string or from a JSON body.
 * @throws HttpProblem that names each wrong parameter, with a value that works
 */
export function readRequest<S extends z.ZodType>(request: Request, schema: S): z.output<S> {
  const isGet = request.method === "GET" || request.method === "HEAD";
  return read(isGet ? wordsOf(queryOf(request.originalUrl)) : bodyOf(request, request.body), schema);
}

/** Reads what is in the query string, whatever the method. @throws HttpProblem as `readRequest` */
export function readQuery<S extends z.ZodType>(request: Request, schema: S): z.output<S> {
  return read(wordsOf(queryOf(request.originalUrl)), schema);
}

/** @throws HttpProblem that names each wrong parameter, with a value that works */
export function read<S extends z.ZodType>(params: Record<string, unknown>, schema: S): z.output<S> {
  const found = schema.safeParse(params);
  if (found.success) return found.data;
  const all = found.error.issues.flatMap((issue) => issuesOf(issue, params, schema));
  const issues = all.slice(0, MOST_ISSUES);
  const more = all.length > issues.length ? `; and ${all.length - issues.length} more` : "";
  throw new HttpProblem(
    "malformed",
    `${issues.map(({ parameter, message }) => `${parameter}: ${message}`).join("; ")}${more}.`,
    issues,
  );
}

/** Number of a thing in a path, or nought, which nothing has. */
export function idOf(written: string): number {
  return /^\d{1,9}$/.test(written) ? Number(written) : 0;
}

/** The query string as written: Express's own reading would turn brackets into objects. */
export function queryOf(url: string): URLSearchParams {
  const at = url.indexOf("?");
  return new URLSearchParams(at < 0 ? "" : url.slice(at + 1));
}

/** The words of a query string as those of a JSON body. @throws HttpProblem for one that is given twice */
export function wordsOf(query: URLSearchParams): Record<string, unknown> {
  const pairs = [...query].filter(([name]) => !ASIDE.has(name));
  const seen = new Set<string>();
  for (const [name] of pairs) {
    if (seen.has(name))
      throw new HttpProblem("malformed", `${name} is given twice. Separate the items of a list with commas.`, [
        withExample({ parameter: name, message: "is given twice" }),
      ]);
    seen.add(name);
  }
  return jsonOfQuery(pairs);
}

/** The words of a JSON body that was read. @throws HttpProblem where it is none */
export function bodyOf(request: IncomingMessage, body: unknown): Record<string, unknown> {
  if (mediaTypeOf(request) !== "application/json")
    throw new HttpProblem("wrong-type", "Send JSON, with Content-Type: application/json.");
  if (typeof body !== "object" || body === null || Array.isArray(body))
    throw new HttpProblem("malformed", "The body must be a JSON object with the parameters of the call.");
  if (claimsLength(body)) throw new HttpProblem("malformed", "An object in the body has a length that is no number.");
  return body as Record<string, unknown>;
}

/** True where an object claims a length or a size that no schema could compare. */
function claimsLength(value: unknown): boolean {
  if (typeof value !== "object" || value === null) return false;
  if (Array.isArray(value)) return value.some(claimsLength);
  return Object.entries(value).some(
    ([name, known]) => claimsLength(known) || ((name === "length" || name === "size") && typeof known === "object"),
  );
}

/** The media type of a body, without the parameters. */
export const mediaTypeOf = ({ headers }: IncomingMessage) =>
  (headers["content-type"] ?? "").split(";", 1)[0].trim().toLowerCase();

function issuesOf(issue: z.core.$ZodIssue, params: Record<string, unknown>, schema: z.ZodType): Issue[] {
  if (issue.code === "unrecognized_keys")
    return issue.keys.map((name) => ({ parameter: name.slice(0, 60), message: "is not a parameter of this call" }));
  const parameter = String(issue.path[0] ?? "body");
  const isOfOtherType = issue.code === "invalid_type";
  const isPlain = isOfOtherType && issue.message.startsWith("Invalid input");
  const message =
    isOfOtherType && params[parameter] === undefined
      ? "is missing"
      : (isPlain && TYPE_WORDS[issue.expected]) || issue.message.charAt(0).toLowerCase() + issue.message.slice(1);
  return [withExample({ parameter, message }, schema)];
}

const TYPE_WORDS: Partial<Record<string, string>> = {
  boolean: "is not true or false",
  number: "is not a number",
  int: "is not an integer",
  string: "is not text",
  array: "is not a list",
  object: "is not an object",
};

function withExample(issue: Issue, schema?: z.ZodType): Issue {
  const example = exampleOf(schema, issue.parameter);
  return example === undefined ? issue : { ...issue, example: `${issue.parameter}=${example}` };
}
