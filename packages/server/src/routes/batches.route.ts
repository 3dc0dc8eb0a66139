import type { Reading } from "@bibliotope/core/bring";
import {
  type BatchCandidates,
  batchOutAsking,
  candidatesAsking,
  decideAsking,
  listRowsAsking,
  makeBatchAsking,
} from "@bibliotope/wire";
import type { Request, Router } from "express";
import type { Knex } from "knex";
import * as batches from "../batches/batches.repository.ts";
import { answerOf, RowLookup } from "../batches/look-up.ts";
import { sendBatch, startBatch } from "../batches/start-batch.ts";
import type { Files } from "../bring/files.ts";
import { idOf, readAsking, readQuery } from "../http/asking.ts";
import { engineOf } from "../http/engine.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import { needs } from "../http/session.ts";
import type { Jobs } from "../jobs/jobs.ts";
import type { LiveIndex } from "../publication/live-index.ts";

interface Needs {
  database: Knex;
  jobs: Jobs;
  files: Files;
  index: LiveIndex;
}

/** Rows of a list that are handed out at once. */
const ROWS = 200;

/** `/api/batches`: many lookups at once, and what people decide about the doubtful ones. */
export function batchRoutes({ database, jobs, files, index }: Needs): Router {
  const router = exactRouter();
  router.use("/batches", needs("edit", { reading: true }));

  router.get("/batches", async (_request, response) => {
    response.json({ batches: await batches.listBatches(database) });
  });
  router.post("/batches", async (request, response) => {
    const { file, ...asked } = readAsking(request, makeBatchAsking);
    if (!(await files.find(file)))
      throw new HttpProblem("not-found", "There is no such file any more. Hand it in again.");
    const started = await startBatch({ database, jobs }, files.pathOf(file), asked, {
      madeBy: response.locals.user.id,
      key: null,
    });
    response.status(202).json(started);
  });
  router.get("/batches/:id", async (request, response) => {
    const batch = await batches.readBatch(database, idOf(request.params.id));
    if (!batch) throw noBatch();
    response.json(batch);
  });
  router.delete("/batches/:id", async (request, response) => {
    if (!(await batches.dropBatch(database, idOf(request.params.id)))) throw noBatch();
    response.status(204).end();
  });
  router.get("/batches/:id/rows", async (request, response) => {
    const { show, offset } = readQuery(request, listRowsAsking);
    const standing = show === "all" ? undefined : show;
    const rows = await batches.listRows(database, idOf(request.params.id), standing, { limit: ROWS, offset });
    response.json({ rows });
  });
  router.get("/batches/:id/points", async (request, response) => {
    response.json(await batches.readPoints(database, idOf(request.params.id)));
  });
  router.get("/batches/:id/rows/:number", async (request, response) => {
    const { row, lookup } = await rowOf(request);
    const { text } = readQuery(request, candidatesAsking);
    const candidates = lookup.candidates(row.cells, text).map((candidate) => ({
      ...answerOf(candidate),
      ...("score" in candidate
        ? { score: candidate.score, differences: candidate.differences, gloss: candidate.gloss }
        : {}),
      ...("distance" in candidate ? { distance: candidate.distance } : {}),
    }));
    response.json({ ...row, candidates } satisfies BatchCandidates);
  });
  router.post("/batches/:id/rows/:number/decision", async (request, response) => {
    const { how, place = 0, ref, text } = readAsking(request, decideAsking);
    const { batch, row, lookup } = await rowOf(request);
    const chosen = how === "leave" ? undefined : lookup.candidates(row.cells, text)[place];
    if (how !== "leave" && (!chosen || (ref !== undefined && chosen.ref !== ref)))
      throw new HttpProblem("conflict", "The data has changed meanwhile, and with it the candidates. Look again.");
    await batches.decide(
      database,
      { batch: batch.id, number: row.number },
      { how, answer: chosen ? answerOf(chosen) : row.answer, by: response.locals.user.id },
    );
    response.status(204).end();
  });
  router.post("/batches/:id/back", async (request, response) => {
    const number = await batches.takeBack(database, idOf(request.params.id), response.locals.user.id);
    if (number === undefined) throw new HttpProblem("conflict", "There is no decision of yours to take back.");
    response.json({ number });
  });
  router.get("/batches/:id/out.:format", async (request, response) => {
    const batch = await batches.findBatch(database, idOf(request.params.id));
    if (!batch) throw noBatch();
    await sendBatch(
      database,
      batch,
      request.params.format,
      readQuery(request, batchOutAsking).only === "accepted",
      response,
    );
  });
  return router;

  async function rowOf(request: Request) {
    const batch = await batches.findBatch(database, idOf(String(request.params.id)));
    if (!batch) throw noBatch();
    const row = await batches.readRow(database, batch.id, idOf(String(request.params.number)));
    if (!row) throw new HttpProblem("not-found", "This batch has no such row, or it was not looked up yet.");
    return { batch, row, lookup: new RowLookup(engineOf(index), batch.reading as Reading, batch.ask) };
  }
}

export const noBatch = () => new HttpProblem("not-found", "There is no such batch.");
