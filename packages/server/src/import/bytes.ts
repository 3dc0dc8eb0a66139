import { createReadStream } from "node:fs";
import { open } from "node:fs/promises";
import { type Readable, Transform } from "node:stream";
import { createGunzip } from "node:zlib";
import type { TableEncoding } from "@bibliotope/wire";
import { HttpProblem } from "../http/problem.ts";
import { textDecoder } from "../text-decoder.ts";

/** A file that is not of its declared format; the words are for the person who uploaded it. */
export class TableError extends Error {}

/** Tells the person what is wrong with a file. */
export function malformedTable(error: unknown): never {
  if (error instanceof TableError) throw new HttpProblem("malformed", error.message);
  throw error;
}

/** How much of a file is looked at to find out how it is written, in bytes once unpacked. */
export const SAMPLE = 1 << 20;
/** A packed file may unpack to so many times its size, and this much in any case. */
const MOST_TIMES = 200;
const ALWAYS = 16 << 20;

/** Bytes of a file, unpacked where it is gzipped. */
async function openBytes(path: string): Promise<Readable> {
  const handle = await open(path, "r");
  const head = Buffer.alloc(2);
  const { size } = await handle.stat();
  await handle.read(head, 0, 2, 0);
  await handle.close();
  const file = createReadStream(path, { highWaterMark: 1 << 18 });
  if (head[0] !== 0x1f || head[1] !== 0x8b) return file;
  const unpack = createGunzip();
  const guard = guardAgainstBombs(size);
  unpack.on("error", (error: NodeJS.ErrnoException) =>
    guard.destroy(
      new TableError(
        error.code === "Z_BUF_ERROR"
          ? "The gzip file ends too early: it was not written or copied completely."
          : `The gzip file is damaged (${error.message}).`,
      ),
    ),
  );
  file.on("error", (error) => guard.destroy(error));
  guard.on("close", () => {
    file.destroy();
    unpack.destroy();
  });
  file.pipe(unpack).pipe(guard);
  return guard;
}

function guardAgainstBombs(packed: number): Transform {
  const most = Math.max(ALWAYS, packed * MOST_TIMES);
  let read = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      read += chunk.length;
      if (read > most)
        done(new TableError(`The file unpacks to more than ${MOST_TIMES} times its size. It is not read further.`));
      else done(null, chunk);
    },
  });
}

/** The first bytes of a file, unpacked. @throws TableError when it is empty or no text */
export async function sampleOf(path: string): Promise<Buffer> {
  const pieces: Buffer[] = [];
  let length = 0;
  const bytes = await openBytes(path);
  for await (const piece of bytes as AsyncIterable<Buffer>) {
    pieces.push(piece);
    length += piece.length;
    if (length >= SAMPLE) break;
  }
  bytes.destroy();
  const sample = Buffer.concat(pieces).subarray(0, SAMPLE);
  if (!sample.length) throw new TableError("The file is empty.");
  return sample;
}

/** How text is most likely written. @throws TableError when it is no text at all */
export function encodingOf(sample: Buffer): TableEncoding {
  if (sample[0] === 0xff && sample[1] === 0xfe) return "utf-16le";
  if (sample[0] === 0xfe && sample[1] === 0xff) return "utf-16be";
  const nuls = [0, 0];
  for (let i = 0; i < sample.length; i++) if (!sample[i]) nuls[i & 1]++;
  const half = sample.length / 2;
  if (nuls[1] > half * 0.4 && nuls[0] < half * 0.1) return "utf-16le";
  if (nuls[0] > half * 0.4 && nuls[1] < half * 0.1) return "utf-16be";
  if (nuls[0] + nuls[1] > sample.length * 0.001)
    throw new TableError("The file is not text: it contains NUL bytes. Import CSV or GeoJSON, optionally gzipped.");
  try {
    // a letter may be cut at the end of the sample
    new TextDecoder("utf-8", { fatal: true }).decode(sample, { stream: true });
    return "utf-8";
  } catch {
    return "windows-1252";
  }
}

/** Text of a file, piece by piece. Bytes that are none of the encoding's become U+FFFD. */
export async function* readText(path: string, encoding: TableEncoding, note?: (bytes: number) => void) {
  const decoder = textDecoder(encoding);
  for await (const piece of (await openBytes(path)) as AsyncIterable<Buffer>) {
    note?.(piece.length);
    const text = decoder.decode(piece, { stream: true });
    if (text) yield text;
  }
  const rest = decoder.decode();
  if (rest) yield rest;
}
