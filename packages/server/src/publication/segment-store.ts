import { createHash } from "node:crypto";
import { mkdir, open, readdir, unlink } from "node:fs/promises";
import { join } from "node:path";
import { Worker } from "node:worker_threads";
import { FORMAT, Segment, SegmentError } from "@bibliotope/core/index";
import { NO_STORE, type Store } from "../store/store.ts";
import type { BuildMessage, BuildTask } from "./build.worker.ts";

/** Raised when the builder makes other segments from the same records. */
const BUILDER = 2;

/** Segment files of a folder, each under the digest of what it was built from. */
export class SegmentStore {
  constructor(
    private readonly folder: string,
    private readonly databaseUrl: string,
    /** The database's history: numbers of versions mean other records in another one. */
    private readonly history: string,
    /** Where other servers find what this one has built. */
    private readonly store: Store = NO_STORE,
    /** Hears of a store that fails: what is not there is built. */
    private readonly warn: (words: string) => void = () => undefined,
  ) {}

  /** The name of the segment for some data-set versions. */
  nameOf(versions: readonly number[]): string {
    const { history } = this;
    return createHash("sha256")
      .update(JSON.stringify({ history, versions, FORMAT, BUILDER }))
      .digest("hex")
      .slice(0, 24);
  }

  /** Opens the segment for some versions; builds it when it is missing, damaged or of an older format. */
  async segmentFor(versions: number[], progress: (read: number, total: number) => void): Promise<Segment> {
    const name = this.nameOf(versions);
    const file = join(this.folder, `${name}.segment`);
    await mkdir(this.folder, { recursive: true });
    const existing = (await openWhole(file)) ?? ((await this.#fetch(name, file)) ? await openWhole(file) : undefined);
    if (existing) return existing;
    await build({ databaseUrl: this.databaseUrl, versions, name, file }, progress);
    await this.store.put(`${STORED}/${name}`, file).catch((error) => this.warn(`not stored: ${error}`));
    return openSegment(file);
  }

  /** Fetches what another server has built. */
  async #fetch(name: string, file: string): Promise<boolean> {
    return this.store.fetch(`${STORED}/${name}`, file).catch((error: unknown) => {
      this.warn(`not fetched: ${error}`);
      return false;
    });
  }

  /** Removes the files of all other segments, and what a killed build left behind. */
  async sweep(keep: readonly string[]): Promise<void> {
    for (const file of await readdir(this.folder)) {
      if (!keep.some((name) => file.startsWith(name))) await unlink(join(this.folder, file)).catch(() => undefined);
    }
    const stored = keep.map((name) => `${STORED}/${name}`);
    await this.store.sweep(STORED, stored).catch((error) => this.warn(`not swept: ${error}`));
  }
}

/** The folder of index files within a store. */
const STORED = "segments";

/** A segment that is there and complete, or nothing. */
async function openWhole(file: string): Promise<Segment | undefined> {
  return openSegment(file).catch((error: unknown) => {
    if (error instanceof SegmentError || (error as NodeJS.ErrnoException).code === "ENOENT") return undefined;
    throw error;
  });
}

/** One read into memory that all threads can share. @throws SegmentError when the file is no complete segment */
async function openSegment(file: string): Promise<Segment> {
  const handle = await open(file, "r");
  try {
    const { size } = await handle.stat();
    const shared = new SharedArrayBuffer(size);
    const { bytesRead } = await handle.read(new Uint8Array(shared), 0, size, 0);
    if (bytesRead !== size) throw new SegmentError(`read ${bytesRead} of ${size} bytes of ${file}`);
    return new Segment(shared);
  } finally {
    await handle.close();
  }
}

function build(task: BuildTask, progress: (read: number, total: number) => void): Promise<void> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL("./build.worker.js", import.meta.url), { workerData: task });
    worker.on("message", (message: BuildMessage) =>
      "done" in message ? resolve() : progress(message.read, message.total),
    );
    worker.on("error", reject);
    worker.on("exit", (code) => reject(new Error(`the build ended early, with code ${code}`)));
  });
}
