import { workerData } from "node:worker_threads";
import type { FileStart } from "@bibliotope/wire";
import { ownPort } from "../jobs/port.ts";
import { TableError } from "./bytes.ts";
import { type FileLook, look } from "./look.ts";

/** What looking at a file came to: what was seen, or why it cannot be read. */
export type LookMessage = { seen: FileStart } | { refused: string };

try {
  ownPort().postMessage({ seen: await look(workerData as FileLook) } satisfies LookMessage);
} catch (error) {
  if (!(error instanceof TableError)) throw error;
  ownPort().postMessage({ refused: error.message } satisfies LookMessage);
}
