import { randomBytes } from "node:crypto";
import { createWriteStream } from "node:fs";
import { mkdir, readdir, rename, rm, stat } from "node:fs/promises";
import { join } from "node:path";
import { type Readable, Transform } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { FileAnswer } from "@bibliotope/wire";
import type { Knex } from "knex";
import { TableError } from "./bytes.ts";

/** The largest file that is taken, in bytes. */
const MOST_BYTES = 5 * 2 ** 30;
/** Milliseconds without a byte after which nobody sends the rest of a file. */
const CUT_OFF = 10 * 60_000;

/** Files that were handed in, in a folder under names of our own. */
export class Files {
  constructor(
    private readonly database: Knex,
    private readonly folder: string,
  ) {}

  /** Where a file lies. @param id from `keep`; anything else has no place */
  pathOf(id: string): string {
    if (!/^[0-9a-f]{24}$/.test(id)) throw new TableError("There is no such file.");
    return join(this.folder, id);
  }

  /** Takes a file in as it comes; one that does not come whole leaves nothing behind. */
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
    } catch (error) {
      await rm(aside, { force: true });
      throw error;
    }
    await this.database("files").insert({ id, name: name.slice(0, 200), bytes });
    return { id, name: name.slice(0, 200), bytes };
  }

  async find(id: string): Promise<FileAnswer | undefined> {
    const row = await this.database("files").where({ id }).first("id", "name", "bytes");
    return row && { ...row, bytes: Number(row.bytes) };
  }

  /** Throws away what was cut off while it came in; how long files are kept is for `sweepOld`. */
  async sweep(): Promise<void> {
    for (const name of await readdir(this.folder).catch(() => [])) {
      if (!name.endsWith(".part")) continue;
      const path = join(this.folder, name);
      const touched = await stat(path).catch(() => undefined);
      // what another process takes in just now grows
      if (touched && Date.now() - touched.mtimeMs > CUT_OFF) await rm(path, { force: true });
    }
  }
}
