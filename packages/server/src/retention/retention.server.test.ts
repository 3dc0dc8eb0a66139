import { mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Kept, KeptFor } from "@bibliotope/wire";
import type { Knex } from "knex";
import { afterAll, beforeAll, expect, it } from "vitest";
import { ownDatabase } from "../../testing/own-server.ts";
import { signedIn } from "../../testing/shared.ts";
import { Files } from "../import/files.ts";
import { readRetention, setRetention, sweepOld } from "./retention.ts";

let ownDb: Awaited<ReturnType<typeof ownDatabase>>;
let database: Knex;
let folder: string;
beforeAll(async () => {
  ownDb = await ownDatabase("retention", "seeded");
  database = ownDb.database;
  folder = mkdtempSync(join(tmpdir(), "bibliotope-kept-"));
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await ownDb.drop();
});

const daysAgo = (days: number) => new Date(Date.now() - days * 86_400_000);

/** A batch with rows, made so many days ago. */
async function batch(days: number, job?: { ended: boolean }): Promise<number> {
  const [{ id: job_id }] = job
    ? await database("jobs")
        .insert({ kind: "batch", title: "b", asked: "{}", state: "running", ended_at: job.ended ? new Date() : null })
        .returning("id")
    : [{ id: null }];
  const values = { name: "b", reading: "{}", ask: "forward", made_at: daysAgo(days), job_id };
  const [{ id }] = await database("batches").insert(values).returning("id");
  await database("batch_rows").insert({ batch_id: id, number: 1, cells: ["a"] });
  return id;
}

it("throws away what was kept long enough, with all its rows, and nothing that is younger or under way", async () => {
  await setRetention(database, "batches", 30);
  const [old, running, young] = [
    await batch(31, { ended: true }),
    await batch(31, { ended: false }),
    await batch(29, { ended: true }),
  ];
  const files = new Files(database, folder);
  const [gone, stays] = ["a".repeat(24), "b".repeat(24)];
  for (const [id, days] of [
    [gone, 15],
    [stays, 13],
  ] as const) {
    writeFileSync(join(folder, id), "held");
    await database("files").insert({ id, name: "f", bytes: 4, made_at: daysAgo(days) });
  }
  expect(await sweepOld(database, files)).toMatchObject({ batches: 1, files: 1 });
  const left: number[] = await database("batches").whereIn("id", [old, running, young]).orderBy("id").pluck("id");
  expect(left).toEqual([running, young]);
  expect(await database("batch_rows").where({ batch_id: old })).toEqual([]);
  expect(readdirSync(folder)).toEqual([stays]);
  // again nothing is left to do
  expect(await sweepOld(database, files)).toMatchObject({ batches: 0, files: 0 });
});

it("is told and changed by whoever manages, within reason", async () => {
  const browser = await signedIn();
  const kept = async () => (await (await browser.get("/api/retention")).json()).kept as KeptFor[];
  const before = (await kept()).find(({ what }) => what === "traces")!.days;
  const put = (what: string, days: unknown) => browser.send("PUT", `/api/retention/${what}`, { days });
  expect((await put("traces", 77)).status).toBe(200);
  expect((await kept()).find(({ what }) => what === "traces")!.days).toBe(77);
  for (const days of [0, -1, 1.5, 4000, "7", null]) expect((await put("traces", days)).status).toBe(400);
  for (const what of ["keys", "users", "constructor"]) expect((await put(what, 7)).status).toBe(404);
  await put("traces", before);
  const names: Kept[] = (await readRetention(database)).map(({ what }) => what);
  expect(names).toEqual(["batches", "traces", "lookups", "files"]);
});
