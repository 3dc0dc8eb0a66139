import { setTimeout as wait } from "node:timers/promises";

/** Milliseconds between two looks. */
const LOOK_EVERY = 400;

export interface Step {
  state: string;
  words: string;
  /** 0 to 1. */
  share: number;
}

const ENDED = new Set(["done", "failed", "cancelled"]);

/** A line of progress: a bar where it is written to a terminal. */
export function progressLine({ words, share }: Step, width = 24): string {
  const done = Math.round(Math.min(1, Math.max(0, share)) * width);
  return `[${"#".repeat(done)}${".".repeat(width - done)}] ${String(Math.round(share * 100)).padStart(3)} %  ${words}`;
}

/**
 * Looks again and again how far something is, and shows it on the terminal, until it has ended.
 * @throws Error with its own words when it failed
 */
export async function follow<S extends Step>(
  poll: () => Promise<S>,
  out: NodeJS.WriteStream = process.stderr,
): Promise<S> {
  for (;;) {
    const step = await poll();
    if (out.isTTY) out.write(`\r\u001b[2K${progressLine(step)}`);
    if (ENDED.has(step.state)) {
      if (out.isTTY) out.write("\n");
      if (step.state !== "done") throw new Error(step.words || `It was ${step.state}.`);
      return step;
    }
    await wait(LOOK_EVERY);
  }
}
