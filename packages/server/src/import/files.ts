import { randomBytes } from "node:crypto";
import { createWriteStream } from "node:fs";
import { mkdir, readdir, rename, rm, stat } from "node:fs/promises";
import { join } from "node:path";
import { type Readable, Transform } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { FileAnswer } from "@bibliotope/wire";
import type { Knex } from "knex";
import { NO_STORE, type Store, StoredFileDamaged } from "../store/store.ts";
import { TableError } from "./bytes.ts";

/** The largest file that is taken, in bytes. */
const MOST_BYTES = 5 * 2 ** 30;
/** Milliseconds without a byte after which nobody sends the rest of a file. */
const CUT_OFF = 10 * 60_000;

/** The folder of uploads within a store. */
const STORED = "files";

/** Files that were handed in, in a folder under names of our own, and in the store for other servers. */
export class Files {
  constructor(
    private readonly database: Knex,
    private readonly folder: string,
    private readonly store: Store = NO_STORE,
  ) {}

  /**
   * The path of a file in this server's own folder; it is fetched where another server took it in.
   * @throws TableError when it is nowhere
   */
  async local(id: string): Promise<string> {
    const path = this.pathOf(id);
    if (await stat(path).catch(() => undefined)) return path;
    const isThere = await this.store.fetch(`${STORED}/${id}`, path).catch((error: unknown) => {
      if (error instanceof StoredFileDamaged) return false;
      throw error;
    });
    if (!isThere) throw new TableError("The file no longer exists. Upload it again.");
    return path;
  }

  /** Where a file lies. @param id from `keep`; anything else has no place */
  pathOf(id: string): string {
    if (!/^[0-9a-f]{24}$/.test(id)) throw new TableError("There is no such file.");
    return join(this.folder, id);
  }

  /** Takes a file in as it comes; one that does not come completely leaves nothing behind. */
  async keep(name: string, body: Readable): Promise<FileAnswer> {
    await mkdir(this.folder, { recursive: true });
    const id = randomBytes(12).toString("hex");
    const aside = `${this.pathOf(id)}.part`;
    let bytes = 0;
    const count = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        bytes += chunk.length;
        done(bytes > MOST_BYTES ? new TableError("A file can have at most 5 GB. Split it or gzip it.") : null, chunk);
      },
    });
    try {
      await pipeline(body, count, createWriteStream(aside));
      if (!bytes) throw new TableError("The file is empty.");
      await rename(aside, this.pathOf(id));
      await this.store.put(`${STORED}/${id}`, this.pathOf(id));
    } catch (error) {
      for (const path of [aside, this.pathOf(id)]) await rm(path, { force: true });
      throw error;
    }
    await this.database("files").insert({ id, name: name.slice(0, 200), bytes });
    return { id, name: name.slice(0, 200), bytes };
  }

  async find(id: string): Promise<FileAnswer | undefined> {
    const row = await this.database("files").where({ id }).first("id", "name", "bytes");
    return row && { ...row, bytes: Number(row.bytes) };
  }

  /** Deletes a file everywhere but in folders of other servers, which do that at their next sweep. */
  async drop(id: string): Promise<number> {
    await rm(this.pathOf(id), { force: true });
    await this.store.remove(`${STORED}/${id}`);
    return this.database("files").where({ id }).delete();
  }

  /**
   * Throws away what was cut off while it came in, and copies of what another server has deleted; how long files are kept is for
   * `sweepOld`.
   */
  async sweep(): Promise<void> {
    const names = await readdir(this.folder).catch(() => [] as string[]);
    if (!names.length) return;
    const known = new Set(await this.database("files").pluck("id"));
    for (const name of names) {
      if (known.has(name)) continue;
      const path = join(this.folder, name);
      const touched = await stat(path).catch(() => undefined);
      // what another process takes in just now grows
      if (touched && Date.now() - touched.mtimeMs > CUT_OFF) await rm(path, { force: true });
    }
  }
}
