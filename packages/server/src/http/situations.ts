import { setTimeout as wait } from "node:timers/promises";
import { SITUATIONS, type Situation } from "@bibliotope/wire";
import { headerOf, type Incoming } from "./incoming.ts";
import { HttpProblem } from "./problem.ts";

/** Milliseconds by which a slow answer is late: longer than anybody waits gladly, shorter than a client's time limit. */
const SLOW = 2500;

/**
 * What a try key asks for by `situation=` or the header `Bibliotope-Situation`, so that a form can be rehearsed.
 * @throws HttpProblem for one that there is not, and for keys of other kinds
 */
export function situationOf({ call, key, request, query }: Incoming): Situation | undefined {
  const params = headerOf(request, "bibliotope-situation") ?? query.get("situation");
  if (!params || !call.plays) return undefined;
  if (key.kind !== "try")
    throw new HttpProblem("not-allowed", "Situations need a try key (bt_try_…). Leave it out, or use one.");
  const situation = SITUATIONS.find((one) => one === params);
  if (situation) return situation;
  throw new HttpProblem("malformed", `There is no such situation. Use one of ${SITUATIONS.join(", ")}.`, [
    { parameter: "situation", message: "is not known", example: "none" },
  ]);
}

/** Plays a situation as far as it comes before the answer. @throws HttpProblem where there is to be none */
export async function play(situation: Situation): Promise<void> {
  const played = `This is the simulated situation “${situation}”, as requested with a try key.`;
  if (situation === "slow") await wait(SLOW);
  else if (situation === "down") throw new HttpProblem("not-ready", played, undefined, { "Retry-After": "5" });
  else if (situation === "limit") throw new HttpProblem("too-many", played, undefined, { "Retry-After": "30" });
  else if (situation === "refused") throw new HttpProblem("not-allowed", played);
  else if (situation === "malformed") throw new HttpProblem("malformed", played);
}
