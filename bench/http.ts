import { fork } from "node:child_process";
import { get } from "node:http";
import { fileURLToPath } from "node:url";
import autocannon, { type Options, type Result } from "autocannon";
import { atLeast, atMost, type Measure } from "./measure.ts";

const SECONDS = 10;
const WARM_UP = 5;

/** Where requests go, and which they are. */
export type Load = Pick<Options, "url" | "requests" | "headers">;

/** What is asked of the server: beginnings of lines, one after the other. */
export function suggestLoad(url: string, key: string): Load {
  const requests = ["12%20harb", "harbour%20row", "osterg", "tidew", "3%20mill"].map((q) => ({
    path: `/v1/suggest?q=${q}`,
  }));
  return { url, requests, headers: { authorization: `Bearer ${key}` } };
}

/** Suggest over HTTP on loopback, every middleware on; beside it an Express route that does nothing. */
export async function* measureHttp(ours: Load): AsyncIterable<Measure> {
  yield* await withEmptyRoute(async (emptyUrl) => {
    const measures: Measure[] = [];
    const empty = { url: emptyUrl, requests: [{ path: "/" }] };
    for (const [rate, target] of [
      [500, 15],
      [800, 10],
    ]) {
      const [theirs, its] = [await warmLoad(empty, 10, rate), await warmLoad(ours, 10, rate)];
      const beside = `${said(its)}; an empty Express route in the same run: p99 ${theirs.latency.p99} ms`;
      measures.push(atMost(`HTTP suggest at ${rate} a second, p99`, CORPUS, "ms", its.latency.p99, target, beside));
    }
    const [theirs, its] = [await warmLoad(empty, 32), await warmLoad(ours, 32)];
    const share = (100 * its["2xx"]) / theirs["2xx"];
    const beside = `${said(its)}; the empty Express route ${(theirs["2xx"] / SECONDS).toFixed(0)} a second`;
    measures.push(atLeast("HTTP suggest at 32 connections, of an empty route", CORPUS, "%", share, 45, beside));
    return measures;
  });
}

const CORPUS = "the demo islands";

/** What a load came to. */
function said({ latency, errors, non2xx, ...counts }: Result): string {
  const rate = (counts["2xx"] / SECONDS).toFixed(0);
  return `${rate} answers a second for ${SECONDS} s, ${non2xx} others, ${errors} errors; median ${latency.p50} ms`;
}

async function warmLoad(of: Load, connections: number, overallRate?: number): Promise<Result> {
  const settings = { connections, ...(overallRate ? { overallRate } : {}) };
  await load(of, { ...settings, duration: WARM_UP });
  return load(of, { ...settings, duration: SECONDS });
}

/** Asks again and again for some seconds. */
export function load(
  of: Load,
  how: Pick<Options, "connections" | "overallRate" | "duration" | "amount">,
): Promise<Result> {
  return autocannon({ ...of, ...how });
}

/** An Express route without anything, in a process of its own, as ours is. */
async function withEmptyRoute<T>(use: (url: string) => Promise<T>): Promise<T> {
  const child = fork(fileURLToPath(new URL("./empty-route.js", import.meta.url)));
  const port = await new Promise<number>((resolve) => child.once("message", (message) => resolve(Number(message))));
  try {
    return await use(`http://127.0.0.1:${port}`);
  } finally {
    child.kill();
  }
}

/** Compressed size of all script that the workbench's first page loads before it shows anything. */
export async function measureFirstPage(url: string): Promise<Measure> {
  const page = (await fetchSized(`${url}/`)).text;
  const scripts = [...page.matchAll(/(?:src|href)="(\/assets\/[^"]+\.js)"/g)].map(([, path]) => path);
  let bytes = 0;
  for (const path of scripts) bytes += (await fetchSized(`${url}${path}`)).bytes;
  return atMost(
    "first page, compressed script",
    "the workbench",
    "kB",
    bytes / 1000,
    250,
    `${scripts.length} files, as sent by the server`,
  );
}

function fetchSized(url: string): Promise<{ bytes: number; text: string }> {
  return new Promise((resolve, reject) => {
    get(url, { headers: { "accept-encoding": url.endsWith(".js") ? "br, gzip" : "identity" } }, (response) => {
      let bytes = 0;
      let text = "";
      response.on("data", (piece: Buffer) => {
        bytes += piece.length;
        text += piece.toString();
      });
      response.on("end", () => resolve({ bytes, text }));
    }).on("error", reject);
  });
}
