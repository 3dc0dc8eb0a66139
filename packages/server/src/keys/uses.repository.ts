import { type KeyCall, PAGE_CALLS, type UseOutcome, type UsesAnswer, type UsesRequest } from "@bibliotope/wire";
import type { Knex } from "knex";

/** So many lookups of one kind by one key that ended alike and took alike, in one hour. */
export interface Use {
  hour: Date;
  key_id: number;
  call: KeyCall;
  outcome: UseOutcome;
  /** Of how long they took; see `bucketOf`. */
  bucket: number;
  count: number;
}

/** Choices from a list after so many characters, in one hour. */
export interface Choices {
  hour: Date;
  key_id: number;
  letters: number;
  count: number;
}

/** Buckets of time, eight to a doubling: 9 % wide. */
const TO_A_DOUBLING = 8;
const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Up to so many days are shown by the hour. */
const BY_HOUR = 8;

export const bucketOf = (milliseconds: number) => Math.round(TO_A_DOUBLING * Math.log2(Math.max(0.01, milliseconds)));

const millisecondsOf = (bucket: number) => Number((2 ** (bucket / TO_A_DOUBLING)).toPrecision(3));

/** Adds counts to those already there. */
export async function addUses(database: Knex, uses: Use[], choices: Choices[]): Promise<void> {
  await database.transaction(async (transaction) => {
    for (const [table, rows, unique] of [
      ["uses", uses, ["hour", "key_id", "call", "outcome", "bucket"]],
      ["choices", choices, ["hour", "key_id", "letters"]],
    ] as const) {
      for (let i = 0; i < rows.length; i += 1000)
        await transaction(table)
          .insert(rows.slice(i, i + 1000))
          .onConflict([...unique])
          .merge({ count: transaction.raw("?? + excluded.count", [`${table}.count`]) });
    }
  });
}

/** How keys were used over the last days. */
export async function readUses(database: Knex, { days, key }: UsesRequest, now = new Date()): Promise<UsesAnswer> {
  const step = days <= BY_HOUR ? "hour" : "day";
  const width = step === "hour" ? HOUR : DAY;
  const from = new Date(Math.floor(now.getTime() / width) * width + width - days * DAY);
  const within = (table: string, since = from) =>
    database(table)
      .where("hour", ">=", since)
      .modify((query) => key !== undefined && query.where({ key_id: key }));
  const lookups = (since = from) => within("uses", since).whereNotIn("call", [...PAGE_CALLS]);
  const at = database.raw("date_trunc(?, hour at time zone 'UTC') at time zone 'UTC'", [step]);
  const [uses, buckets, [choices], pace] = await Promise.all([
    within("uses")
      .select({ at }, "call", "outcome")
      .sum({ count: "count" })
      .groupBy("at", "call", "outcome")
      .orderBy(["at", "call", "outcome"]),
    lookups().select({ at }, "bucket").sum({ count: "count" }).groupBy("at", "bucket").orderBy(["at", "bucket"]),
    within("choices").select(
      database.raw("coalesce(sum(count), 0) as count, coalesce(sum(count * letters), 0) as letters"),
    ),
    lookups(new Date(now.getTime() - 7 * DAY))
      .min({ first: "hour" })
      .sum({ count: "count" })
      .first(),
  ]);
  const timed: { at: string; bucket: number; count: number }[] = buckets.map((row: TimedRow) => ({
    ...row,
    at: row.at.toISOString(),
    count: Number(row.count),
  }));
  const moments = [...new Set(timed.map((row) => row.at))];
  return {
    step,
    from: from.toISOString(),
    to: now.toISOString(),
    uses: uses.map((row: UsesRow) => ({ ...row, at: row.at.toISOString(), count: Number(row.count) })),
    times: moments.map((moment) => {
      const rows = timed.filter((row) => row.at === moment);
      return { at: moment, median: quantile(rows, 0.5), p99: quantile(rows, 0.99) };
    }),
    median: timed.length ? quantile(timed, 0.5) : null,
    p99: timed.length ? quantile(timed, 0.99) : null,
    choices: { count: Number(choices.count), letters: Number(choices.letters) },
    month: monthAt(pace, now),
  };
}

/** Every count of the last days, with the key's name. */
export async function listUses(database: Knex, { days, key }: UsesRequest) {
  const rows = await database("uses")
    .join("keys", "keys.id", "uses.key_id")
    .where("hour", ">=", new Date(Date.now() - days * DAY))
    .modify((query) => key !== undefined && query.where({ key_id: key }))
    .select("hour", "key_id", "name", "call", "outcome")
    .sum({ count: "count" })
    .groupBy("hour", "key_id", "name", "call", "outcome")
    .orderBy(["hour", "key_id", "call", "outcome"]);
  return rows.map((row) => ({ ...row, hour: row.hour.toISOString(), count: Number(row.count) }));
}

interface TimedRow {
  at: Date;
  bucket: number;
  count: string;
}

interface UsesRow {
  at: Date;
  call: KeyCall;
  outcome: UseOutcome;
  count: string;
}

/** Milliseconds below which that share of lookups took. */
function quantile(rows: readonly { bucket: number; count: number }[], share: number): number {
  const counts = new Map<number, number>();
  for (const { bucket, count } of rows) counts.set(bucket, (counts.get(bucket) ?? 0) + count);
  const sorted = [...counts].sort(([a], [b]) => a - b);
  let beyond = sorted.reduce((sum, [, count]) => sum + count, 0) * share;
  for (const [bucket, count] of sorted) {
    beyond -= count;
    if (beyond <= 0) return millisecondsOf(bucket);
  }
  return 0;
}

function monthAt(pace: { first?: Date | null; count?: string | number } | undefined, now: Date): number | null {
  if (!pace?.first) return null;
  const hours = (now.getTime() - pace.first.getTime()) / HOUR;
  return hours < 1 ? null : Math.round((Number(pace.count) / hours) * 24 * 30);
}
