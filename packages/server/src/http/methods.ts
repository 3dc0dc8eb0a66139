import { CALLS, type Call } from "@bibliotope/wire";
import type { RequestHandler } from "express";
import { HttpProblem } from "./problem.ts";

const PATTERNS = Object.values(CALLS).map((call: Call) => ({
  call,
  pattern: new RegExp(`^${call.path.replace(/\{\w+\}/g, "[^/]+")}/?$`),
}));

const callAt = (path: string): Call | undefined => PATTERNS.find(({ pattern }) => pattern.test(path))?.call;

/** The path of a call with the names of its parts in place of what was asked: `/v1/records/{ref}`. */
export function patternOf(path: string): string | undefined {
  return path === "/v1/openapi.json" ? path : callAt(path)?.path;
}

/** A known path of the wire with another method is 405, an unknown path 404. Comes after all routes. */
export const otherMethods: RequestHandler = (request) => {
  const call = callAt(`/v1${request.path}`);
  if (!call) throw new HttpProblem("not-found", "The wire has no such path. /v1/openapi.json lists what there is.");
  const allowed = call.post ? "GET, POST" : "GET";
  throw new HttpProblem("wrong-method", `This path takes ${allowed.replace(", ", " and ")}.`, undefined, {
    Allow: allowed,
  });
};
