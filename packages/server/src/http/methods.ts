import { CALLS } from "@bibliotope/wire";
import type { RequestHandler } from "express";
import { HttpProblem } from "./problem.ts";

/** A known path of the wire with another method is 405, an unknown path 404. Comes after all routes. */
export const otherMethods: RequestHandler = (request) => {
  const path = `/v1${request.path.replace(/\/$/, "")}`;
  const call = Object.values(CALLS).find((held) =>
    new RegExp(`^${held.path.replace(/\{\w+\}/g, "[^/]+")}$`).test(path),
  );
  if (!call) throw new HttpProblem("not-found", "The wire has no such path. /v1/openapi.json lists what there is.");
  const allowed = call.post ? "GET, POST" : "GET";
  throw new HttpProblem("wrong-method", `This path takes ${allowed.replace(", ", " and ")}.`, undefined, {
    Allow: allowed,
  });
};
