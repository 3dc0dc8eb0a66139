import { ownPort } from "./port.ts";

/** Pieces of work that a thread does, by name. */
export type Work = Readonly<Record<string, (options: never) => unknown>>;
export interface WorkTask {
  id: number;
  call: string;
  options: unknown;
}
export type WorkResult = { id: number; result: unknown } | { id: number; failed: string };

/** Does what a `WorkThread` hands over, from now on. */
export function doWork(work: Work): void {
  const port = ownPort();
  port.on("message", async ({ id, call, options }: WorkTask) => {
    try {
      const result: unknown = await work[call](options as never);
      port.postMessage({ id, result } satisfies WorkResult);
    } catch (error) {
      port.postMessage({ id, failed: String(error) } satisfies WorkResult);
    }
  });
}
