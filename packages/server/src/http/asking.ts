import { EXAMPLES, type Issue, jsonOfQuery } from "@bibliotope/wire";
import type { Request } from "express";
import type * as z from "zod";
import { HttpProblem } from "./problem.ts";

/** Words of the query string that are not part of what is asked. */
const ASIDE = new Set(["access_token", "situation"]);

/**
 * Reads what a lookup asks, from the query string or from a JSON body.
 * @throws HttpProblem that names each wrong parameter, with a value that works
 */
export function readAsking<S extends z.ZodType>(request: Request, schema: S): z.output<S> {
  return read(request.method === "GET" || request.method === "HEAD" ? queryOf(request) : bodyOf(request), schema);
}

/** Reads what stands in the query string, whatever the method. @throws HttpProblem as `readAsking` */
export function readQuery<S extends z.ZodType>(request: Request, schema: S): z.output<S> {
  return read(queryOf(request), schema);
}

function read<S extends z.ZodType>(asked: Record<string, unknown>, schema: S): z.output<S> {
  const found = schema.safeParse(asked);
  if (found.success) return found.data;
  const issues = found.error.issues.flatMap((issue) => issuesOf(issue, asked));
  throw new HttpProblem(
    "malformed",
    `${issues.map(({ parameter, message }) => `${parameter}: ${message}`).join("; ")}.`,
    issues,
  );
}

/** Number of a thing in a path, or nought, which nothing has. */
export function idOf(written: string): number {
  return /^\d{1,9}$/.test(written) ? Number(written) : 0;
}

/** The query string as written: Express's own reading would turn brackets into objects. */
function queryOf(request: Request): Record<string, unknown> {
  const at = request.originalUrl.indexOf("?");
  const pairs = [...new URLSearchParams(at < 0 ? "" : request.originalUrl.slice(at + 1))].filter(
    ([name]) => !ASIDE.has(name),
  );
  const seen = new Set<string>();
  for (const [name] of pairs) {
    if (seen.has(name))
      throw new HttpProblem("malformed", `${name} is given twice; lists are written with commas.`, [
        withExample({ parameter: name, message: "is given twice" }),
      ]);
    seen.add(name);
  }
  return jsonOfQuery(pairs);
}

function bodyOf(request: Request): Record<string, unknown> {
  if (!request.is("application/json"))
    throw new HttpProblem("wrong-type", "Send JSON, with Content-Type: application/json.");
  const { body } = request;
  if (typeof body !== "object" || body === null || Array.isArray(body))
    throw new HttpProblem("malformed", "The body must be a JSON object with the words of the call.");
  return body;
}

function issuesOf(issue: z.core.$ZodIssue, asked: Record<string, unknown>): Issue[] {
  if (issue.code === "unrecognized_keys")
    return issue.keys.map((name) => ({ parameter: name.slice(0, 60), message: "is not a parameter of this call" }));
  const parameter = String(issue.path[0] ?? "body");
  const message =
    asked[parameter] === undefined && issue.code === "invalid_type"
      ? "is missing"
      : issue.message.charAt(0).toLowerCase() + issue.message.slice(1);
  return [withExample({ parameter, message })];
}

function withExample(issue: Issue): Issue {
  const example = EXAMPLES[issue.parameter];
  return example === undefined ? issue : { ...issue, example: `${issue.parameter}=${example}` };
}
