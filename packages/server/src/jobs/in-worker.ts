import { Worker } from "node:worker_threads";
import { type Running, Stopped } from "./jobs.ts";

export type WorkMessage = { done: number; words: string } | { result: unknown } | { failed: string };

/**
 * Runs a piece of work in a thread of its own, which lookups do not wait for.
 * @param file of the worker, beside the caller
 * @param data what it is started with
 * @param ends whether the thread ends itself when it is told to stop; else it is ended where it stands
 * @returns what the work came to
 */
export function inWorker<T>(file: URL, data: unknown, { progress, stop }: Running, ends = false): Promise<T> {
  const worker = new Worker(file, { workerData: data });
  return new Promise<T>((resolve, reject) => {
    const halt = () => {
      if (ends) worker.postMessage(stop.reason);
      else void worker.terminate();
    };
    if (stop.aborted) halt();
    stop.addEventListener("abort", halt);
    worker.on("message", (message: WorkMessage) => {
      if ("result" in message) resolve(message.result as T);
      else if ("failed" in message) reject(new Error(message.failed));
      else progress(message.done, message.words);
    });
    worker.on("error", reject);
    worker.on("exit", (code) => {
      stop.removeEventListener("abort", halt);
      reject(stop.aborted ? new Stopped(stop.reason) : new Error(`The work ended early, with code ${code}.`));
    });
  });
}
