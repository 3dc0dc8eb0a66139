import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { Session } from "node:inspector/promises";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { Random } from "../faults/random.ts";

const CORPUS = fileURLToPath(new URL("corpus", import.meta.url));
/** Bytes that an input may have: what is long is only slow. */
const LONGEST = 4096;
/** Inputs of each that the corpus keeps. */
const MOST_KEPT = 15;
/** Milliseconds from which one input has stopped the thread. */
const BLOCKED = 2000;

/** What reads bytes from outside. */
export interface Target {
  name: string;
  seeds: readonly string[];
  /** Pieces of its language, which chance alone would not find. */
  words: readonly string[];
  /** Reads them. Throws where that is wrong: errors that say what is wrong with the bytes are its own business. */
  read: (bytes: Buffer) => void | Promise<void>;
}

/** What a run found. */
export interface Found {
  inputs: number;
  /** Inputs that took a way which none before had. */
  kept: number;
  faults: { input: string; error: string }[];
}

/**
 * Tries inputs that are made of those before, and keeps whatever takes a way through a function that none had taken (V8's
 * block coverage): so it works its way inwards, where random bytes stay at the door.
 *
 * @param keeps whether what is kept is written into the corpus, which later runs begin with
 */
export async function fuzz(target: Target, inputs: number, seed: number, keeps = false): Promise<Found> {
  const random = new Random(seed);
  const folder = join(CORPUS, target.name);
  const known = existsSync(folder) ? readdirSync(folder).map((name) => readFileSync(join(folder, name))) : [];
  const corpus: Buffer[] = [...target.seeds.map((text) => Buffer.from(text)), ...known];
  const found: Found = { inputs: 0, kept: 0, faults: [] };
  const coverage = await Coverage.begin();
  try {
    const given = [...corpus];
    for (let i = 0; i < given.length + inputs; i++) {
      const isNew = i >= given.length;
      const input = isNew ? mutate(random, corpus, target.words) : given[i];
      const began = performance.now();
      try {
        await target.read(input);
      } catch (error) {
        found.faults.push({
          input: input.toString("base64"),
          error: error instanceof Error ? error.stack! : String(error),
        });
        if (found.faults.length > 5) break;
      }
      const took = performance.now() - began;
      if (took > BLOCKED) found.faults.push({ input: input.toString("base64"), error: `took ${Math.round(took)} ms` });
      found.inputs++;
      if (!(await coverage.hasGrown()) || !isNew) continue;
      found.kept++;
      corpus.push(input);
      if (!keeps || known.length + found.kept > MOST_KEPT) continue;
      mkdirSync(folder, { recursive: true });
      writeFileSync(join(folder, createHash("sha256").update(input).digest("hex").slice(0, 16)), input);
    }
  } finally {
    await coverage.end();
  }
  return found;
}

/** What has run since it was last asked: which blocks of each function, together. */
class Coverage {
  private constructor(private readonly session: Session) {}

  static async begin(): Promise<Coverage> {
    const session = new Session();
    session.connect();
    await session.post("Profiler.enable");
    await session.post("Profiler.startPreciseCoverage", { callCount: true, detailed: true });
    return new Coverage(session);
  }

  readonly #seen = new Set<string>();

  async hasGrown(): Promise<boolean> {
    const { result } = await this.session.post("Profiler.takePreciseCoverage");
    let hasGrown = false;
    for (const { scriptId, url, functions } of result) {
      if (!/\/packages\/\w+\/(?:src|dist)\//.test(url) && !url.includes("/node_modules/")) continue;
      for (const { ranges } of functions) {
        // which of its blocks ran together: V8 joins those that ran equally often, so no single one tells
        const way = `${scriptId} ${ranges.map((range) => `${range.startOffset}${range.count ? "+" : "-"}`).join(" ")}`;
        if (!ranges[0].count || this.#seen.has(way)) continue;
        this.#seen.add(way);
        hasGrown = true;
      }
    }
    return hasGrown;
  }

  async end(): Promise<void> {
    await this.session.post("Profiler.stopPreciseCoverage");
    await this.session.post("Profiler.disable");
    this.session.disconnect();
  }
}

/** Bytes at which code often decides otherwise. */
const EDGES = [0, 1, 9, 10, 13, 34, 39, 44, 48, 127, 128, 191, 192, 226, 239, 254, 255];

function mutate(random: Random, corpus: readonly Buffer[], words: readonly string[]): Buffer {
  let bytes: Buffer = Buffer.from(random.of(corpus));
  const place = () => Math.floor(random.next() * (bytes.length + 1));
  const put = (at: number, away: number, more: Uint8Array) => {
    bytes = Buffer.concat([bytes.subarray(0, at), more, bytes.subarray(Math.min(bytes.length, at + away))]);
  };
  for (let times = 1 + Math.floor(random.next() * 4); times > 0; times--) {
    const at = place();
    const some = Math.floor(random.next() * random.of([2, 8, 64]));
    const other = random.of(corpus);
    const from = Math.floor(random.next() * other.length);
    random.of([
      () => put(at, 1, Buffer.from([random.of(EDGES)])),
      () => put(at, 1, Buffer.from([(bytes[at] ?? 0) ^ (1 << Math.floor(random.next() * 8))])),
      () => put(at, some, Buffer.alloc(0)),
      () => put(at, 0, bytes.subarray(from, from + some)),
      () => put(at, some, other.subarray(from, from + some)),
      () => put(at, bytes.length, other.subarray(from)),
      () => put(at, 0, Buffer.from(random.of(words))),
      () => put(at, some, Buffer.from(random.of(words))),
      () => put(at, 0, Buffer.from(random.of(words).repeat(1 + Math.floor(random.next() * 40)))),
      () => put(at, some, Buffer.from(String(random.of([-1, 0, 1e9, 2 ** 31, 2 ** 53, 1e300, Number.NaN])))),
    ])();
  }
  return bytes.subarray(0, LONGEST);
}
