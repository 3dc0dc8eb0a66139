import type { Engine } from "@bibliotope/core/search";
import type { LiveIndex } from "../publication/live-index.ts";
import { HttpProblem } from "./problem.ts";

/** The engine without a key's limits, for the workbench. @throws HttpProblem 503 while no index is open */
export function engineOf(index: Pick<LiveIndex, "engine"> & Partial<Pick<LiveIndex, "hasNothing">>): Engine {
  if (index.engine) return index.engine;
  throw notReady(index);
}

/** Why no lookup is answered: nothing is published, or it is not open yet. */
export function notReady({ hasNothing }: Partial<Pick<LiveIndex, "hasNothing">>): HttpProblem {
  const why = hasNothing ? "No data is published yet." : "The index is being built. Try again in a moment.";
  return new HttpProblem("not-ready", why, undefined, { "Retry-After": hasNothing ? "60" : "2" });
}
