import { fork } from "node:child_process";
import { Agent, request } from "node:http";
import { setTimeout as wait } from "node:timers/promises";
import { fileURLToPath } from "node:url";
import { atMost, type Measure, median, percentile } from "./measure.ts";

/** Calls that are made, how many a second, and how many hang while lookups go on. */
const [CALLS, RATE, HANGING] = [10_000, 200, 500];
/** Seconds for which lookups are timed, and how many a second. */
const [SECONDS, LOOKUPS] = [15, 100];
/** Services that hang: each has no more than two hundred requests under way. */
const HANGERS = ["hanga", "hangb", "hangc"];

const agent = new Agent({ keepAlive: true, maxSockets: 700 });

/**
 * What asking a service through the product takes beyond what the service itself takes, asked at the same rate beside it; and what
 * lookups take while hundreds of calls hang.
 */
export async function* measureServices(ready: {
  url: string;
  signIn: string;
  keys: { srv: string };
}): AsyncIterable<Measure> {
  const child = fork(fileURLToPath(new URL("./five-lines.js", import.meta.url)));
  const port = await new Promise<number>((resolve) => child.once("message", (told) => resolve(told as number)));
  const service = `http://127.0.0.1:${port}`;
  try {
    const call = await signedIn(ready);
    await call("POST", "/hosts", { scheme: "http", host: "127.0.0.1", port, isInside: true });
    const describeIt = async (name: string, path: string, more: object) => {
      const ask = { by: "http", method: "GET", url: `${service}${path}` };
      const values = [{ name: "days", way: "/days", kind: "text", isList: true }];
      const made = { name, title: name, ask, inputs: [{ name: "town", kind: "text" }], values, ...more };
      await call("DELETE", `/services/${name}`, {});
      const saved = await call("PUT", `/services/${name}`, { service: made });
      if (!saved.ok) throw new Error(`the service could not be described: ${await saved.text()}`);
    };
    // as many at once as come after a moment in which the machine stood still
    await describeIt("fivelines", "/days{?town}", { atOnce: 200 });
    for (const name of HANGERS) await describeIt(name, "/hangs", { atOnce: 200, timeLimit: 30 });
    const through = (name: string, i: number) =>
      timed("POST", `${ready.url}/v1/services/${name}`, ready.keys.srv, JSON.stringify({ town: `Town ${i}` }));
    for (let i = 0; i < 100; i++) await through("fivelines", -i);
    const [direct, ours] = await beside(
      (i) => timed("GET", `${service}/days?town=${i}`),
      (i) => through("fivelines", i),
    );
    const of = `${CALLS} calls, ${RATE} a second`;
    const told = `the service ${ms(median(direct))} and ${ms(percentile(direct, 0.99))}, through us ${ms(median(ours))} and ${ms(percentile(ours, 0.99))}, in turn`;
    yield atMost("a service: ours beyond its own, median", of, "ms", median(ours) - median(direct), 3, told);
    yield atMost(
      "a service: ours beyond its own, p99",
      of,
      "ms",
      percentile(ours, 0.99) - percentile(direct, 0.99),
      10,
      told,
    );
    const quiet = await lookups(ready);
    const hanging = Array.from({ length: HANGING }, (_, i) => through(HANGERS[i % HANGERS.length], i));
    await wait(500);
    const during = await lookups(ready);
    const [before, now] = [quiet, during].map((all) => percentile(all, 0.99));
    yield atMost(
      `lookups' p99 while ${HANGING} calls hang`,
      `${LOOKUPS} a second for ${SECONDS} s`,
      "×",
      now / before,
      1.1,
      `${ms(now)}, before ${ms(before)}; medians ${ms(median(during))} and ${ms(median(quiet))}`,
    );
    await Promise.allSettled(hanging);
  } finally {
    child.kill();
  }
}

/** Calls of the workbench as somebody who is signed in. */
async function signedIn({ url, signIn }: { url: string; signIn: string }) {
  const cookie = (await fetch(signIn, { redirect: "manual" })).headers.get("set-cookie")!.split(";")[0];
  const { csrf } = (await (await fetch(`${url}/api/session`, { headers: { cookie } })).json()) as { csrf: string };
  const headers = { cookie, "x-csrf-token": csrf, "content-type": "application/json" };
  return (method: string, path: string, body: object) =>
    fetch(`${url}/api${path}`, { method, headers, body: JSON.stringify(body) });
}

const ms = (value: number) => `${value.toFixed(1)} ms`;

/** Both ways at the rate, call by call in turn, so that both meet the same machine. @returns milliseconds of each */
async function beside(...ways: ((i: number) => Promise<number>)[]): Promise<number[][]> {
  const took = ways.map((): Promise<number>[] => []);
  const began = performance.now();
  for (let i = 0; i < CALLS; i++) {
    while (performance.now() - began < (i * 1000) / RATE) await wait(1);
    for (const [which, way] of ways.entries()) took[which].push(way(i));
  }
  return Promise.all(took.map((all) => Promise.all(all)));
}

async function lookups({ url, keys }: { url: string; keys: { srv: string } }): Promise<number[]> {
  const took: Promise<number>[] = [];
  for (let i = 0; i < SECONDS * LOOKUPS; i++) {
    took.push(timed("GET", `${url}/v1/suggest?q=${(i % 40) + 1}%20harb&limit=${(i % 7) + 1}`, keys.srv));
    await wait(1000 / LOOKUPS);
  }
  return Promise.all(took);
}

/** @returns milliseconds until the whole answer is there */
function timed(method: string, url: string, key?: string, body?: string): Promise<number> {
  return new Promise((resolve, reject) => {
    const began = performance.now();
    const headers = {
      ...(key ? { authorization: `Bearer ${key}` } : {}),
      ...(body ? { "content-type": "application/json", "content-length": Buffer.byteLength(body) } : {}),
    };
    request(url, { method, agent, headers }, (response) => {
      let text = "";
      response.setEncoding("utf8").on("data", (piece: string) => {
        text += piece;
      });
      response.on("end", () => {
        // what was refused took no time
        const isAnswer = response.statusCode === 200 && !/"outcome":"(?!answered|slow|matched)/.test(text);
        if (isAnswer) resolve(performance.now() - began);
        else reject(new Error(`${response.statusCode} ${text.slice(0, 200)}`));
      });
    })
      .on("error", reject)
      .end(body);
  });
}
