import { parseRef, refOf } from "@bibliotope/core/place";
import type { Knex } from "knex";
import { everHeld } from "../gazetteer/identities.repository.ts";
import { HttpProblem } from "./problem.ts";
import type { SeenEngine } from "./seen-engine.ts";

/** What to say of a ref that no record of the open index has: it was withdrawn, or it never was one. */
export async function missingRecord(
  database: Knex,
  engine: Pick<SeenEngine, "holds">,
  ref: string,
): Promise<HttpProblem> {
  const asked = parseRef(ref);
  if (asked && !engine.holds(asked.identity)) {
    // without the database nobody knows; lookups go on
    const known = await everHeld(database, asked.identity).catch(() => undefined);
    const by = known?.replacedBy;
    if (known && by != null && engine.holds(by)) {
      const replaced = refOf(asked.country, by);
      const words = `This record is now held under another ref, ${replaced}. Keep that one.`;
      return new HttpProblem("withdrawn", words, undefined, {}, replaced);
    }
    if (known)
      return new HttpProblem(
        "withdrawn",
        "This record was taken out of the data. Look the address up again, and keep the new ref.",
      );
  }
  return new HttpProblem(
    "not-found",
    "No record has this ref. Refs come from suggestions and answers; they are not made by hand.",
  );
}
