import { type Meaning, PLACED } from "@bibliotope/core/import";
import { type BatchAsk, type BatchState, CALLS } from "@bibliotope/wire";
import type { Knex } from "knex";
import * as batches from "../batches/batches.repository.ts";
import { sendBatch, startBatch } from "../batches/start-batch.ts";
import type { Incoming } from "../http/incoming.ts";
import { HttpProblem } from "../http/problem.ts";
import { idOf, mediaTypeOf } from "../http/read-request.ts";
import { jsonReply } from "../http/reply.ts";
import type { Reply, Streamed } from "../http/send-reply.ts";
import type { Handlers } from "../http/wire.ts";
import { malformedTable } from "../import/bytes.ts";
import type { Files } from "../import/files.ts";
import type { FileToInspect } from "../import/inspect.ts";
import type { Inspections } from "../import/inspections.ts";
import type { Jobs } from "../jobs/jobs.ts";
import type { StoredKey } from "../keys/keys.repository.ts";
import type { Services } from "../services/services.ts";
import { checkRegister, noBatch } from "./batches.route.ts";

interface Needs {
  database: Knex;
  jobs: Jobs;
  files: Files;
  inspections: Inspections;
  services: Services;
}

/** Many lookups at once: a file in, by a server key; its rows out again with what was found. */
export function batchHandlers({ database, jobs, files, inspections, services }: Needs) {
  return { makeBatch, batch, batchRows } satisfies Partial<Handlers>;

  async function makeBatch(incoming: Incoming<"makeBatch">): Promise<Reply> {
    const { key, request, params } = incoming;
    checkBatchKey(key);
    const { name = "batch", ask, columns: named, register } = params;
    if (register !== undefined) checkRegister(services, register);
    const { takes } = CALLS.makeBatch;
    if (![...takes, "application/octet-stream"].includes(mediaTypeOf(request)))
      throw new HttpProblem("wrong-type", `Send the file as the body, as ${takes.join(", ")}.`);
    const file = await files.keep(name, request).catch(malformedTable);
    const path = await files.local(file.id).catch(malformedTable);
    const task: FileToInspect = { path, params: { purpose: "batch" }, country: undefined, readings: [] };
    const { format, heads, columns: seen } = await inspections.inspect(task).catch(malformedTable);
    const columns = named ? named.map((meaning) => (meaning ? { meaning } : null)) : seen.map(({ use }) => use);
    if (columns.length !== seen.length)
      throw new HttpProblem("malformed", `The table has ${seen.length} columns, and ${columns.length} are named.`, [
        {
          parameter: "columns",
          message: "has a different number of columns",
          example: seen.map(({ use }) => use?.meaning ?? "").join(","),
        },
      ]);
    if (!columns.some(Boolean) && columns.length === 1) columns[0] = { meaning: "text" };
    const way = ask ?? usualAsk(columns.flatMap((use) => use?.meaning ?? []));
    const { batch: id } = await startBatch(
      { database, jobs },
      path,
      { name, ask: way, format, heads, reading: { columns }, register },
      { madeBy: null, key: key.id, countries: key.countries },
    );
    return jsonReply(incoming, await stateOf(id), performance.now(), {
      status: 202,
      headers: { Location: `/v1/batches/${id}` },
    });
  }

  async function batch(incoming: Incoming<"batch">): Promise<Reply> {
    const { id } = await ownBatch(incoming.parts.id, incoming.key);
    return jsonReply(incoming, await stateOf(id), performance.now());
  }

  async function batchRows(incoming: Incoming<"batchRows">): Promise<Streamed> {
    const batch = await ownBatch(incoming.parts.id, incoming.key);
    const { format = "csv", only } = incoming.params;
    return { stream: (response) => sendBatch(database, batch, format, only === "accepted", response) };
  }

  /** A batch that came by this key; others have none. */
  async function ownBatch(id: string, key: StoredKey): Promise<batches.StoredBatch> {
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
function checkBatchKey(key: StoredKey): void {
  if (key.perMinute || key.perDay)
    throw new HttpProblem(
      "not-allowed",
      `The key “${key.name}” has a rate limit, which a batch would exceed. Use a key without one.`,
    );
}

/** Rows with nothing but a position ask what is there. */
function usualAsk(meanings: readonly Meaning[]): BatchAsk {
  const isOfPlace = (meaning: Meaning) => meaning === "id" || PLACED.has(meaning);
  return meanings.length > 0 && meanings.every(isOfPlace) ? "reverse" : "forward";
}
