import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ownDatabase } from "../../testing/own-server.ts";
import { required } from "../../testing/shared.ts";
import { historyOf } from "../database/history.ts";
import type { Prepared } from "../tiles/map-tiles.ts";
import { LiveIndex } from "./live-index.ts";
import { publish } from "./publication.repository.ts";
import { SegmentStore } from "./segment-store.ts";

describe("the live index", { timeout: 60_000 }, () => {
  let ownDb: Awaited<ReturnType<typeof ownDatabase>>;
  let store: SegmentStore;
  const folder = mkdtempSync(join(tmpdir(), "bibliotope-live-"));
  const told: string[] = [];
  const beside = (name: string): Prepared => ({
    putIn: async () => void told.push(`${name} put in`),
    amend: () => void told.push(`${name} amended`),
    letGo: async () => void told.push(`${name} let go`),
  });

  beforeAll(async () => {
    ownDb = await ownDatabase("live_index", "seeded");
    const home = join(required("BIBLIOTOPE_TEST_HOME"), required("BIBLIOTOPE_TEST_SEEDED"));
    cpSync(home, folder, { recursive: true });
    store = new SegmentStore(join(folder, "segments"), ownDb.url, await historyOf(ownDb.database));
  });
  afterAll(async () => {
    rmSync(folder, { recursive: true });
    await ownDb.drop();
  });

  it("answers after a start before the map beside it is ready", async () => {
    told.length = 0;
    let isReady = (_: Prepared) => {};
    const map = new Promise<Prepared>((resolve) => {
      isReady = resolve;
    });
    const index = new LiveIndex(ownDb.database, store, undefined, () => map);
    const opened = index.refresh();
    while (!index.engine || !index.shared) await wait(5);
    expect(index.engine.suggest({ q: "12 harb" }).suggestions.length).toBeGreaterThan(0);
    expect(index.versions.length).toBeGreaterThan(0);
    expect(told).toEqual([]);
    isReady(beside("the map"));
    await opened;
    expect(told).toEqual(["the map amended", "the map put in"]);
  });

  it("answers without a map that could not be made ready, and tries that again at the next look", async () => {
    told.length = 0;
    let tries = 0;
    const index = new LiveIndex(ownDb.database, store, undefined, async () => {
      if (tries++ === 0) throw new Error("the painter ended");
      return beside("the map");
    });
    await expect(index.refresh()).rejects.toThrow("the painter ended");
    expect(index.engine).toBeDefined();
    await index.refresh();
    expect(told).toEqual(["the map amended", "the map put in"]);
    await index.refresh();
    expect([tries, told.length]).toEqual([2, 2]);
  });

  it("goes over to what is published next with its map, both at once", async () => {
    told.length = 0;
    let count = 0;
    let goOn = () => {};
    const index = new LiveIndex(ownDb.database, store, undefined, async () => {
      count++;
      if (count === 2) await new Promise<void>((resolve) => (goOn = resolve));
      return beside(`map ${count}`);
    });
    await index.refresh();
    const before = index.engine;
    await ownDb.database.transaction((transaction) => publish(transaction, [...index.versions], { why: "Once more" }));
    const swapping = index.refresh();
    while (count < 2) await wait(5);
    await wait(100);
    expect(index.engine === before).toBe(true);
    goOn();
    await swapping;
    expect(index.engine === before).toBe(false);
    expect(told.slice(-2)).toEqual(["map 2 amended", "map 2 put in"]);
  });
});
