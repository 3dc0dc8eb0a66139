import { InTurn } from "../jobs/in-turn.ts";
import { WorkThread } from "../jobs/work-thread.ts";
import type { SignInWork } from "./sign-in.worker.ts";

/**
 * Does the work of signing in in a thread of its own. What it needs takes some tenths of a second to load, for which
 * lookups do not wait. Anybody may ask for its work, without a session: what would wait behind many others is refused.
 */
export const signInThread = new WorkThread<SignInWork>(
  new URL("./sign-in.worker.js", import.meta.url),
  new InTurn(8, 200),
);
