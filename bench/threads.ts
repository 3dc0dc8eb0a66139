import { execFile } from "node:child_process";
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { promisify } from "node:util";
import { makeCorpus, type SizeName } from "./corpus.ts";
import { atLeast, atMost, type Measure, median } from "./measure.ts";
import { queryClasses } from "./queries.ts";
import { endServer, type Server, startServer, threadTimes } from "./servers.ts";

const run = promisify(execFile);
const [PORT, ROUNDS, WARM_UP, SECONDS, CONNECTIONS] = [5080, 3, 4, 10, 16];
/** Different requests, so that hardly any answer is one that was kept. */
const REQUESTS = 20_000;
/** How many threads are compared. */
const COUNTS = [1, 2] as const;

/** What a run came to. */
interface Spent {
  requests: number;
  /** Milliseconds of processor time of the server, and of wrk, for each request. */
  server: number;
  wrk: number;
  /** How busy the threads that answer were, 0 to 1, the busiest first. */
  busy: number[];
  /** Bytes that the server then holds. */
  memory: number;
}

/**
 * The whole server with one thread that answers and with two, in turn, asked by wrk as fast as it answers: processor time of a
 * request, how busy each thread is, and the memory that the second takes. At a size other than the demo's the index is that of
 * the streamed islands, laid where the server keeps its own.
 */
export async function* measureThreads(size: SizeName, database: string, key: string): AsyncIterable<Measure> {
  const folder = mkdtempSync(join(tmpdir(), "bibliotope-threads-"));
  try {
    const home = join(folder, "home");
    const first = await startServer(home, database, { port: PORT });
    await endServer(first);
    const texts = makeIndex(size, home);
    const script = join(folder, "asks.lua");
    writeFileSync(script, lua(texts, key));
    const spent = new Map<number, Spent[]>(COUNTS.map((count) => [count, []]));
    for (let round = 0; round < ROUNDS; round++) {
      for (const count of COUNTS) {
        // each on a home of its own, since it writes there
        const own = join(folder, `home-${count}`);
        cpSync(home, own, { recursive: true });
        const server = await startServer(own, database, { port: PORT, threads: count });
        try {
          await ask(server, script, WARM_UP);
          spent.get(count)!.push(await ask(server, script, SECONDS));
        } finally {
          await endServer(server);
          rmSync(own, { recursive: true });
        }
      }
    }
    yield* compared(size, spent.get(1)!, spent.get(2)!);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

function* compared(size: SizeName, one: readonly Spent[], two: readonly Spent[]): Iterable<Measure> {
  const of = `${size}, ${ROUNDS} runs in turn`;
  const mid = (list: readonly Spent[], read: (spent: Spent) => number) => median(list.map(read));
  const told = (list: readonly Spent[]) =>
    `${mid(list, (each) => each.server).toFixed(3)} ms each, wrk itself ${mid(list, (each) => each.wrk).toFixed(3)} ms, ${Math.round(mid(list, ({ requests }) => requests / SECONDS))} a second`;
  yield atMost(
    "processor time of a request, two threads of one's",
    of,
    "×",
    mid(two, ({ server }) => server) / mid(one, ({ server }) => server),
    1.1,
    `one: ${told(one)}; two: ${told(two)}`,
  );
  const busy = [0, 1].map((thread) => mid(two, (each) => each.busy[thread]));
  yield atLeast(
    "the less busy of two threads",
    of,
    "%",
    busy[1] * 100,
    90,
    `the other ${(busy[0] * 100).toFixed(1)} %; one alone ${(mid(one, (each) => each.busy[0]) * 100).toFixed(1)} %`,
  );
  const [alone, both] = [mid(one, ({ memory }) => memory), mid(two, ({ memory }) => memory)];
  yield atMost(
    "memory that the second thread adds",
    of,
    "bytes",
    both - alone,
    100 * 2 ** 20,
    `${Math.round(alone / 2 ** 20)} MB with one, ${Math.round(both / 2 ** 20)} MB with two`,
  );
}

/** Lays the index of a size where the server has its own. @returns what is to be asked of it */
function makeIndex(size: SizeName, home: string): string[] {
  const corpus = makeCorpus(size, REQUESTS);
  if (size !== "demo") {
    const segments = join(home, "segments");
    const [name] = readdirSync(segments);
    writeFileSync(join(segments, name), new Uint8Array(corpus.segment.sections.posting.buffer));
  }
  return queryClasses(corpus.samples)
    .filter(({ name }) => ["clean", "one typing error", "abbreviated"].includes(name))
    .flatMap(({ queries }) => queries.map(({ q }) => q))
    .slice(0, REQUESTS);
}

/** A script of wrk's: each of its threads asks one after the other, from a place of its own on. */
const lua = (texts: readonly string[], key: string) => `
local paths = {
${texts.map((text) => `"/v1/suggest?q=${encodeURIComponent(text.toWellFormed())}",`).join("\n")}
}
local headers = { Authorization = "Bearer ${key}" }
local at = 0
function init(args)
  math.randomseed(os.time() + tonumber(args[1] or "0") * 7919)
  at = math.random(#paths)
end
function request()
  at = at % #paths + 1
  return wrk.format("GET", paths[at], headers)
end`;

/** Asks as fast as it is answered, by a wrk of its own for each port. */
async function ask({ child, ports }: Server, script: string, seconds: number): Promise<Spent> {
  const pid = child.pid!;
  const before = { all: processorTime(pid), threads: threadTimes(pid) };
  const came = await Promise.all(ports.map((port, i) => wrk(port, script, seconds, i)));
  const after = { all: processorTime(pid), threads: threadTimes(pid) };
  const requests = came.reduce((sum, one) => sum + one.requests, 0);
  const busy = [...after.threads]
    .map(([thread, time]) => (time - (before.threads.get(thread) ?? 0)) / 1e9 / seconds)
    .sort((a, b) => b - a);
  return {
    requests,
    server: (after.all - before.all) / requests,
    wrk: came.reduce((sum, one) => sum + one.processor, 0) / requests,
    busy,
    memory: Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))![1]) * 1024,
  };
}

async function wrk(port: number, script: string, seconds: number, number: number) {
  const command = `TIMEFORMAT='spent %U %S'; time "$BENCH_WRK" -t1 -c${CONNECTIONS} -d${seconds}s -s "$0" http://127.0.0.1:${port} -- ${number}`;
  const { stdout, stderr } = await run("bash", ["-c", command, script]);
  const [, user, system] = /spent ([\d.]+) ([\d.]+)/.exec(stderr)!;
  const failed = /Non-2xx or 3xx responses: (\d+)|Socket errors: (.*)/.exec(stdout);
  if (failed) throw new Error(`not all were answered: ${failed[0]}`);
  return {
    requests: Number(/(\d+) requests in/.exec(stdout)![1]),
    processor: (Number(user) + Number(system)) * 1000,
  };
}

/** Milliseconds of processor time of a process so far; the kernel counts hundredths of a second. */
function processorTime(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, "utf8").split(") ")[1].split(" ");
  return (Number(fields[11]) + Number(fields[12])) * 10;
}
