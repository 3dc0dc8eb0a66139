import { createWriteStream } from "node:fs";
import { basename } from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { BatchState } from "@bibliotope/wire";
import { follow } from "./progress.ts";
import { answerOf, bodyOf, type ServerOptions, serverOf } from "./server.ts";

export interface BatchOptions {
  out?: string;
  format: string;
  ask?: string;
  accepted?: boolean;
  /** A register to check clear rows against; true for the one named `register`. */
  register?: string | true;
}

const TYPES: Readonly<Record<string, string>> = {
  csv: "text/csv",
  tsv: "text/csv",
  txt: "text/csv",
  json: "application/geo+json",
  geojson: "application/geo+json",
  geojsonl: "application/geo+json-seq",
  gz: "application/gzip",
};

/** Looks up all rows of a file, and writes them out with what was found. @param say hears what is done */
export async function batchFile(
  file: string,
  options: BatchOptions,
  server: ServerOptions,
  say: (line: string) => void,
): Promise<void> {
  const { url, key } = serverOf(server);
  const headers = { Authorization: `Bearer ${key}` };
  const type = TYPES[file.split(".").at(-1)?.toLowerCase() ?? ""] ?? "text/csv";
  const query = new URLSearchParams({
    name: basename(file),
    ...(options.ask ? { ask: options.ask } : {}),
    ...(options.register ? { register: options.register === true ? "register" : options.register } : {}),
  });
  const request = fetch(`${url}/v1/batches?${query}`, {
    ...bodyOf(file),
    headers: { ...headers, "Content-Type": type },
  });
  const { id } = await answerOf<BatchState>(request);
  const { words } = await follow(async () => {
    const state = await answerOf<BatchState>(fetch(`${url}/v1/batches/${id}`, { headers }));
    return { state: state.state, words: state.words, share: state.rows ? state.done / state.rows : 0 };
  });
  say(`${words}.`);
  const only = options.accepted ? "&only=accepted" : "";
  const response = await fetch(`${url}/v1/batches/${id}/rows?format=${options.format}${only}`, { headers });
  if (!response.ok || !response.body) throw new Error(`The server returned status ${response.status}.`);
  const rows = Readable.fromWeb(response.body as Parameters<typeof Readable.fromWeb>[0]);
  if (options.out) await pipeline(rows, createWriteStream(options.out));
  else for await (const piece of rows) process.stdout.write(piece);
}
