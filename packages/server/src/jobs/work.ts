import { readlinkSync } from "node:fs";
import { constants, setPriority } from "node:os";
import { isDatabaseAway } from "../database/connect.ts";
import type { WorkMessage } from "./in-worker.ts";
import { ownPort } from "./port.ts";

/** Lookups come first: on Linux a thread has a priority of its own, and /proc/thread-self names the one that asks. */
export function standBack(): void {
  try {
    setPriority(Number(readlinkSync("/proc/thread-self").split("/").pop()), constants.priority.PRIORITY_LOW);
  } catch {
    // elsewhere the work takes its share like all others
  }
}

export function tell(message: WorkMessage): void {
  ownPort().postMessage(message);
}

/** Does the work of a thread, and tells what it came to. */
export async function work(does: () => Promise<unknown>): Promise<void> {
  standBack();
  try {
    tell({ result: await does() });
  } catch (error) {
    tell({ failed: error instanceof Error ? error.message : String(error), isAway: isDatabaseAway(error) });
  }
}
