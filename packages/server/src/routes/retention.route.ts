import { KEPT } from "@bibliotope/wire";
import type { Knex } from "knex";
import type { Own, OwnHandlers } from "../http/own.ts";
import { HttpProblem } from "../http/problem.ts";
import * as repository from "../retention/retention.ts";

/** For how long things are kept. */
export function retentionHandlers(database: Knex) {
  return { retention, setRetention } satisfies Partial<OwnHandlers>;

  async function retention() {
    return { kept: await repository.readRetention(database) };
  }

  async function setRetention({ params, parts }: Own<"setRetention">) {
    const what = KEPT.find((one) => one === parts.what);
    if (!what)
      throw new HttpProblem("not-found", `There is no retention setting of that name. There are ${KEPT.join(", ")}.`);
    await repository.setRetention(database, what, params.days);
    return retention();
  }
}
