import { setTimeout as wait } from "node:timers/promises";
import type { Knex } from "knex";
import { inWorker } from "../jobs/in-worker.ts";
import { type Runner, Stopped } from "../jobs/jobs.ts";
import type { LiveIndex } from "../publication/live-index.ts";
import type { Services } from "../services/services.ts";
import { askRegister } from "./ask-register.ts";
import type { BatchTask } from "./batch.worker.ts";
import { countStatuses } from "./batches.repository.ts";
import type { BatchJobRequest } from "./run-batch.ts";

/** Runs batches in a thread of their own, on the index that is open when they begin. */
export function batcher(databaseUrl: string, database: Knex, index: LiveIndex, services: Services): Runner {
  return async (running) => {
    // after a start the job may be at hand before the index is
    while (!index.shared) {
      if (running.stop.aborted) throw new Stopped(running.stop.reason);
      await wait(200);
    }
    const request = running.job.asked as BatchJobRequest;
    const file = new URL("./batch.worker.js", import.meta.url);
    const task: BatchTask = { databaseUrl, request, segment: index.shared };
    const isDone = await inWorker<boolean>(file, task, running, true);
    if (!isDone) throw new Stopped(running.stop.reason);
    const { batch, register } = request;
    if (register) await askRegister(database, services, { batch, register }, running);
    const { clear, doubtful, none } = await countStatuses(database, request.batch);
    const count = (value: number) => value.toLocaleString("en");
    return { words: `${count(clear)} clear, ${count(doubtful)} doubtful, ${count(none)} not found` };
  };
}
