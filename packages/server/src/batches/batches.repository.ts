import {
  type BatchAnswer,
  type BatchDetail,
  type BatchPoints,
  type BatchRow,
  type BatchSummary,
  type Decision,
  ROW_STATUSES,
  type RowStatus,
  SCORE_BINS,
} from "@bibliotope/wire";
import type { Knex } from "knex";

export type StatusCounts = Record<RowStatus, number>;

/** Batches that are listed. */
const MOST = 100;

export interface NewBatch {
  name: string;
  ask: string;
  reading: unknown;
  heads: string[] | null;
  madeBy: number | null;
  key: number | null;
  register: string | null;
}

export async function makeBatch(database: Knex, batch: NewBatch): Promise<number> {
  const [{ id }] = await database("batches")
    .insert({
      name: batch.name,
      ask: batch.ask,
      reading: JSON.stringify(batch.reading),
      heads: JSON.stringify(batch.heads),
      made_by: batch.madeBy,
      key_id: batch.key,
      register: batch.register,
    })
    .returning("id");
  return id;
}

export async function setBatchJob(database: Knex, id: number, job: number): Promise<void> {
  await database("batches").where({ id }).update({ job_id: job });
}

export async function countStatuses(database: Knex, batch: number): Promise<StatusCounts> {
  return (await standingsOf(database, [batch])).get(batch) ?? { clear: 0, seen: 0, doubtful: 0, none: 0 };
}

async function standingsOf(database: Knex, batches: readonly number[]): Promise<Map<number, StatusCounts>> {
  const rows: { batch: number; standing: RowStatus; count: number }[] = await database("batch_results")
    .whereIn("batch_id", [...batches])
    .groupBy("batch_id", "standing")
    .select({ batch: "batch_id" }, "standing", database.raw("count(*)::int as count"));
  const counts = new Map<number, StatusCounts>();
  for (const { batch, standing, count } of rows) {
    const own = counts.get(batch) ?? { clear: 0, seen: 0, doubtful: 0, none: 0 };
    own[standing] = count;
    counts.set(batch, own);
  }
  return counts;
}

/** The newest first. @param only the batch, or those of a key */
export async function listBatches(database: Knex, only: { id?: number } = {}): Promise<BatchSummary[]> {
  const rows: ListedBatch[] = await database("batches")
    .leftJoin("jobs", "jobs.id", "batches.job_id")
    .modify((query) => void (only.id !== undefined && query.where("batches.id", only.id)))
    .select("batches.id", "name", "ask", "batches.made_at", "rows", "job_id", "state", "words")
    .select(database.raw("extract(epoch from coalesce(ended_at, now()) - began_at)::float8 as seconds"))
    .orderBy("batches.id", "desc")
    .limit(MOST);
  const counts = await standingsOf(
    database,
    rows.map(({ id }) => id),
  );
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    ask: row.ask,
    madeAt: row.made_at.toISOString(),
    rows: row.rows,
    job: { id: row.job_id ?? 0, state: row.state ?? "waiting", seconds: row.seconds, words: row.words ?? "" },
    counts: counts.get(row.id) ?? { clear: 0, seen: 0, doubtful: 0, none: 0 },
  }));
}

interface ListedBatch extends Pick<BatchSummary, "id" | "name" | "ask" | "rows"> {
  made_at: Date;
  job_id: number | null;
  state: BatchSummary["job"]["state"] | null;
  words: string | null;
  seconds: number | null;
}

export interface StoredBatch {
  id: number;
  name: string;
  ask: BatchSummary["ask"];
  reading: unknown;
  heads: string[] | null;
  /** The register that rows were checked against. */
  register: string | null;
  keyId: number | null;
}

export async function findBatch(database: Knex, id: number): Promise<StoredBatch | undefined> {
  return database("batches")
    .where({ id })
    .first("id", "name", "ask", "reading", "heads", "register", { keyId: "key_id" });
}

export async function readBatch(database: Knex, id: number): Promise<BatchDetail | undefined> {
  const [summary] = await listBatches(database, { id });
  if (!summary) return undefined;
  const [batchRow, scores, exactness, lastHour] = await Promise.all([
    findBatch(database, id),
    database("batch_results")
      .where({ batch_id: id })
      .whereNotNull("score")
      .select("standing", {
        count: database.raw<number>("count(*)::int"),
        bin: database.raw<number>(`least(floor(score * ${SCORE_BINS}), ${SCORE_BINS - 1})::int`),
      })
      .groupBy("standing", "bin"),
    database("batch_results")
      .where({ batch_id: id })
      .whereNotNull("answer")
      .select(database.raw("answer ->> 'exactness' as exactness, count(*)::int as count"))
      .groupBy("exactness"),
    database("batch_decisions")
      .where({ batch_id: id })
      .whereNot({ how: "back" })
      .whereRaw("made_at > now() - interval '1 hour'")
      .count({ count: "*" }),
  ]);
  return {
    ...summary,
    heads: batchRow?.heads ?? null,
    scores,
    exactness: exactness as unknown as BatchDetail["exactness"],
    lastHour: Number(lastHour[0].count),
  };
}

const ROW = {
  number: "number",
  query: "asked",
  standing: "standing",
  score: "score",
  distance: "distance",
  decision: "decision",
};

/** Rows of a batch, the least sure last where there is a score. */
export function listRows(
  database: Knex,
  batch: number,
  standing: RowStatus | undefined,
  { limit, offset }: { limit: number; offset: number },
): Promise<BatchRow[]> {
  return database("batch_results")
    .where({ batch_id: batch })
    .modify((query) => void (standing && query.where({ standing })))
    .select(ROW)
    .select(database.raw("answer ->> 'line' as line"))
    .orderByRaw(standing === "doubtful" ? "score desc nulls last, distance nulls last, number" : "number")
    .limit(limit)
    .offset(offset);
}

export interface StoredRow extends BatchRow {
  cells: string[];
  answer: BatchAnswer | null;
}

export async function readRow(database: Knex, batch: number, number: number): Promise<StoredRow | undefined> {
  return database("batch_results")
    .join("batch_rows", {
      "batch_rows.batch_id": "batch_results.batch_id",
      "batch_rows.number": "batch_results.number",
    })
    .where({ "batch_results.batch_id": batch, "batch_results.number": number })
    .first({ ...ROW, number: "batch_results.number" }, "cells", "answer", database.raw("answer ->> 'line' as line"));
}

/** Keeps what somebody decided about a row; what stood there before is kept too, so that one can go back. */
export async function decide(
  database: Knex,
  row: { batch: number; number: number },
  { how, answer, by }: { how: Decision; answer: BatchAnswer | null; by: number },
): Promise<void> {
  const where = { batch_id: row.batch, number: row.number };
  await database.transaction(async (transaction) => {
    const before = await transaction("batch_results").where(where).forUpdate().first("standing", "answer", "decision");
    await transaction("batch_decisions").insert({ ...where, how, answer: JSON.stringify(before), made_by: by });
    await transaction("batch_results")
      .where(where)
      .update({ standing: "seen", decision: how, answer: answer && JSON.stringify(answer) });
  });
}

/** Takes the last decision of somebody back. @returns the row, or undefined when there was none */
export async function takeBack(database: Knex, batch: number, by: number): Promise<number | undefined> {
  return database.transaction(async (transaction) => {
    const last = await transaction("batch_decisions")
      .where({ batch_id: batch, made_by: by })
      .whereNot({ how: "back" })
      .whereNotExists(
        transaction("batch_decisions as later")
          .whereRaw("later.batch_id = batch_decisions.batch_id and later.number = batch_decisions.number")
          .whereRaw("later.id > batch_decisions.id"),
      )
      .orderBy("id", "desc")
      .first("number", "answer");
    if (!last?.answer) return undefined;
    const where = { batch_id: batch, number: last.number };
    const { standing, answer, decision } = last.answer;
    await transaction("batch_decisions").insert({ ...where, how: "back", made_by: by });
    await transaction("batch_results")
      .where(where)
      .update({ standing, decision, answer: answer && JSON.stringify(answer) });
    return last.number;
  });
}

/** Where the rows of a batch lie. */
export async function readPoints(database: Knex, batch: number): Promise<BatchPoints> {
  const rows = await database("batch_results")
    .where({ batch_id: batch })
    .whereNotNull("answer")
    .select("number", "standing", {
      lat: database.raw<number>("(answer -> 'at' ->> 'lat')::float8"),
      lon: database.raw<number>("(answer -> 'at' ->> 'lon')::float8"),
    })
    .orderBy("number");
  return {
    points: rows.flatMap(({ lat, lon, standing, number }) => [lat, lon, ROW_STATUSES.indexOf(standing), number]),
  };
}

/** Characters of a value that are shown. */
const VALUE_TOLD = 200;

/** What is in a column of the rows that lie somewhere, in the order of their points. */
export async function readValues(
  database: Knex,
  batch: number,
  column: number,
): Promise<{ values: (string | null)[] }> {
  const rows = await database("batch_results")
    .join("batch_rows", (join) => {
      join.on("batch_rows.batch_id", "batch_results.batch_id").andOn("batch_rows.number", "batch_results.number");
    })
    .where("batch_results.batch_id", batch)
    .whereNotNull("answer")
    .select({ value: database.raw<string | null>("left(cells[?::int], ?)", [column + 1, VALUE_TOLD]) })
    .orderBy("batch_results.number");
  return { values: rows.map(({ value }) => value || null) };
}

export async function dropBatch(database: Knex, id: number): Promise<boolean> {
  return (await database("batches").where({ id }).delete()) > 0;
}
