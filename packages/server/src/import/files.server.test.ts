import { mkdtempSync, readdirSync, rmSync, statSync, utimesSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Knex } from "knex";
import { afterAll, beforeAll, expect, it } from "vitest";
import { shared, sharedHome, signedIn } from "../../testing/shared.ts";
import { connect } from "../database/connect.ts";
import { Files } from "./files.ts";

let folder: string;
let database: Knex;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "bibliotope-files-"));
  database = connect(shared().databaseUrl, 1);
});
afterAll(async () => {
  await database.destroy();
  rmSync(folder, { recursive: true });
});

it("throws away what was cut off while it came in and what is in no list, and not what comes in just now", async () => {
  const ago = new Date(Date.now() - 11 * 60_000);
  const [cut, coming, whole, gone, early] = [..."abcde"].map((letter) => letter.repeat(24));
  await database("files").insert({ id: whole, name: "whole.csv", bytes: 10 });
  for (const name of [`${cut}.part`, `${coming}.part`, whole, gone, early])
    writeFileSync(join(folder, name), "half of it");
  for (const name of [`${cut}.part`, whole, gone]) utimesSync(join(folder, name), ago, ago);
  try {
    await new Files(database, folder).sweep();
    expect(readdirSync(folder).sort()).toEqual([`${coming}.part`, whole, early].sort());
  } finally {
    await database("files").where({ id: whole }).delete();
  }
});

it("keeps what is handed in, and its log, where only its owner can read", async () => {
  const { id } = await (await (await signedIn()).handIn("lat,lon\n1,2\n", "own.csv")).json();
  for (const path of [["files", id], ["log", "server.log"], ["ready.json"]])
    expect(statSync(join(sharedHome(), ...path)).mode & 0o077, path.join("/")).toBe(0);
});
