import { totalmem } from "node:os";
import { Worker } from "node:worker_threads";
import { DatabaseAway } from "../database/connect.ts";
import { type Running, Stopped } from "./jobs.ts";

export type WorkMessage = { done: number; words: string } | { result: unknown } | { failed: string; isAway?: boolean };

/** Megabytes that a piece of work may take: half of what the machine has, and no more than this. */
const MEMORY = Math.floor(Math.min(8192, totalmem() / 2 ** 21));
/** Milliseconds that a thread gets to end itself. */
const PATIENCE = 5000;

/**
 * Runs a piece of work in a thread of its own, which lookups do not wait for.
 * @param file of the worker, beside the caller
 * @param data what it is started with
 * @param ends whether the thread ends itself when it is asked to stop; else it is ended where it is
 * @returns what the work came to
 */
export function inWorker<T>(file: URL, data: unknown, { progress, stop }: Running, ends = false): Promise<T> {
  const worker = new Worker(file, { workerData: data, resourceLimits: { maxOldGenerationSizeMb: MEMORY } });
  return new Promise<T>((resolve, reject) => {
    let timer: NodeJS.Timeout | undefined;
    const halt = () => {
      if (ends) worker.postMessage(stop.reason);
      timer = setTimeout(() => void worker.terminate(), ends ? PATIENCE : 0);
    };
    if (stop.aborted) halt();
    stop.addEventListener("abort", halt);
    worker.on("message", (message: WorkMessage) => {
      if ("result" in message) resolve(message.result as T);
      else if ("failed" in message)
        reject(message.isAway ? new DatabaseAway(message.failed) : new Error(message.failed));
      else progress(message.done, message.words);
    });
    worker.on("error", (error: NodeJS.ErrnoException) => reject(error.code === OUT_OF_MEMORY ? tooLarge() : error));
    worker.on("exit", (code) => {
      clearTimeout(timer);
      stop.removeEventListener("abort", halt);
      reject(stop.aborted ? new Stopped(stop.reason) : new Error(`The job ended early, with code ${code}.`));
    });
  });
}

const OUT_OF_MEMORY = "ERR_WORKER_OUT_OF_MEMORY";
const tooLarge = () =>
  new Error(`This took more than ${MEMORY.toLocaleString("en")} MB of memory and was stopped. Split the file.`);
