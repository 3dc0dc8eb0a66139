import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, utimesSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { ownDatabase } from "../../testing/own-server.ts";
import { S3StandIn } from "../../testing/s3.ts";
import { connect, migrate } from "../database/connect.ts";
import { S3Store } from "./s3-store.ts";
import { DatabaseStore, FolderStore, type Store, StoredFileDamaged } from "./store.ts";

const MEGABYTE = 2 ** 20;

describe("a store", { timeout: 120_000 }, () => {
  let own: Awaited<ReturnType<typeof ownDatabase>>;
  let database: ReturnType<typeof connect>;
  const folder = mkdtempSync(join(tmpdir(), "bibliotope-store-"));
  const path = (name: string) => join(folder, name);
  const stores: Record<string, Store> = {};
  const s3 = new S3StandIn();
  const bucket = new S3Store({ bucket: "addresses", prefix: "of/tests/" });
  beforeAll(async () => {
    own = await ownDatabase("stored");
    database = connect(own.url);
    await migrate(database);
    stores.database = new DatabaseStore(database);
    stores.folder = new FolderStore(path("shared"));
    vi.stubEnv("AWS_ENDPOINT_URL_S3", await s3.start());
    vi.stubEnv("AWS_REGION", "eu-north-1");
    vi.stubEnv("AWS_ACCESS_KEY_ID", "of-a-test");
    vi.stubEnv("AWS_SECRET_ACCESS_KEY", "of-a-test");
    stores.bucket = bucket;
  });
  afterAll(async () => {
    await bucket.close();
    s3.stop();
    vi.unstubAllEnvs();
    await database.destroy();
    await own.drop();
    rmSync(folder, { recursive: true });
  });

  /** Bytes around the borders of chunks, from nothing to three of them. */
  const contents = fc.tuple(fc.nat(3), fc.integer({ min: -2, max: 2 }), fc.nat(255)).map(([chunks, more, byte]) => {
    const bytes = Buffer.alloc(Math.max(0, chunks * MEGABYTE + more), byte);
    for (let at = 0; at < bytes.length; at += 4099) bytes[at] = at % 251;
    return bytes;
  });

  describe.each(["database", "folder", "bucket"])("in a %s", (kind) => {
    it("gives back to the byte what was put there last, and nothing of what was removed", {
      tags: ["long"],
    }, async () => {
      const store = stores[kind];
      await fc.assert(
        fc.asyncProperty(fc.array(contents, { minLength: 1, maxLength: 3 }), async (versions) => {
          for (const content of versions) {
            writeFileSync(path("in"), content);
            await store.put("files/one", path("in"));
          }
          expect(await store.fetch("files/one", path("out/copy"))).toBe(true);
          expect(readFileSync(path("out/copy")).equals(versions.at(-1)!)).toBe(true);
          await store.remove("files/one");
          expect(await store.fetch("files/one", path("out/none"))).toBe(false);
          expect(existsSync(path("out/none"))).toBe(false);
        }),
        { numRuns: 12 },
      );
    });

    it("is fetched by several at once, to one path, and is whole", async () => {
      const store = stores[kind];
      writeFileSync(path("in"), Buffer.alloc(2 * MEGABYTE + 1, 5));
      await store.put("segments/wanted-by-all", path("in"));
      const fetched = Array.from({ length: 6 }, () => store.fetch("segments/wanted-by-all", path("out/by-all")));
      expect(await Promise.all(fetched)).toEqual(Array(6).fill(true));
      expect(readFileSync(path("out/by-all")).equals(readFileSync(path("in")))).toBe(true);
      expect(readdirSync(path("out")).filter((name) => name.startsWith("by-all"))).toEqual(["by-all"]);
    });

    it("leaves nothing behind of a file that is damaged, and says which", async () => {
      const store = stores[kind];
      writeFileSync(path("in"), Buffer.alloc(2 * MEGABYTE + 5, 7));
      await store.put("segments/broken", path("in"));
      if (kind === "bucket") s3.objects.get("of/tests/segments/broken")!.content = Buffer.from("cut short");
      else if (kind === "folder") writeFileSync(path("shared/segments/broken"), "cut short");
      else await database("stored_chunks").where({ name: "segments/broken", number: 1 }).delete();
      await expect(store.fetch("segments/broken", path("out/broken"))).rejects.toBeInstanceOf(StoredFileDamaged);
      expect(readdirSync(path("out")).filter((name) => name.startsWith("broken"))).toEqual([]);
    });

    it("sweeps what is old and not wanted, in its folder alone", async () => {
      const store = stores[kind];
      writeFileSync(path("in"), "x");
      for (const name of ["segments/wanted", "segments/new", "segments/old", "files/old"])
        await store.put(name, path("in"));
      await makeOld(kind, ["segments/wanted", "segments/old", "files/old"]);
      await store.sweep("segments", ["segments/wanted"]);
      const there = [];
      for (const name of ["segments/wanted", "segments/new", "segments/old", "files/old"])
        there.push(await store.fetch(name, path("out/swept")));
      expect(there).toEqual([true, true, false, true]);
    });
  });

  async function makeOld(kind: string, names: readonly string[]): Promise<void> {
    const before = new Date(Date.now() - 25 * 3_600_000);
    if (kind === "database") await database("stored_files").whereIn("name", names).update({ made_at: before });
    else if (kind === "bucket") for (const name of names) s3.objects.get(`of/tests/${name}`)!.modified = before;
    else {
      for (const name of names)
        for (const end of ["", ".sha256"]) utimesSync(join(path("shared"), `${name}${end}`), before, before);
    }
  }

  it("is replaced in one step: whoever fetches meanwhile has one whole file or the other", {
    tags: ["long"],
  }, async () => {
    const store = stores.database;
    const files = [3, 9].map((byte) => {
      writeFileSync(path(`in-${byte}`), Buffer.alloc(3 * MEGABYTE, byte));
      return path(`in-${byte}`);
    });
    await store.put("segments/busy", files[0]);
    let isOver = false;
    const writing = (async () => {
      for (let i = 0; i < 12; i++) await store.put("segments/busy", files[i % 2]);
      isOver = true;
    })();
    const seen = new Set<number>();
    for (let i = 0; !isOver; i++) {
      expect(await store.fetch("segments/busy", path(`out/busy-${i % 2}`))).toBe(true);
      const bytes = readFileSync(path(`out/busy-${i % 2}`));
      expect(bytes.length).toBe(3 * MEGABYTE);
      expect(bytes.every((byte) => byte === bytes[0])).toBe(true);
      seen.add(bytes[0]);
    }
    await writing;
    for (const byte of seen) expect([3, 9]).toContain(byte);
  });

  it("fails in words of the store where it may not, or where there is no such bucket", async () => {
    const other = new S3Store({ bucket: "elsewhere", prefix: "" });
    writeFileSync(path("in"), "x");
    await expect(other.put("files/one", path("in"))).rejects.toThrow(/NoSuchBucket/);
    await other.close();
  });

  it.each(["../etc/passwd", "files/../x", "files", "/etc/passwd", "files/a/b"])(
    "has no file of the name %s",
    async (name) => {
      for (const store of [stores.folder, stores.bucket])
        await expect(store.fetch(name, path("out/odd"))).rejects.toThrow(/no name of a stored file/);
    },
  );
});
