import { type BatchAsk, type BatchState, batchAsking, batchRowsAsking, CALLS } from "@bibliotope/wire";
import type { Router } from "express";
import type { Knex } from "knex";
import * as batches from "../batches/batches.repository.ts";
import { sendBatch, startBatch } from "../batches/start-batch.ts";
import { malformedTable } from "../bring/bytes.ts";
import type { Files } from "../bring/files.ts";
import type { FileLook } from "../bring/look.ts";
import type { Looks } from "../bring/looks.ts";
import { idOf, readQuery } from "../http/asking.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import type { Jobs } from "../jobs/jobs.ts";
import type { HeldKey } from "../keys/keys.repository.ts";
import { noBatch } from "./batches.route.ts";

interface Needs {
  database: Knex;
  jobs: Jobs;
  files: Files;
  looks: Looks;
}

/** `/v1/batches`: a file in, by a server key; its rows out again with what was found. */
export function wireBatchRoutes({ database, jobs, files, looks }: Needs): Router {
  const router = exactRouter();

  router.post("/batches", async (request, response) => {
    const key: HeldKey = response.locals.key;
    checkBatchKey(key);
    const { name = "batch", ask, columns: named } = readQuery(request, batchAsking);
    if (!request.is([...CALLS.makeBatch.takes, "application/octet-stream"]))
      throw new HttpProblem("wrong-type", `Send the file as the body, as ${CALLS.makeBatch.takes.join(", ")}.`);
    const file = await files.keep(name, request).catch(malformedTable);
    const path = files.pathOf(file.id);
    const task: FileLook = { path, asked: { purpose: "batch" }, country: undefined, readings: [] };
    const { format, heads, columns: seen } = await looks.look(task).catch(malformedTable);
    const columns = named ? named.map((meaning) => (meaning ? { meaning } : null)) : seen.map(({ use }) => use);
    if (columns.length !== seen.length)
      throw new HttpProblem("malformed", `The table has ${seen.length} columns, and ${columns.length} are named.`, [
        {
          parameter: "columns",
          message: "names another number of columns",
          example: seen.map(({ use }) => use?.meaning ?? "").join(","),
        },
      ]);
    if (!columns.some(Boolean) && columns.length === 1) columns[0] = { meaning: "text" };
    const asked = ask ?? usualAsk(columns.flatMap((use) => use?.meaning ?? []));
    const { batch } = await startBatch(
      { database, jobs },
      path,
      { name, ask: asked, format, heads, reading: { columns } },
      { madeBy: null, key: key.id },
    );
    response
      .status(202)
      .location(`/v1/batches/${batch}`)
      .json(await stateOf(batch));
  });
  router.get("/batches/:id", async (request, response) => {
    response.json(await stateOf((await ownBatch(request.params.id, response.locals.key)).id));
  });
  router.get("/batches/:id/rows", async (request, response) => {
    const batch = await ownBatch(request.params.id, response.locals.key);
    const { format = "csv", only } = readQuery(request, batchRowsAsking);
    await sendBatch(database, batch, format, only === "accepted", response);
  });
  return router;

  /** A batch that came by this key; others have none. */
  async function ownBatch(id: string, key: HeldKey): Promise<batches.HeldBatch> {
    const batch = await batches.findBatch(database, idOf(id));
    if (batch?.keyId !== key.id) throw noBatch();
    return batch;
  }

  async function stateOf(id: number): Promise<BatchState> {
    const [{ name, rows, job, counts }] = await batches.listBatches(database, { id });
    const done = counts.clear + counts.seen + counts.doubtful + counts.none;
    return { id: String(id), name, state: job.state, rows, done, counts, words: job.words };
  }
}

/** @throws HttpProblem for a key that may not ask so much at once */
function checkBatchKey(key: HeldKey): void {
  if (key.kind !== "srv")
    throw new HttpProblem("not-allowed", "Batches are for server keys: this one stands where others can read it.");
  if (key.perMinute || key.perDay || key.countries.length)
    throw new HttpProblem(
      "not-allowed",
      `The key “${key.name}” is kept to an amount or to countries, which a batch would go beyond. Use one that is not.`,
    );
}

/** Rows with nothing but a position ask what is there. */
function usualAsk(meanings: readonly string[]): BatchAsk {
  const isOfPlace = (meaning: string) => ["lat", "lon", "position", "east", "north", "id"].includes(meaning);
  return meanings.length > 0 && meanings.every(isOfPlace) ? "reverse" : "forward";
}
