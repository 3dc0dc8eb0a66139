import type {
  KeepRehearsalRequest,
  KeepTraceRequest,
  KeptRehearsal,
  KeptTrace,
  KeptTraceSummary,
} from "@bibliotope/wire";
import type { Knex } from "knex";

/** Traces of a form that are kept. */
const MOST_TRACES = 20;

/** The rehearsals of a form, in the order in which they were kept. */
export async function listRehearsals(database: Knex, ref: string): Promise<KeptRehearsal[]> {
  const rows = await ofForm(database, "rehearsals", ref).orderBy("rehearsals.id").select("rehearsals.*");
  return rows.map(({ id, name, situation, steps, expected, states, kept_at }) => ({
    id,
    name,
    situation,
    steps,
    expected,
    states,
    keptAt: kept_at.toISOString(),
  }));
}

/** Keeps a rehearsal; one of the same name is replaced. @returns false when there is no such form */
export async function keepRehearsal(
  database: Knex,
  ref: string,
  { name, situation, steps, expected, states = {} }: KeepRehearsalRequest,
): Promise<boolean> {
  const form = await database("forms").where({ ref }).first("id");
  if (!form) return false;
  await database("rehearsals")
    .insert({
      form_id: form.id,
      name,
      situation,
      steps: JSON.stringify(steps),
      expected: JSON.stringify(expected),
      states: JSON.stringify(states),
      kept_at: database.fn.now(),
    })
    .onConflict(["form_id", "name"])
    .merge();
  return true;
}

/** @returns false when the form has no such rehearsal */
export async function dropRehearsal(database: Knex, ref: string, id: number): Promise<boolean> {
  const own = ofForm(database, "rehearsals", ref).where("rehearsals.id", id).select("rehearsals.id");
  return (await database("rehearsals").whereIn("id", own).delete()) === 1;
}

/** What happened in the last runs of a form, the latest first. */
export async function listTraces(database: Knex, ref: string): Promise<KeptTraceSummary[]> {
  const rows = await ofForm(database, "traces", ref)
    .orderBy("traces.id", "desc")
    .select("traces.id", "about", "count", "kept_at");
  return rows.map(summaryOf);
}

export async function readTrace(database: Knex, ref: string, id: number): Promise<KeptTrace | undefined> {
  const row = await ofForm(database, "traces", ref).where("traces.id", id).first("traces.*");
  return row && { ...summaryOf(row), events: row.events };
}

/** Keeps what happened; the oldest beyond twenty go. @returns its id, or undefined when there is no such form */
export async function keepTrace(
  database: Knex,
  ref: string,
  { about, events }: KeepTraceRequest,
): Promise<number | undefined> {
  const form = await database("forms").where({ ref }).first("id");
  if (!form) return undefined;
  const [{ id }] = await database("traces")
    .insert({ form_id: form.id, about, events: JSON.stringify(events), count: events.length })
    .returning("id");
  const tooMany = database("traces").where({ form_id: form.id }).orderBy("id", "desc").offset(MOST_TRACES).select("id");
  await database("traces").whereIn("id", tooMany).delete();
  return id;
}

function ofForm(database: Knex, table: string, ref: string) {
  return database(table).join("forms", "forms.id", `${table}.form_id`).where({ ref });
}

const summaryOf = ({ id, about, count, kept_at }: { id: number; about: string; count: number; kept_at: Date }) => ({
  id,
  about,
  count,
  keptAt: kept_at.toISOString(),
});
