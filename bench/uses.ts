import { fork } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { fileURLToPath } from "node:url";
import pg from "pg";
import { type Load, load, suggestLoad } from "./http.ts";
import { atMost, type Measure, median } from "./measure.ts";

/** Rounds of so many lookups, on a server that counts and on one that does not, in turn. */
const [ROUNDS, A_ROUND] = [10, 10_000];
const CONNECTIONS = 16;
/** Milliseconds after which everything counted is written down. */
const WRITTEN = 7000;

/** What counting costs lookups at full load, and whether it counts all of them. */
export async function* measureUses(
  ready: { url: string; keys: { srv: string } },
  database: string,
): AsyncIterable<Measure> {
  const silent = await startSilent(database);
  try {
    const ours = suggestLoad(ready.url, ready.keys.srv);
    const theirs = suggestLoad(silent.url, silent.key);
    const before = await countedOf(database);
    const [counting, plain]: [number[], number[]] = [[], []];
    let answered = 0;
    await round(ours);
    await round(theirs);
    answered += A_ROUND;
    for (let i = 0; i < ROUNDS; i++) {
      const one = await round(ours);
      counting.push(one.latency.p99);
      answered += one["2xx"] + one.non2xx;
      plain.push((await round(theirs)).latency.p99);
    }
    await wait(WRITTEN);
    const counted = (await countedOf(database)) - before;
    const corpus = "the demo islands";
    const share = 100 * (median(counting) / median(plain) - 1);
    yield atMost(
      "lookups that were counted wrong",
      corpus,
      "",
      Math.abs(counted - answered),
      0,
      `${counted} of ${answered}`,
    );
    yield atMost(
      "p99 of lookups at full load that are counted, more than uncounted",
      corpus,
      "%",
      share,
      10,
      `medians of ${ROUNDS} rounds of ${A_ROUND} each, at ${CONNECTIONS} connections: ${median(counting)} ms, uncounted ${median(plain)} ms`,
    );
  } finally {
    silent.stop();
  }
}

const round = (of: Load) => load(of, { connections: CONNECTIONS, amount: A_ROUND });

async function countedOf(url: string): Promise<number> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const { rows } = await client.query("select coalesce(sum(count), 0) as count from uses where call = 'suggest'");
    return Number(rows[0].count);
  } finally {
    await client.end();
  }
}

/** A second server on the same data that counts nothing. */
async function startSilent(database: string): Promise<{ url: string; key: string; stop: () => void }> {
  const home = mkdtempSync(join(tmpdir(), "bibliotope-bench-"));
  const child = fork(fileURLToPath(new URL("../../packages/server/dist/main.js", import.meta.url)), {
    stdio: "ignore",
    env: {
      ...process.env,
      DATABASE_URL: database,
      BIBLIOTOPE_HOME: home,
      BIBLIOTOPE_KEYS: join(home, "keys.json"),
      BIBLIOTOPE_USES: "off",
      PORT: "5090",
    },
  });
  const file = join(home, "ready.json");
  while (!existsSync(file)) await wait(50);
  const { url, keys } = JSON.parse(readFileSync(file, "utf8"));
  return { url, key: keys.srv, stop: () => void child.kill() };
}
