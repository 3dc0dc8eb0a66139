import { createHash, type Hash, randomUUID } from "node:crypto";
import { createReadStream, createWriteStream } from "node:fs";
import { copyFile, mkdir, open, readdir, readFile, rename, rm, stat, writeFile } from "node:fs/promises";
import { dirname, join } from "node:path";
import { Readable, Transform } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { Knex } from "knex";

/**
 * Where files are that all servers of one database need: uploads and index files. Each server works on a copy in its own
 * folder. Names are of letters, digits, `-` and one slash.
 */
export interface Store {
  /** Puts a file there; one of that name is replaced in one step. */
  put(name: string, path: string): Promise<void>;
  /**
   * Writes a file to a path, all of it or nothing.
   * @returns false where there is none of that name
   * @throws StoredFileDamaged when it is not what was put there
   */
  fetch(name: string, path: string): Promise<boolean>;
  remove(name: string): Promise<void>;
  /** Removes those of a folder that are older than a day and not to be kept. */
  sweep(folder: string, keep: readonly string[]): Promise<void>;
}

/** What came out of the store is not what went in. */
export class StoredFileDamaged extends Error {
  constructor(name: string) {
    super(`${name} in the store is damaged: its digest does not match.`);
  }
}

/** For a server alone: its own folder has everything. */
export const NO_STORE: Store = {
  put: async () => undefined,
  fetch: async () => false,
  remove: async () => undefined,
  sweep: async () => undefined,
};

/** Bytes of a chunk. */
const CHUNK = 2 ** 20;
/** Milliseconds for which a file that nobody seems to want is kept: a server of another version may want it. */
export const KEPT = 24 * 3_600_000;

/** In PostgreSQL: replicated and backed up with everything else. */
export class DatabaseStore implements Store {
  constructor(private readonly database: Knex) {}

  async put(name: string, path: string): Promise<void> {
    await this.database.transaction(async (transaction) => {
      // two servers may have built the same index: one after the other
      await transaction.raw("select pg_advisory_xact_lock(hashtextextended(?, 0))", [name]);
      await transaction("stored_files").where({ name }).delete();
      await transaction("stored_files").insert({ name, bytes: 0, sha256: "" });
      const hash = createHash("sha256");
      let bytes = 0;
      let number = 0;
      for await (const data of chunksOf(path)) {
        hash.update(data);
        bytes += data.length;
        await transaction("stored_chunks").insert({ name, number: number++, data });
      }
      await transaction("stored_files")
        .where({ name })
        .update({ bytes, sha256: hash.digest("hex") });
    });
  }

  async fetch(name: string, path: string): Promise<boolean> {
    // as it is at one moment, though it be replaced meanwhile
    return this.database.transaction(
      async (transaction) => {
        const file = await transaction("stored_files").where({ name }).first("sha256");
        if (!file) return false;
        async function* chunks() {
          for (let number = 0; ; number++) {
            const chunk = await transaction("stored_chunks").where({ name, number }).first("data");
            if (!chunk) return;
            yield chunk.data;
          }
        }
        await writeWhole(Readable.from(chunks()), path, file.sha256, name);
        return true;
      },
      { isolationLevel: "repeatable read", readOnly: true },
    );
  }

  async remove(name: string): Promise<void> {
    await this.database("stored_files").where({ name }).delete();
  }

  async sweep(folder: string, keep: readonly string[]): Promise<void> {
    await this.database("stored_files")
      .where("name", "like", `${folder}/%`)
      .whereNotIn("name", keep)
      .where("made_at", "<", this.database.raw("now() - ? * interval '1 millisecond'", [KEPT]))
      .delete();
  }
}

/** In a folder that all servers share, each file with its digest beside it. */
export class FolderStore implements Store {
  constructor(private readonly folder: string) {}

  async put(name: string, path: string): Promise<void> {
    const to = this.#pathOf(name);
    await mkdir(dirname(to), { recursive: true });
    const aside = `${to}.${randomUUID()}.part`;
    try {
      await copyFile(path, aside);
      const hash = createHash("sha256");
      await pipeline(createReadStream(aside), hash);
      // the digest goes last: a file without one, or with that of the file before, is none
      await rename(aside, to);
      await writeFile(`${aside}.sha256`, hash.digest("hex"));
      await rename(`${aside}.sha256`, `${to}.sha256`);
    } finally {
      await rm(aside, { force: true });
    }
  }

  async fetch(name: string, path: string): Promise<boolean> {
    const from = this.#pathOf(name);
    const digest = await readFile(`${from}.sha256`, "utf8").catch(() => undefined);
    if (digest === undefined) return false;
    await writeWhole(createReadStream(from), path, digest, name);
    return true;
  }

  async remove(name: string): Promise<void> {
    for (const end of [".sha256", ""]) await rm(`${this.#pathOf(name)}${end}`, { force: true });
  }

  async sweep(folder: string, keep: readonly string[]): Promise<void> {
    for (const file of await readdir(join(this.folder, folder)).catch(() => [])) {
      const name = `${folder}/${file.replace(/\.sha256$/, "")}`;
      const { mtimeMs } = await stat(join(this.folder, folder, file));
      if (!keep.includes(name) && Date.now() - mtimeMs > KEPT)
        await rm(join(this.folder, folder, file), { force: true });
    }
  }

  #pathOf(name: string): string {
    if (!/^[a-z]+\/[\w-]+$/.test(name)) throw new Error(`${name} is no name of a stored file`);
    return join(this.folder, name);
  }
}

async function* chunksOf(path: string): AsyncGenerator<Buffer> {
  const handle = await open(path);
  try {
    for (;;) {
      const { buffer, bytesRead } = await handle.read(Buffer.allocUnsafe(CHUNK), 0, CHUNK);
      if (!bytesRead) return;
      yield buffer.subarray(0, bytesRead);
    }
  } finally {
    await handle.close();
  }
}

/** Puts a file in place when all of it has come and its digest matches. */
export async function writeWhole(from: Readable, path: string, digest: string, name: string): Promise<void> {
  await mkdir(dirname(path), { recursive: true });
  // several may fetch it at once
  const aside = `${path}.${randomUUID()}.part`;
  const hash = createHash("sha256");
  try {
    await pipeline(from, hashing(hash), createWriteStream(aside));
    if (hash.digest("hex") !== digest) throw new StoredFileDamaged(name);
    await rename(aside, path);
  } catch (error) {
    await rm(aside, { force: true });
    // the file went between its digest and itself
    if ((error as NodeJS.ErrnoException).code === "ENOENT") throw new StoredFileDamaged(name);
    throw error;
  }
}

const hashing = (hash: Hash) =>
  new Transform({
    transform(chunk: Buffer, _encoding, done) {
      hash.update(chunk);
      done(null, chunk);
    },
  });
