import { createHash } from "node:crypto";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { cpus, tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { Random } from "@bibliotope/islands";
import pg from "pg";
import { Asker } from "./asker.ts";
import { makeCorpus } from "./corpus.ts";
import { type Answered, AT_ONCE, answersOf, leasesOf, type Machine } from "./fleet-model.ts";
import { atMost, type Measure, median, percentile } from "./measure.ts";
import { queryClasses } from "./queries.ts";
import { endServer, type Server, startServer, threadTimes } from "./servers.ts";

const [PORT, WARM_UP, SECONDS, IDLE, ALONE] = [5085, 4, 15, 20, 1500];
/** How many processes are compared with those on paper. */
const COUNTS = [1, 2, 3] as const;
/** Of what one process can answer, asked of all together. */
const SHARE = 0.5;
/** Lookups a minute of the key while leases are counted: in one window it is used up to a part. */
const LIMIT = 100_000;

/**
 * Whole servers on one database: constants of one, measured, and with them what one, two and three answer on paper, beside what
 * they do. Whoever asks shares the machine, on paper too.
 */
export async function* measureFleet(database: string, key: string): AsyncIterable<Measure> {
  const folder = mkdtempSync(join(tmpdir(), "bibliotope-fleet-"));
  const client = new pg.Client({ connectionString: database });
  await client.connect();
  const servers: Server[] = [];
  try {
    const texts = queryClasses(makeCorpus("demo", 10_000).samples)
      .filter(({ name }) => ["clean", "one typing error", "abbreviated"].includes(name))
      .flatMap(({ queries }) => queries.map(({ q }) => q));
    const random = new Random(1);
    // somewhere else each time: no answer is one that was kept
    const near = () => `${random.between(-36, -35).toFixed(5)},${random.between(-22, -21).toFixed(5)}`;
    const next = () => `/v1/suggest?q=${encodeURIComponent(random.pick(texts).toWellFormed())}&near=${near()}`;
    let machine: Omit<Machine, "processes"> | undefined;
    for (const count of COUNTS) {
      const home = join(folder, `home-${count}`);
      // its index is not built again
      if (count > 1)
        cpSync(join(folder, "home-1"), home, { recursive: true, filter: (from) => !from.endsWith("ready.json") });
      servers.push(await startServer(home, database, { port: PORT + count - 1 }));
      const askers = servers.map(({ ports }) => new Asker(ports[0], { authorization: `Bearer ${key}` }));
      await answered(askers, next, Number.POSITIVE_INFINITY, WARM_UP);
      if (!machine) {
        const atRest = await restOf(client);
        yield told("transactions of a process at rest", "a second", atRest.transactions, `${IDLE} s`);
        yield told("connections of a process at rest", "", atRest.connections, "with those that listen");
        yield told(
          "transactions on one row",
          "a second",
          await oneRow(database, key),
          `${AT_A_ROW} connections, one waits for the other`,
        );
        machine = await costsOf(servers[0], askers[0], next);
        const [all, beside] = [median(machine.costs), machine.beside];
        yield told(
          "processor time of a lookup in its thread",
          "ms",
          all,
          `median; in other threads ${beside.toFixed(3)}`,
        );
      }
      const rate = SHARE * answersOf({ ...machine, processes: 1 }, Number.POSITIVE_INFINITY, 5).rate;
      for (const asked of [rate, Number.POSITIVE_INFINITY]) {
        const paper = answersOf({ ...machine, processes: count }, asked, SECONDS);
        yield* compared(count, asked, paper, await answered(askers, next, asked, SECONDS));
      }
      yield await leased(client, key, count, (seconds) => answered(askers, next, rate, seconds), rate);
    }
  } finally {
    await Promise.all(servers.map(endServer));
    await client.end();
    rmSync(folder, { recursive: true });
  }
}

const told = (measure: string, of: string, value: number, beside: string): Measure =>
  atMost(measure, of, "", value, Number.POSITIVE_INFINITY, beside);

/** On paper against measured: what is asked at a steady rate by how long it takes, else by how many are answered. */
function* compared(count: number, asked: number, paper: Answered, real: Answered): Iterable<Measure> {
  const isFast = asked === Number.POSITIVE_INFINITY;
  const of = `${count} processes, ${isFast ? `${AT_ONCE} at a time` : `${Math.round(asked)} a second`}`;
  const off = (a: number, b: number) => Math.max(a / b, b / a);
  const beside = (read: (one: Answered) => number, unit: string) =>
    `on paper ${read(paper).toFixed(2)} ${unit}, measured ${read(real).toFixed(2)} ${unit}; busy ${(100 * paper.busy).toFixed(0)} % on paper`;
  if (isFast)
    yield atMost(
      "answers a second, off by",
      of,
      "×",
      off(paper.rate, real.rate),
      1.25,
      beside((one) => one.rate, "a second"),
    );
  else {
    yield atMost(
      "median until the answer, off by",
      of,
      "×",
      off(paper.median, real.median),
      1.5,
      beside((one) => one.median, "ms"),
    );
    yield atMost(
      "p99 until the answer, off by",
      of,
      "×",
      off(paper.p99, real.p99),
      2,
      beside((one) => one.p99, "ms"),
    );
  }
}

/** Asks the processes in turn: at random moments, so many a second, or as fast as they answer. */
async function answered(
  askers: readonly Asker[],
  next: () => string,
  rate: number,
  seconds: number,
): Promise<Answered> {
  const took: number[] = [];
  let asked = 0;
  const ask = async () => {
    const { status, took: time } = await askers[asked++ % askers.length].ask(next());
    if (status === 200) took.push(time);
    // asked as fast as that, it may refuse some
    else if (status !== 503 || rate !== Number.POSITIVE_INFINITY) throw new Error(`not answered: ${status}`);
  };
  const began = performance.now();
  const isOver = () => performance.now() - began >= seconds * 1000;
  if (rate === Number.POSITIVE_INFINITY) {
    const one = async () => {
      while (!isOver()) await ask();
    };
    await Promise.all(Array.from({ length: AT_ONCE }, one));
  } else {
    const random = new Random(asked + 1);
    const underWay: Promise<void>[] = [];
    for (let at = 0; !isOver(); ) {
      const passed = performance.now() - began;
      for (; at <= passed; at += (-Math.log(1 - random.next()) * 1000) / rate) underWay.push(ask());
      await wait(1);
    }
    await Promise.all(underWay);
  }
  return { rate: took.length / seconds, median: median(took), p99: percentile(took, 0.99), busy: Number.NaN };
}

/** What lookups cost, one after the other: as they differ in how long they take, so in what they cost. */
async function costsOf({ child }: Server, asker: Asker, next: () => string): Promise<Omit<Machine, "processes">> {
  const took: number[] = [];
  const before = { threads: threadTimes(child.pid!), own: ownTime() };
  for (let i = 0; i < ALONE; i++) took.push((await asker.ask(next())).took);
  const after = { threads: threadTimes(child.pid!), own: ownTime() };
  const times = [...after.threads].map(([thread, time]) => (time - (before.threads.get(thread) ?? 0)) / 1e6 / ALONE);
  const main = Math.max(...times);
  const all = times.reduce((sum, time) => sum + time, 0);
  const mean = took.reduce((sum, time) => sum + time, 0) / took.length;
  return {
    cores: cpus().length,
    costs: took.map((time) => (time / mean) * main),
    beside: all - main,
    asking: (after.own - before.own) / ALONE,
  };
}

/** Transactions a second, and connections, of one process that is asked nothing. */
async function restOf(client: pg.Client): Promise<{ transactions: number; connections: number }> {
  const count = async () => {
    const sql = "select xact_commit + xact_rollback as n from pg_stat_database where datname = current_database()";
    await client.query("select pg_stat_clear_snapshot()");
    return Number((await client.query(sql)).rows[0].n);
  };
  // the server that was there before is at rest too
  const servers =
    "select count(*) filter (where application_name = 'bibliotope signals') as servers, count(*) - 1 as all from pg_stat_activity where datname = current_database()";
  await wait(3000);
  const before = await count();
  await wait(IDLE * 1000);
  const after = await count();
  const { rows } = await client.query<{ servers: string; all: string }>(servers);
  const running = Number(rows[0].servers);
  // three are of this count itself
  return { transactions: (after - before - 3) / IDLE / running, connections: Number(rows[0].all) / running };
}

/** Connections that write one row, and for how many seconds. */
const [AT_A_ROW, ROW_SECONDS] = [8, 3];

/** Transactions a second of several connections that all write the same row: each waits until the one before is on the disk. */
async function oneRow(database: string, key: string): Promise<number> {
  const began = performance.now();
  const isOver = () => performance.now() - began >= ROW_SECONDS * 1000;
  const written = await Promise.all(
    Array.from({ length: AT_A_ROW }, async () => {
      const client = new pg.Client({ connectionString: database });
      await client.connect();
      let count = 0;
      for (; !isOver(); count++)
        await client.query("update keys set per_minute = per_minute where key_hash = $1", [hashOf(key)]);
      await client.end();
      return count;
    }),
  );
  return written.reduce((sum, count) => sum + count, 0) / ROW_SECONDS;
}

/** Writes on the permits of a key with a limit, in a part of a window, beside those on paper. */
async function leased(
  client: pg.Client,
  key: string,
  count: number,
  ask: (seconds: number) => Promise<Answered>,
  rate: number,
): Promise<Measure> {
  const limit = (most: number | null) =>
    client.query("update keys set per_minute = $1 where key_hash = $2", [most, hashOf(key)]);
  const writes = async () => {
    await client.query("select pg_stat_clear_snapshot()");
    const { rows } = await client.query("select n_tup_upd as n from pg_stat_user_tables where relname = 'permits'");
    return Number(rows[0].n);
  };
  await limit(LIMIT);
  await client.query("notify bibliotope, 'keys'");
  await wait(500);
  const before = await writes();
  const { rate: answeredRate } = await ask(SECONDS);
  // counted by PostgreSQL a second later
  await wait(2500);
  const made = (await writes()) - before;
  await limit(null);
  const paper = leasesOf(count, LIMIT, answeredRate, SECONDS).writes + count;
  return told(
    "writes on a key's permits",
    `${count} processes, ${Math.round(rate)} a second for ${SECONDS} s`,
    made,
    `on paper ${paper}`,
  );
}

const hashOf = (key: string) => createHash("sha256").update(key).digest("base64url");

/** Milliseconds of processor time of this process so far. */
function ownTime(): number {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1000;
}
