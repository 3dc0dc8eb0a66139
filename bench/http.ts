import { fork } from "node:child_process";
import { get } from "node:http";
import { fileURLToPath } from "node:url";
import autocannon from "autocannon";
import { atMost, type Measure } from "./measure.ts";

const RATE = 500;
const SECONDS = 10;
const WARM_UP = 5;

/** Suggest over HTTP on loopback at a fixed rate, every middleware on; beside it an Express route that does nothing. */
export async function measureHttp(url: string, key: string): Promise<Measure> {
  const requests = ["12%20harb", "harbour%20row", "osterg", "tidew", "3%20mill"].map((q) => ({
    path: `/v1/suggest?q=${q}`,
  }));
  const empty = await withEmptyRoute((emptyUrl) => load(emptyUrl, [{ path: "/" }], ""));
  const ours = await load(url, requests, key);
  const beside = [
    `${ours["2xx"]} answers in ${SECONDS} s, ${ours.non2xx} others, ${ours.errors} errors`,
    `median ${ours.latency.p50} ms`,
    `an empty Express route in the same run: median ${empty.latency.p50} ms, p99 ${empty.latency.p99} ms`,
  ].join("; ");
  return atMost(`HTTP suggest at ${RATE} a second, p99`, "the islands", "ms", ours.latency.p99, 15, beside);
}

async function load(url: string, requests: { path: string }[], key: string) {
  const settings = { url, connections: 10, overallRate: RATE, requests, headers: { authorization: `Bearer ${key}` } };
  await autocannon({ ...settings, duration: WARM_UP });
  return autocannon({ ...settings, duration: SECONDS });
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
