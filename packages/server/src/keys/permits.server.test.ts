import { setTimeout as wait } from "node:timers/promises";
import type { Knex } from "knex";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ownDatabase } from "../../testing/own-server.ts";
import { connect, migrate } from "../database/connect.ts";
import { makeKey } from "./keys.repository.ts";
import type { Amount } from "./permits.repository.ts";
import { Permits } from "./permits.ts";

const RULES = { origins: [], calls: [], countries: [], endsAt: null, perMinute: null, perDay: null };
const minute = (most: number, seconds = 60): Amount => ({ name: "minute", most, seconds });

describe("permits", () => {
  let ownDb: Awaited<ReturnType<typeof ownDatabase>>;
  let database: Knex;
  const key = async () => (await makeKey(database, { kind: "srv", name: "Limited", ...RULES })).id;
  /** Takes so many at once and counts those granted. */
  async function granted(permits: Permits, id: number, amount: Amount, times: number): Promise<number> {
    const standings = await Promise.all(Array.from({ length: times }, () => permits.take(id, amount)));
    return standings.filter(({ isGranted }) => isGranted).length;
  }

  beforeAll(async () => {
    ownDb = await ownDatabase("permits");
    database = connect(ownDb.url);
    await migrate(database);
  });
  afterAll(async () => {
    await database.destroy();
    await ownDb.drop();
  });

  it("are exact over several processes that ask at once", async () => {
    const id = await key();
    const processes = Array.from({ length: 3 }, () => new Permits(database));
    const counts = await Promise.all(processes.map((permits) => granted(permits, id, minute(1000), 1500)));
    expect(counts.reduce((sum, count) => sum + count, 0)).toBe(1000);
    expect(await granted(processes[0], id, minute(1000), 10)).toBe(0);
  });

  it("refuse nothing while most of a limit is unused, however many processes are asked in turn", async () => {
    const id = await key();
    const processes = Array.from({ length: 60 }, () => new Permits(database, async () => 60));
    for (const permits of processes) await permits.tend();
    for (let round = 0; round < 3; round++)
      for (const permits of processes) expect(await permits.take(id, minute(2000))).toMatchObject({ isGranted: true });
  });

  it("say what is left, and when the window ends", async () => {
    const id = await key();
    const permits = new Permits(database);
    expect(await permits.take(id, minute(5))).toMatchObject({ isGranted: true, left: 4 });
    expect(await permits.take(id, minute(5))).toMatchObject({ isGranted: true, left: 3 });
    expect(await granted(permits, id, minute(5), 9)).toBe(3);
    const { isGranted, left, endsIn } = await permits.take(id, minute(5));
    expect({ isGranted, left }).toEqual({ isGranted: false, left: 0 });
    expect(endsIn).toBeGreaterThan(50);
    expect(endsIn).toBeLessThanOrEqual(60);
  });

  it("come anew with the next window, which begins with the first asking after it", { tags: ["long"] }, async () => {
    const id = await key();
    const permits = new Permits(database);
    expect(await granted(permits, id, minute(20, 3), 30)).toBe(20);
    await wait(3200);
    expect(await granted(permits, id, minute(20, 3), 30)).toBe(20);
  });

  it("that a process does not use are given back, to another one and at its end", async () => {
    const id = await key();
    const [one, other] = [new Permits(database), new Permits(database)];
    expect(await granted(one, id, minute(80), 1)).toBe(1);
    expect(await granted(other, id, minute(80), 80)).toBeLessThan(79);
    await wait(1100);
    await one.tend();
    expect(await granted(other, id, minute(80), 80)).toBeGreaterThan(0);
    const [row] = await database("permits").where({ key_id: id });
    expect(row.taken).toBe(80);
    const third = await key();
    await one.take(third, minute(800));
    await one.stop();
    expect((await database("permits").where({ key_id: third }))[0].taken).toBe(1);
  });

  it("follow a limit that is lowered meanwhile", async () => {
    const id = await key();
    const permits = new Permits(database);
    expect(await granted(permits, id, minute(100), 30)).toBe(30);
    await permits.stop();
    expect(await granted(permits, id, minute(10), 30)).toBe(0);
  });

  it("are granted in shares while the database is away", async () => {
    const away = connect("postgres://nobody@127.0.0.1:9/none", 1);
    const permits = new Permits(away);
    expect(await granted(permits, 1, minute(10), 15)).toBe(10);
    await away.destroy();
  });
});
