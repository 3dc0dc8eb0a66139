import type { JobState } from "@bibliotope/wire";
import type { Knex } from "knex";
import type { Rows } from "../database/tables.ts";

type Row = Rows["jobs"];

/**
 * A piece of work that takes long. `wanted` is what somebody wants it to do while it runs; `words` are what it is doing, or why
 * it ended.
 */
export interface Job
  extends Pick<Row, "id" | "kind" | "state" | "wanted" | "asked" | "title" | "done" | "total" | "words" | "result"> {
  madeBy: Row["made_by"];
  madeAt: Row["made_at"];
  beganAt: Row["began_at"];
  endedAt: Row["ended_at"];
}

const COLUMNS = {
  id: "id",
  kind: "kind",
  state: "state",
  wanted: "wanted",
  asked: "asked",
  title: "title",
  done: "done",
  total: "total",
  words: "words",
  result: "result",
  madeBy: "made_by",
  madeAt: "made_at",
  beganAt: "began_at",
  endedAt: "ended_at",
};
/** Jobs that are listed. */
const MOST = 50;

export async function makeJob(
  database: Knex,
  job: Pick<Job, "kind" | "asked" | "title" | "total" | "madeBy">,
): Promise<number> {
  const [{ id }] = await database("jobs")
    .insert({
      kind: job.kind,
      asked: JSON.stringify(job.asked),
      title: job.title,
      total: job.total,
      made_by: job.madeBy,
    })
    .returning("id");
  return id;
}

/** The newest first. */
export function listJobs(database: Knex): Promise<Job[]> {
  return database("jobs").select(COLUMNS).orderBy("id", "desc").limit(MOST);
}

/** Jobs that wait or run, by the table: their process may be gone. */
export function unfinishedJobs(database: Knex): Promise<number[]> {
  return database("jobs").whereIn("state", ["waiting", "running"]).orderBy("id").pluck("id");
}

/** Begins a job, or goes on with one whose process is gone. @returns undefined when there is nothing to do */
export async function beginJob(database: Knex, id: number): Promise<Job | undefined> {
  const begun = await database("jobs")
    .where({ id })
    .whereIn("state", ["waiting", "running"])
    .update({ state: "running", began_at: database.raw("coalesce(began_at, now())") });
  return begun ? database("jobs").where({ id }).first(COLUMNS) : undefined;
}

/** Notes how far a running job is; said too late, after its end, it changes nothing. @returns what somebody wants it to do */
export async function noteProgress(
  database: Knex,
  id: number,
  { done, words }: Pick<Job, "done" | "words">,
): Promise<Job["wanted"]> {
  const [row] = await database("jobs").where({ id, state: "running" }).update({ done, words }).returning("wanted");
  return row?.wanted ?? null;
}

export async function endJob(
  database: Knex,
  id: number,
  ended: { state: JobState; words: string; result?: unknown },
): Promise<void> {
  await database("jobs")
    .where({ id })
    .update({
      state: ended.state,
      words: ended.words,
      result: ended.result === undefined ? null : JSON.stringify(ended.result),
      wanted: null,
      ended_at: ended.state === "paused" ? null : database.fn.now(),
      ...(ended.state === "done" ? { done: database.ref("total") } : {}),
    });
}

/** Requests a pause, a cancellation or a resumption of a job; one that does not run is paused or cancelled at once. @returns whether there was one */
export async function wantOfJob(database: Knex, id: number, wanted: "paused" | "cancelled"): Promise<boolean> {
  const now = await database("jobs")
    .where({ id })
    .whereIn("state", ["waiting", "paused"])
    .update({ state: wanted, words: "", ...(wanted === "cancelled" ? { ended_at: database.fn.now() } : {}) });
  return now > 0 || (await database("jobs").where({ id, state: "running" }).update({ wanted })) > 0;
}

/** Lets a paused or failed job go on. */
export async function resumeJob(database: Knex, id: number): Promise<boolean> {
  return (
    (await database("jobs")
      .where({ id })
      .whereIn("state", ["paused", "failed", "cancelled"])
      .update({ state: "waiting", wanted: null, words: "", ended_at: null })) > 0
  );
}
