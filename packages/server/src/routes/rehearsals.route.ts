import { keepRehearsalAsking, keepTraceAsking } from "@bibliotope/wire";
import type { Request, Router } from "express";
import type { Knex } from "knex";
import * as rehearsals from "../forms/rehearsals.repository.ts";
import { idOf, readAsking } from "../http/asking.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";

/** `/api/forms/REF/rehearsals` and `/traces`: kept steps of a form, and what happened in its last runs. */
export function rehearsalRoutes(database: Knex): Router {
  const router = exactRouter();
  const refOf = (request: Request) => String(request.params.ref);

  router.get("/forms/:ref/rehearsals", async (request, response) => {
    response.json({ rehearsals: await rehearsals.listRehearsals(database, refOf(request)) });
  });
  router.post("/forms/:ref/rehearsals", async (request, response) => {
    const rehearsal = readAsking(request, keepRehearsalAsking);
    if (!(await rehearsals.keepRehearsal(database, refOf(request), rehearsal))) throw missing("form");
    response.status(201).json({ rehearsals: await rehearsals.listRehearsals(database, refOf(request)) });
  });
  router.delete("/forms/:ref/rehearsals/:id", async (request, response) => {
    if (!(await rehearsals.dropRehearsal(database, refOf(request), idOf(request.params.id))))
      throw missing("rehearsal");
    response.status(204).end();
  });

  router.get("/forms/:ref/traces", async (request, response) => {
    response.json({ traces: await rehearsals.listTraces(database, refOf(request)) });
  });
  router.post("/forms/:ref/traces", async (request, response) => {
    const id = await rehearsals.keepTrace(database, refOf(request), readAsking(request, keepTraceAsking));
    if (id === undefined) throw missing("form");
    response.status(201).json({ id });
  });
  router.get("/forms/:ref/traces/:id", async (request, response) => {
    const trace = await rehearsals.readTrace(database, refOf(request), idOf(request.params.id));
    if (!trace) throw missing("trace");
    response.json(trace);
  });
  return router;
}

const missing = (what: string) => new HttpProblem("not-found", `There is no such ${what}.`);
