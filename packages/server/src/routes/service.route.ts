import { PROBLEMS, type ProblemName } from "@bibliotope/wire";
import type { Router } from "express";
import type { Drain } from "../http/drain.ts";
import { notReady } from "../http/engine.ts";
import { wordsPage } from "../http/pages.ts";
import { HttpProblem } from "../http/problem.ts";
import { basePathOf } from "../http/public-place.ts";
import { exactRouter } from "../http/router.ts";
import type { LiveIndex } from "../publication/live-index.ts";

/** `/healthz` (the process answers) and `/readyz` (what is published is open). */
export function healthRoutes({ index, drain }: { index: LiveIndex; drain: Drain }): Router {
  const router = exactRouter();
  router.get("/healthz", (_request, response) => void response.json({ status: "ok" }));
  router.get("/readyz", (_request, response) => {
    if (drain.ending.aborted) throw new HttpProblem("not-ready", "This process is shutting down.");
    // where nothing is published the workbench is ready, and the first publication may come
    if (!index.engine && !index.hasNothing) throw notReady(index);
    response.json({ status: "ok", segment: index.engine?.segment.meta.name ?? null });
  });
  return router;
}

/** What each kind of problem means, for those who follow the link in an error. */
const HELP: Record<ProblemName, string> = {
  malformed:
    "A parameter is missing, misspelled or has an invalid value. The “issues” of the response name each one, with a value that works.",
  "no-key":
    "Send a key with every call: servers and programs in the header Authorization: Bearer, pages as access_token in the query.",
  "not-signed-in": "The workbench answers only after signing in. npm start prints a link that works once.",
  "not-allowed":
    "The key is valid, but not here: a web key works only on its origins, a server key never in a browser.",
  "not-found": "The path, ref or country is unknown.",
  "wrong-method": "The Allow header names the methods the path accepts.",
  conflict: "Somebody else saved first. Load the latest state and repeat the change.",
  withdrawn: "The record was removed from the data. The response names its replacement, if there is one.",
  "too-large": "Send less at a time.",
  "wrong-type":
    "Bodies are JSON, with Content-Type: application/json; a batch is a file of one of the types that the response names.",
  "too-many":
    "Wait as long as the Retry-After header says. The RateLimit headers of every response say how much is left.",
  "not-ready": "The index is being built, or no data is published yet. The Retry-After header says when to try again.",
  busy: "The server is overloaded. The Retry-After header says when to try again.",
  "no-room": "A disk is full, so nothing could be saved. Free some space and try again. Lookups still work.",
  "no-database": "The database does not respond. Lookups still work; saving works again when it is back.",
  broken: "An internal error. The server's log has it under the X-Request-Id of the response.",
};

/** `/problems/NAME`: the page that an error's `type` points to. */
export function problemPages(): Router {
  return exactRouter().get("/problems/:name", (request, response) => {
    const name = request.params.name as ProblemName;
    if (!Object.hasOwn(PROBLEMS, name)) throw new HttpProblem("not-found", "There is no problem type of this name.");
    const { status, title } = PROBLEMS[name];
    response.type("html").send(wordsPage(title, [`Status ${status}.`, HELP[name]], basePathOf(request)));
  });
}
