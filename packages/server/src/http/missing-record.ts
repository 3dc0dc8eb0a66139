import { parseRef, refOf } from "@bibliotope/core/place";
import type { Knex } from "knex";
import { everStored } from "../gazetteer/identities.repository.ts";
import { HttpProblem } from "./problem.ts";
import type { SeenEngine } from "./seen-engine.ts";

/** What to say of a ref that no record of the open index has: it was withdrawn, or it never was one. */
export async function missingRecord(
  database: Knex,
  engine: Pick<SeenEngine, "holds">,
  ref: string,
): Promise<HttpProblem> {
  const parts = parseRef(ref);
  if (parts && !engine.holds(parts.identity)) {
    // without the database nobody knows; lookups go on
    const known = await everStored(database, parts.identity).catch(() => undefined);
    const by = known?.replacedBy;
    if (known && by != null && engine.holds(by)) {
      const replaced = refOf(parts.country, by);
      const words = `This record now has another ref, ${replaced}. Store that one.`;
      return new HttpProblem("withdrawn", words, undefined, {}, replaced);
    }
    if (known)
      return new HttpProblem(
        "withdrawn",
        "This record was removed from the data. Look up the address again and store the new ref.",
      );
  }
  return new HttpProblem(
    "not-found",
    "There is no record with this ref. Take refs from suggestions and results; do not construct them.",
  );
}
