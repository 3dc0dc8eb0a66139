import { parseRef } from "@bibliotope/core/place";
import type { Engine } from "@bibliotope/core/search";
import type { Knex } from "knex";
import { wasEverHeld } from "../gazetteer/gazetteer.repository.ts";
import { HttpProblem } from "./problem.ts";

/** What to say of a ref that no record of the open index has: it was withdrawn, or it never was one. */
export async function missingRecord(database: Knex, engine: Engine, ref: string): Promise<HttpProblem> {
  const identity = parseRef(ref)?.identity;
  const isHeld = identity !== undefined && engine.layers.some(({ segment }) => segment.find(identity) !== undefined);
  // without the database nobody knows; lookups go on
  if (identity !== undefined && !isHeld && (await wasEverHeld(database, identity).catch(() => false)))
    return new HttpProblem(
      "withdrawn",
      "This record was taken out of the data. Look the address up again, and keep the new ref.",
    );
  return new HttpProblem(
    "not-found",
    "No record has this ref. Refs come from suggestions and answers; they are not made by hand.",
  );
}
