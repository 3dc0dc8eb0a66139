import type { Engine } from "@bibliotope/core/search";
import type { LiveIndex } from "../publication/live-index.ts";
import { HttpProblem } from "./problem.ts";

/** The whole engine, as the workbench asks it. @throws HttpProblem 503 while no index is open */
export function engineOf(index: Pick<LiveIndex, "engine">): Engine {
  if (index.engine) return index.engine;
  throw new HttpProblem("not-ready", "The index is being built. Try again in a moment.", undefined, {
    "Retry-After": "2",
  });
}
