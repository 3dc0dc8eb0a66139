import { setTimeout as wait } from "node:timers/promises";
import { load, suggestLoad } from "./http.ts";
import { atMost, type Measure } from "./measure.ts";
import { publishAgain, takeSegmentsAway } from "./swap.ts";

const ROWS = 100_000;
const HOW = { connections: 16, overallRate: 200, duration: 30 };

/**
 * Lookups at 200 a second while a batch of a hundred thousand rows runs and a publication is built beside it, and as many
 * with nothing beside.
 * @param ready of the server
 * @param readyFile its ready.json, beside which its segments lie
 * @throws Error when batch or publication could not be begun, or was not under way
 */
export async function* measureBeside(
  ready: { url: string; keys: { srv: string } },
  readyFile: string,
  database: string,
): AsyncGenerator<Measure> {
  const of = suggestLoad(ready.url, ready.keys.srv);
  const quiet = await load(of, HOW);
  const batch = await handIn(ready);
  const isBuilt = takeSegmentsAway(readyFile);
  const loading = load(of, HOW);
  await publishAgain(database);
  const beside = await loading;
  const rows = await batch();
  if (!rows) throw new Error("no row of the batch was looked up meanwhile");
  while (!isBuilt()) await wait(100);
  const words = `${beside["2xx"]} answers; ${rows.toLocaleString("en")} rows of the batch looked up meanwhile`;
  const without = `nothing beside: p99 ${quiet.latency.p99} ms, slowest ${quiet.latency.max} ms`;
  const what = "a batch beside a publication, 200 lookups/s";
  const lost = beside.non2xx + beside.errors + beside.timeouts;
  yield atMost("lookups lost", what, "", lost, 0, words);
  yield atMost("lookups, p99", what, "ms", beside.latency.p99, 50, without);
  yield atMost("slowest lookup", what, "ms", beside.latency.max, 1000, without);
}

/** Hands a batch in. @returns what tells how many of its rows are looked up */
async function handIn({ url, keys }: { url: string; keys: { srv: string } }): Promise<() => Promise<number>> {
  const headers = { authorization: `Bearer ${keys.srv}` };
  const rows = Array.from({ length: ROWS }, (_, i) => `"${1 + (i % 60)} Harbour Row, Tidewell"`);
  const answer = await fetch(`${url}/v1/batches?name=beside.csv`, {
    method: "POST",
    headers: { ...headers, "content-type": "text/csv" },
    body: ["address", ...rows].join("\n"),
  });
  if (answer.status !== 202) throw new Error(`the batch was not taken: ${await answer.text()}`);
  const { id } = (await answer.json()) as { id: string };
  return async () => {
    const { done } = (await (await fetch(`${url}/v1/batches/${id}`, { headers })).json()) as { done: number };
    return done;
  };
}
