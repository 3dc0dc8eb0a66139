import type { Kept, KeptFor } from "@bibliotope/wire";
import type { Knex } from "knex";
import type { Files } from "../import/files.ts";

/** Days for which things are kept until somebody chooses otherwise. */
const USUAL: Readonly<Record<Kept, number>> = { batches: 365, traces: 180, lookups: 180, files: 14 };

/** For how many days each is kept, in the order in which people read it. */
export async function readRetention(database: Knex): Promise<KeptFor[]> {
  const chosen: { what: Kept; days: number }[] = await database("retention").select("what", "days");
  const days = { ...USUAL, ...Object.fromEntries(chosen.map((one) => [one.what, one.days])) };
  return (Object.keys(USUAL) as Kept[]).map((what) => ({ what, days: days[what] }));
}

export async function setRetention(database: Knex, what: Kept, days: number): Promise<void> {
  await database("retention").insert({ what, days }).onConflict("what").merge();
}

/**
 * Throws away what has been kept long enough; of batches those that have ended, one after another, since each may have millions of rows.
 * @returns how many of each
 */
export async function sweepOld(database: Knex, files: Files): Promise<Record<Kept, number>> {
  const gone: Record<Kept, number> = { batches: 0, traces: 0, lookups: 0, files: 0 };
  for (const { what, days } of await readRetention(database)) {
    const isOld = (column: string) => database.raw("?? < now() - make_interval(days => ?)", [column, days]);
    if (what === "traces") gone.traces = await database("traces").where(isOld("kept_at")).delete();
    if (what === "lookups") gone.lookups = await database("lookups").where(isOld("asked_at")).delete();
    if (what === "batches") {
      const old: number[] = await database("batches")
        .where(isOld("batches.made_at"))
        .whereNotExists(database("jobs").whereRaw("jobs.id = batches.job_id").whereNull("ended_at"))
        .pluck("batches.id");
      for (const id of old) gone.batches += await database("batches").where({ id }).delete();
    }
    if (what === "files") {
      const old: string[] = await database("files").where(isOld("made_at")).pluck("id");
      for (const id of old) gone.files += await files.drop(id);
    }
  }
  return gone;
}
