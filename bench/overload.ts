import { setTimeout as wait } from "node:timers/promises";
import { Random } from "@bibliotope/islands";
import { Asker, type Came } from "./asker.ts";
import type { SizeName } from "./corpus.ts";
import { atMost, type Measure } from "./measure.ts";
import { sessionOf, spent, start, WIRE_SERVER } from "./typed.ts";
import type { WireReady } from "./wire-server.ts";

/** Seconds of the flood, and how much more it is than can be answered. */
const [FLOOD, TIMES] = [60, 3];
/** Requests are sent every so many milliseconds, whether or not those before are answered. */
const EVERY = 5;
/** Connections that are open when the flood begins. */
const CONNECTIONS = 1500;
/** Requests under way at once, when it is found out how many can be answered. */
const AT_ONCE = 64;

/**
 * A flood from another process of three times the lookups that can be answered, by clients that leave after a second:
 * how long those wait that are answered, and those that are refused, and how it is a second later.
 */
export async function* measureOverload(size: SizeName): AsyncIterable<Measure> {
  const { child, told } = start(WIRE_SERVER, size, "7");
  try {
    const ready = (await told) as WireReady;
    const random = new Random(Date.now() % 100_000);
    let left: string[] = [];
    const next = () => {
      if (!left.length) left = sessionOf(random.pick(ready.texts));
      return left.shift()!;
    };
    const asker = new Asker(ready.ports.bare);
    const quiet = await steadily(asker, next, 4);
    const most = await asFastAs(asker, next, 6);
    await asker.open(CONNECTIONS);
    const before = await spent(child);
    const came = await flood(asker, next, most * TIMES, FLOOD);
    const after = await spent(child);
    await wait(1000);
    const later = await steadily(asker, next, 4);
    const by = (status: number) => came.filter((one) => one.status === status).map(({ took }) => took);
    const [answered, refused] = [by(200), by(503)];
    const others = came.length - answered.length - refused.length;
    const of = `${size}, ${Math.round(most * TIMES)} a second for ${FLOOD} s, of ${Math.round(most)} that can be answered`;
    const counts = `${answered.length} answered, ${refused.length} refused, ${others} given up`;
    yield atMost(
      "lookups in a flood, p99",
      of,
      "ms",
      share(answered, 0.99),
      250,
      `${counts}; median ${share(answered, 0.5)} ms`,
    );
    yield atMost("refusals in a flood, p99", of, "ms", share(refused, 0.99), 20, `median ${share(refused, 0.5)} ms`);
    const grown = (after.memory - before.memory) / 2 ** 20;
    yield atMost(
      "memory that a flood adds",
      of,
      "bytes",
      Math.max(0, grown) * 2 ** 20,
      100 * 2 ** 20,
      `${Math.round(before.memory / 2 ** 20)} MB before`,
    );
    yield atMost(
      "a second after a flood, p99",
      of,
      "×",
      share(later, 0.99) / share(quiet, 0.99),
      2,
      `p99 ${share(later, 0.99)} ms, before it ${share(quiet, 0.99)} ms`,
    );
  } finally {
    child.kill("SIGKILL");
  }
}

const share = (values: readonly number[], of: number) =>
  Number(
    (values.toSorted((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * of))] ?? 0).toFixed(1),
  );

/** A hundred requests a second. @returns milliseconds of each */
async function steadily(asker: Asker, next: () => string, seconds: number): Promise<number[]> {
  const took: number[] = [];
  for (const end = performance.now() + seconds * 1000; performance.now() < end; await wait(10))
    took.push((await asker.ask(next())).took);
  return took;
}

/** @returns answers a second, with some requests under way at all times */
async function asFastAs(asker: Asker, next: () => string, seconds: number): Promise<number> {
  let answers = 0;
  const end = performance.now() + seconds * 1000;
  const one = async () => {
    while (performance.now() < end) if ((await asker.ask(next())).status === 200) answers++;
  };
  await Promise.all(Array.from({ length: AT_ONCE }, one));
  return answers / seconds;
}

/** So many a second, whether they are answered or not. */
async function flood(asker: Asker, next: () => string, rate: number, seconds: number): Promise<Came[]> {
  const asked: Promise<Came>[] = [];
  const began = performance.now();
  for (let passed = 0; passed < seconds * 1000; passed = performance.now() - began) {
    while (asked.length < (passed * rate) / 1000) asked.push(asker.ask(next()));
    await wait(EVERY);
  }
  return Promise.all(asked);
}
