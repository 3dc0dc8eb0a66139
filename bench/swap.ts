import { readdirSync, unlinkSync } from "node:fs";
import { dirname, join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import pg from "pg";
import { type Load, load } from "./http.ts";
import { atMost, type Measure } from "./measure.ts";

const LOOKUPS = 10_000;
const RATE = 1000;

/**
 * The slowest of ten thousand lookups while the index is built anew and swapped, beside as many without.
 * @param of the lookups to ask for
 * @param readyFile the server's ready.json, beside which its segments lie
 * @throws Error when the index was not swapped meanwhile
 */
export async function measureSwap(of: Load, readyFile: string, database: string): Promise<Measure> {
  // the load has pauses of its own: a third more than it would take without them
  const seconds = Math.ceil((1.35 * LOOKUPS) / RATE);
  const quiet = await load(of, { connections: 8, overallRate: RATE, duration: seconds });
  const isBuilt = takeSegmentsAway(readyFile);
  const loading = load(of, { connections: 8, overallRate: RATE, amount: LOOKUPS });
  const began = performance.now();
  await publishAgain(database);
  while (!isBuilt()) await wait(50);
  const builtIn = (performance.now() - began) / 1000;
  const swapped = await loading;
  if (builtIn > swapped.duration) throw new Error(`the index took ${builtIn} s to build: the load was over before`);
  const beside = [
    `${swapped["2xx"]} answers, ${swapped.non2xx + swapped.errors} failed; built in ${builtIn.toFixed(1)} s`,
    `p99 ${swapped.latency.p99} ms`,
    `without a swap: slowest ${quiet.latency.max} ms, p99 ${quiet.latency.p99} ms`,
  ].join("; ");
  return atMost(
    "slowest lookup while the index is swapped",
    "the demo islands",
    "ms",
    swapped.latency.max,
    100,
    beside,
  );
}

/** Takes the files of all segments away: what is published next has to be built. @returns what tells whether one is there again */
export function takeSegmentsAway(readyFile: string): () => boolean {
  const folder = join(dirname(readyFile), "segments");
  const held = () => readdirSync(folder).filter((name) => name.endsWith(".segment"));
  for (const name of held()) unlinkSync(join(folder, name));
  return () => held().length > 0;
}

/** Publishes the versions that are live once more: with their segment gone it has to be built again. */
export async function publishAgain(url: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await client.query("begin");
    const { rows } = await client.query("insert into publications (created_at) values (now()) returning id");
    await client.query(
      `insert into publication_versions (publication_id, position, version_id)
         select $1, position, version_id from publication_versions
         where publication_id = (select max(publication_id) from publication_versions)`,
      [rows[0].id],
    );
    await client.query("select pg_notify('bibliotope', 'publication')");
    await client.query("commit");
  } finally {
    await client.end();
  }
}
