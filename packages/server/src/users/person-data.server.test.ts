import { execFile } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { promisify } from "node:util";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { shared, sharedHome, signedIn } from "../../testing/shared.ts";
import { connect } from "../database/connect.ts";
import { PERSONAL_COLUMNS } from "./person-data.ts";

const program = fileURLToPath(new URL("../../../cli/bin/bibliotope.js", import.meta.url));
const run = (...args: string[]) =>
  promisify(execFile)(process.execPath, [program, ...args], {
    env: { ...process.env, BIBLIOTOPE_READY: join(sharedHome(), "ready.json") },
  }).then(
    ({ stdout, stderr }) => ({ code: 0, stdout, stderr }),
    ({ code, stdout, stderr }: { code: number; stdout: string; stderr: string }) => ({ code, stdout, stderr }),
  );

/** Columns of any table whose name says that a person stands in them. */
const OF_PEOPLE = /^(user_id|person_id|\w+_by)$/;
/** Those of them that have no person: the identity that took another's place, the key that a batch came by. */
const NO_PEOPLE = ["identities.replaced_by"];

describe("what is known of a person", () => {
  const database = connect(shared().databaseUrl, 2);
  const folder = mkdtempSync(join(tmpdir(), "bibliotope-person-"));
  const name = `Erased ${Math.random().toString(36).slice(2)}`;
  const password = "teapot gravel nineteen owls";
  let id: number;

  beforeAll(async () => {
    const manager = await signedIn();
    const made = await manager.send("POST", "/api/people", { name, role: "manage", password });
    const { people } = (await made.json()) as { people: { id: number; name: string }[] };
    id = people.find((one) => one.name === name)!.id;
    const entered = await fetch(`${shared().url}/sign-in`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ name, password }),
    });
    expect(entered.status).toBe(204);
    await database("lookups").insert({ user_id: id, asked: "12 harb", outcome: "matched", found: 7 });
    await database("jobs").insert({ kind: "load", state: "done", asked: {}, title: "made by them", made_by: id });
  });
  afterAll(async () => {
    await database("jobs").where({ title: "made by them" }).delete();
    await database.destroy();
    rmSync(folder, { recursive: true });
  });

  it("is known of every column of the database that has a person in it", async () => {
    const { rows } = await database.raw(
      "select table_name, column_name from information_schema.columns where table_schema = 'public'",
    );
    const columns = (rows as { table_name: string; column_name: string }[])
      .filter(({ column_name }) => OF_PEOPLE.test(column_name))
      .map(({ table_name, column_name }) => `${table_name}.${column_name}`);
    const known = PERSONAL_COLUMNS.map(({ table, column }) => `${table}.${column}`);
    expect(columns.filter((column) => !NO_PEOPLE.includes(column)).sort()).toEqual([...known].sort());
  });

  it("comes out by the command line, without hashes and secrets", async () => {
    const out = join(folder, "data.json");
    expect(await run("export-person", name.toUpperCase(), "--out", out)).toMatchObject({ code: 0 });
    expect(statSync(out).mode & 0o777).toBe(0o600);
    const written = readFileSync(out, "utf8");
    const { person, held: stored } = JSON.parse(written);
    expect(person).toMatchObject({ id, name, role: "manage" });
    expect(stored["lookups by user_id"]).toMatchObject([{ asked: "12 harb" }]);
    expect(stored["jobs by made_by"]).toMatchObject([{ title: "made by them" }]);
    expect(stored["sessions by user_id"]).toHaveLength(1);
    expect(stored["sign_in_places by user_id"]).toHaveLength(1);
    const [{ password_hash }] = await database("users").where({ id });
    const [{ token_hash }] = await database("sessions").where({ user_id: id });
    for (const secret of [password_hash, token_hash, "argon2"]) expect(written).not.toContain(secret);
  });

  it("is said to be nothing of nobody, and is erased only when that is said", async () => {
    expect(await run("export-person", "Nobody at all")).toMatchObject({ code: 4 });
    const unsure = await run("erase-person", name);
    expect(unsure).toMatchObject({ code: 2 });
    expect(unsure.stderr).toContain("Use --yes");
    expect(await database("users").where({ id })).toHaveLength(1);
  });

  it("is erased by the command line; what was made for others stays", async () => {
    const erased = await run("erase-person", name, "--yes");
    expect(erased).toMatchObject({ code: 0 });
    expect(erased.stderr).toContain("log/security.log");
    for (const { table, column } of PERSONAL_COLUMNS)
      expect(await database(table).where({ [column]: id }), table).toEqual([]);
    expect(await database("users").where({ id })).toEqual([]);
    expect(await database("jobs").where({ title: "made by them" })).toMatchObject([{ made_by: null }]);
  });
});
