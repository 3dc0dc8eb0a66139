import { setImmediate as turn } from "node:timers/promises";
import type { Reading } from "@bibliotope/core/import";
import type { Engine } from "@bibliotope/core/search";
import type { BatchAsk, TableFormat } from "@bibliotope/wire";
import type { Knex } from "knex";
import { type Cell, copying, copyRows } from "../database/copy.ts";
import { readTable } from "../import/table.ts";
import { RowLookup } from "./look-up.ts";

/** Parameters of a job that runs a batch. */
export interface BatchJobRequest {
  batch: number;
  path: string;
  format: TableFormat;
  heads: string[] | undefined;
  reading: Reading;
  ask: BatchAsk;
  /** Countries that its key is kept to; all when empty. */
  countries?: string[];
  /** A register to check clear rows against. */
  register?: string;
}

/** Rows that are looked up and stored at once: what a crash costs, and what a pause waits for. */
const CHUNK = 2000;
/** Bytes of their cells, of which one row may have many. */
const CHUNK_BYTES = 16_000_000;
/** Rows after which what waits on the connections gets its turn. */
const TURN = 50;

/**
 * Takes the rows of a file in, then looks them up, some thousand at a time. Each chunk is stored in one transaction: begun again
 * after a crash or a pause, it goes on behind the last one.
 *
 * @param isStopping checked between chunks
 * @returns whether all is done
 */
export async function runBatch(
  database: Knex,
  engine: Engine,
  params: BatchJobRequest,
  progress: (done: number, words: string) => void,
  isStopping: () => boolean,
): Promise<boolean> {
  const rows = await takeIn(database, params, progress, isStopping);
  if (rows === undefined) return false;
  const lookup = new RowLookup(engine, params.reading, params.ask, params.countries);
  let { done, last } = await doneOf(database, params.batch);
  let next = readChunk(database, params.batch, last);
  let storing = Promise.resolve();
  while (!isStopping()) {
    const chunk = await next;
    if (!chunk.length) break;
    last = chunk[chunk.length - 1].number;
    // the database stores the chunk before this one, and reads the one after it, while this one is looked up
    next = readChunk(database, params.batch, last);
    const found: Cell[][] = [];
    for (const [i, { number, cells }] of chunk.entries()) {
      if (i % TURN === TURN - 1) await turn();
      const { query, standing, score, distance, others, answer } = lookup.lookUp(cells);
      found.push([params.batch, number, standing, query, score, distance, others, answer && JSON.stringify(answer)]);
    }
    await storing;
    storing = store(database, found).then(() => {
      done += found.length;
      progress(done, `${done.toLocaleString("en")} of ${rows.toLocaleString("en")} rows looked up`);
    });
    storing.catch(() => undefined);
  }
  await storing;
  // it is taken out at once: the planner is not to take what just came for a handful of rows
  await database.raw("analyze batch_results");
  return done >= rows;
}

/** Rows behind one of a number. */
function readChunk(database: Knex, batch: number, last: number): Promise<{ number: number; cells: string[] }[]> {
  const rows = database("batch_rows").where({ batch_id: batch }).andWhere("number", ">", last);
  const sized = database
    .from(rows.select("number", "cells").orderBy("number").limit(CHUNK).as("rows"))
    .select("number", "cells")
    .select(
      database.raw("sum(octet_length(cells::text)) over (order by number) - octet_length(cells::text) as before"),
    );
  // requested at once, and awaited when it is needed
  const chunk = database
    .from(sized.as("sized"))
    .select("number", "cells")
    .where("before", "<", CHUNK_BYTES)
    .orderBy("number")
    .then();
  chunk.catch(() => undefined);
  return chunk;
}

function store(database: Knex, found: Cell[][]): Promise<void> {
  const columns = ["batch_id", "number", "standing", "asked", "score", "distance", "others", "answer"];
  return database.transaction((transaction) => copyRows(transaction, "batch_results", columns, found));
}

/** Takes the rows of the file in, all of them or none. @returns how many there are; undefined when it was stopped */
async function takeIn(
  database: Knex,
  { batch, path, format, heads }: BatchJobRequest,
  progress: (done: number, words: string) => void,
  isStopping: () => boolean,
): Promise<number | undefined> {
  const stored = await database("batches").where({ id: batch }).first("rows");
  if (stored?.rows != null) return stored.rows;
  const taken = database.transaction(async (transaction) => {
    const rows = await copying(transaction, "batch_rows", ["batch_id", "number", "cells"], async (copy) => {
      let read = 0;
      for await (const some of readTable(path, format, heads)) {
        for (const { number, cells } of some) copy.row([batch, number, arrayOf(cells)]);
        read += some.length;
        progress(0, `Read ${read.toLocaleString("en")} rows`);
        await copy.flow();
        await turn();
        if (isStopping()) throw new StoppedReading();
      }
      return read;
    });
    await transaction.raw("analyze batch_rows");
    await transaction("batches").where({ id: batch }).update({ rows });
    await transaction("jobs")
      .whereIn("id", transaction("batches").select("job_id").where({ id: batch }))
      .update({ total: rows });
    return rows;
  });
  return taken.catch((error: unknown) => {
    if (error instanceof StoppedReading) return undefined;
    throw error;
  });
}

/** Takes back what was read until now. */
class StoppedReading extends Error {}

async function doneOf(database: Knex, batch: number): Promise<{ done: number; last: number }> {
  const [{ done, last }] = await database("batch_results")
    .where({ batch_id: batch })
    .count({ done: "*" })
    .max({ last: "number" });
  return { done: Number(done), last: Number(last ?? 0) };
}

/** An array as PostgreSQL writes it. */
const arrayOf = (cells: readonly string[]) =>
  `{${cells.map((cell) => `"${cell.replaceAll("\0", "").replace(/["\\]/g, (sign) => `\\${sign}`)}"`).join(",")}}`;
