import { type ChildProcess, fork } from "node:child_process";
import { fileURLToPath } from "node:url";
import { Random } from "@bibliotope/islands";
import autocannon, { type Client } from "autocannon";
import type { SizeName } from "./corpus.ts";
import { atMost, type Measure } from "./measure.ts";
import { WIRE_WAYS, type WireReady, type WireSpent, type WireWay } from "./wire-server.ts";

export const WIRE_SERVER = new URL("./wire-server.js", import.meta.url);
const SECONDS = 12;
const WARM_UP = 6;
const CONNECTIONS = 32;
/** As a browser sends them with each letter. */
export const HEADERS = {
  origin: "https://members.example",
  "sec-fetch-site": "cross-site",
  accept: "*/*",
  "accept-language": "en-GB,en;q=0.9",
  "accept-encoding": "gzip, deflate, br",
};
const KEY = "access_token=bt_web_bench";

/** What an answer costs the process that gives it. */
interface Cost {
  /** Milliseconds of processor time. */
  each: number;
  /** Milliseconds until the answer. */
  median: number;
  p99: number;
  answers: number;
}

/**
 * Processor time of a lookup over HTTP while people type, each letter a request: other addresses with each run, drawn
 * equally, with mistakes. Beside it in the same run an Express route that does nothing, and the same lookups by Express.
 */
export async function* measureTyped(size: SizeName, seed = Date.now() % 1_000_000): AsyncIterable<Measure> {
  const [empty, wire] = [start(new URL("./empty-route.js", import.meta.url)), start(WIRE_SERVER, size, String(seed))];
  try {
    const [{ port }, ready] = [(await empty.told) as { port: number }, (await wire.told) as WireReady];
    const of = `${size}, seed ${seed}`;
    const nothing = await cost(empty.child, port, () => ["/"]);
    const typing = (random: Random) => sessionOf(random.pick(ready.texts));
    const typed = {} as Record<WireWay, Cost>;
    let keptOf = "";
    for (const way of WIRE_WAYS) {
      const before = await spent(wire.child);
      typed[way] = await cost(wire.child, ready.ports[way], typing);
      const after = await spent(wire.child);
      if (way === "kept")
        keptOf = `${Math.round((100 * (after.kept - before.kept)) / (after.requests - before.requests))} % kept`;
    }
    const beside = (one: Cost) =>
      `${one.each.toFixed(3)} ms each, median ${one.median} ms, p99 ${one.p99} ms, ${one.answers} answers; the empty route ${nothing.each.toFixed(3)} ms; by Express ${typed.express.each.toFixed(3)} ms`;
    const ratio = (one: Cost) => one.each / nothing.each;
    yield atMost(
      "processor time of a letter, of an empty route's",
      of,
      "×",
      ratio(typed.kept),
      1,
      `${keptOf}; ${beside(typed.kept)}`,
    );
    yield atMost("the same, no answer kept", of, "×", ratio(typed.bare), 1.8, beside(typed.bare));
    const forward = await cost(wire.child, ready.ports.bare, (random) => [
      `/v1/forward?q=${encodeURIComponent(random.pick(ready.texts))}&${KEY}`,
    ]);
    yield atMost("processor time of forward, of an empty route's", of, "×", ratio(forward), 2, beside(forward));
    const reverse = await cost(wire.child, ready.ports.bare, (random) => [
      `/v1/reverse?at=${random.pick(ready.positions)}&${KEY}`,
    ]);
    yield atMost("processor time of reverse, of an empty route's", of, "×", ratio(reverse), 2, beside(reverse));
  } finally {
    for (const { child } of [empty, wire]) child.kill("SIGKILL");
  }
}

/** One person typing one text: a request for every letter. */
export const sessionOf = (text: string) =>
  Array.from(text, (_, i) => `/v1/suggest?q=${encodeURIComponent(text.slice(0, i + 1).toWellFormed())}&limit=7&${KEY}`);

export function start(file: URL, ...args: string[]): { child: ChildProcess; told: Promise<unknown> } {
  const child = fork(fileURLToPath(file), args);
  const told = new Promise<unknown>((resolve, reject) => {
    child.once("message", (message) => resolve(typeof message === "number" ? { port: message } : message));
    child.once("exit", () => reject(new Error(`${file} ended`)));
  });
  return { child, told };
}

/** Processor time that a process has spent so far. */
export function spent(child: ChildProcess): Promise<WireSpent> {
  return new Promise((resolve) => {
    child.once("message", (message) => resolve(message as WireSpent));
    child.send("spent");
  });
}

/** Asks as fast as answers come, over several connections, each with sessions of its own. */
async function cost(child: ChildProcess, port: number, session: (random: Random) => string[]): Promise<Cost> {
  let seeds = 1;
  const run = (duration: number) =>
    autocannon({
      url: `http://127.0.0.1:${port}`,
      connections: CONNECTIONS,
      duration,
      headers: HEADERS,
      setupClient: (client: Client) => {
        const random = new Random(process.pid * 1000 + seeds++);
        let left: string[] = [];
        const next = () => {
          if (!left.length) left = session(random);
          return left.shift()!;
        };
        client.setRequests([{ setupRequest: (request: object) => ({ ...request, method: "GET", path: next() }) }]);
      },
    });
  await run(WARM_UP);
  const before = await spent(child);
  const { latency, ...counts } = await run(SECONDS);
  const after = await spent(child);
  const answers = counts["2xx"];
  // a machine that stands still for a moment has some refused
  if (counts.non2xx > answers / 100 || counts.errors)
    throw new Error(`${counts.non2xx} other answers, ${counts.errors} errors`);
  return { each: (after.processor - before.processor) / answers, median: latency.p50, p99: latency.p99, answers };
}
