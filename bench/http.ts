import { get } from "node:http";
import autocannon, { type Options, type Result } from "autocannon";
import { atMost, type Measure } from "./measure.ts";

/** Where requests go, and which they are. */
export type Load = Pick<Options, "url" | "requests" | "headers">;

/** What is requested of the server: beginnings of lines, one after the other. */
export function suggestLoad(url: string, key: string): Load {
  const requests = ["12%20harb", "harbour%20row", "osterg", "tidew", "3%20mill"].map((q) => ({
    path: `/v1/suggest?q=${q}`,
  }));
  return { url, requests, headers: { authorization: `Bearer ${key}` } };
}

/** Asks again and again for some seconds. */
export function load(
  of: Load,
  how: Pick<Options, "connections" | "overallRate" | "duration" | "amount">,
): Promise<Result> {
  return autocannon({ ...of, ...how });
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
