import { type MessagePort, parentPort } from "node:worker_threads";

/** The port to the thread that started this one. @throws Error on the main thread, which nobody started */
export function ownPort(): MessagePort {
  if (!parentPort) throw new Error("This runs in a thread of its own.");
  return parentPort;
}
