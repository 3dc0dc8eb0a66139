import { workerData } from "node:worker_threads";
import type { FileStart } from "@bibliotope/wire";
import { ownPort } from "../jobs/port.ts";
import { TableError } from "./bytes.ts";
import { type FileToInspect, inspect } from "./inspect.ts";

/** What looking at a file came to: what was seen, or why it cannot be read. */
export type InspectionMessage = { seen: FileStart } | { refused: string };

try {
  ownPort().postMessage({ seen: await inspect(workerData as FileToInspect) } satisfies InspectionMessage);
} catch (error) {
  if (!(error instanceof TableError)) throw error;
  ownPort().postMessage({ refused: error.message } satisfies InspectionMessage);
}
