import type { FileStart } from "@bibliotope/wire";
import { ownPort } from "../jobs/port.ts";
import { TableError } from "./bytes.ts";
import { type FileToInspect, inspect } from "./inspect.ts";

/** What looking at a file came to: what was seen, or why it cannot be read. */
export type InspectionMessage = { seen: FileStart } | { refused: string };

/** Looks at the one file that is handed over. */
ownPort().once("message", async (file: FileToInspect) => {
  try {
    ownPort().postMessage({ seen: await inspect(file) } satisfies InspectionMessage);
  } catch (error) {
    if (!(error instanceof TableError)) throw error;
    ownPort().postMessage({ refused: error.message } satisfies InspectionMessage);
  }
});
