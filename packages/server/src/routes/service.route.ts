import { PROBLEMS, type ProblemName } from "@bibliotope/wire";
import type { Router } from "express";
import type { Drain } from "../http/drain.ts";
import { escapeHtml } from "../http/pages.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import type { LiveIndex } from "../publication/live-index.ts";

/** `/healthz` (the process answers) and `/readyz` (lookups are answered). */
export function healthRoutes({ index, drain }: { index: LiveIndex; drain: Drain }): Router {
  const router = exactRouter();
  router.get("/healthz", (_request, response) => void response.json({ status: "ok" }));
  router.get("/readyz", (_request, response) => {
    if (drain.ending.aborted) throw new HttpProblem("not-ready", "This process is ending. Ask another one.");
    if (!index.engine)
      throw new HttpProblem("not-ready", "The index is being built.", undefined, { "Retry-After": "2" });
    response.json({ status: "ok", segment: index.engine.segment.meta.name });
  });
  return router;
}

/** What each kind of problem means, for those who follow the link in an error. */
const HELP: Record<ProblemName, string> = {
  malformed:
    "A parameter is missing, misspelt or has a value that cannot be read. The answer's “issues” name each one, with a value that works.",
  "no-key":
    "Send a key with every call: servers and programs in the header Authorization: Bearer, pages as access_token in the query.",
  "not-signed-in": "The workbench answers only after signing in. npm start prints a link that works once.",
  "not-allowed":
    "The key is known, but not for this place: a web key works on the origins it names, a server key never in a browser.",
  "not-found": "The path, the ref or the country is not known here.",
  "wrong-method": "The answer's Allow header names the methods that the path takes.",
  conflict: "Somebody else saved first. Load the newest state and make the change again.",
  withdrawn: "The record was taken out of the data. The answer names what stands in its place.",
  "too-large": "Send less at a time.",
  "wrong-type": "Bodies are JSON, with Content-Type: application/json.",
  "too-many":
    "Wait as long as the Retry-After header says. The RateLimit headers of every answer say how much is left.",
  "not-ready": "The index is being built. The Retry-After header says when to ask again.",
  busy: "More was asked for than can be made soon. The Retry-After header says when to ask again.",
  "no-room": "A disk is full, so nothing could be saved. Make room, then try again; lookups go on.",
  "no-database": "The database does not answer. Lookups go on; saving works again when it is back.",
  broken: "A fault of ours. The server's log has it under the answer's X-Request-Id.",
};

/** `/problems/NAME`: the page that an error's `type` points to. */
export function problemPages(): Router {
  return exactRouter().get("/problems/:name", (request, response) => {
    const name = request.params.name as ProblemName;
    if (!Object.hasOwn(PROBLEMS, name)) throw new HttpProblem("not-found", "No problem has this name.");
    const { status, title } = PROBLEMS[name];
    response
      .type("html")
      .send(
        `<!doctype html><html lang="en"><meta charset="utf-8"><title>${escapeHtml(title)}</title><body><h1>${escapeHtml(title)}</h1><p>Status ${status}.</p><p>${escapeHtml(HELP[name])}</p></body></html>`,
      );
  });
}
