import type { Knex } from "knex";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ownDatabase } from "../../../testing/own-server.ts";
import { connect, migrate } from "../connect.ts";

/** The last migration of the state that is gone back to: what came after it is done again over its data. */
const BEFORE = "2026-11-picture-hosts";

interface Column {
  name: string;
  type: string;
  /** Table and column that it names a row of. */
  of: { table: string; column: string } | null;
}

describe("migrations", { timeout: 120_000 }, () => {
  let ownDb: Awaited<ReturnType<typeof ownDatabase>>;
  let database: Knex;
  beforeAll(async () => {
    ownDb = await ownDatabase("migrations", "seeded");
    database = connect(ownDb.url, 2);
  });
  afterAll(async () => {
    await database.destroy();
    await ownDb.drop();
  });

  it("keep every row and every value of a database of an earlier version, with rows in every table", async () => {
    while ((await lastOf(database)) !== BEFORE) await database.migrate.down();
    const tables = await tablesOf(database);
    await fill(database, tables);
    const before = new Map<string, { columns: string[]; rows: number; digest: string }>();
    for (const table of tables) {
      const columns = (await columnsOf(database, table)).map(({ name }) => name);
      before.set(table, { columns, ...(await contentOf(database, table, columns)) });
      expect(before.get(table)!.rows, `${table} has no rows`).toBeGreaterThan(0);
    }
    await migrate(database);
    for (const [table, { columns, rows, digest }] of before)
      expect(await contentOf(database, table, columns), table).toEqual({ rows, digest });
  });

  it("rename a kind of lookup in what keys are limited to, and in what was counted", async () => {
    while ((await lastOf(database)) !== "2026-11-second-factor") await database.migrate.down();
    const [key] = await database("keys").select("id", "calls");
    await database("keys")
      .where({ id: key.id })
      .update({ calls: database.raw("array['suggest', 'sheets']") });
    const hour = new Date("2026-11-29T10:00:00Z");
    const use = { hour, key_id: key.id, outcome: "matched", bucket: 7 };
    await database("uses").insert([
      { ...use, call: "sheets", count: 5 },
      { ...use, call: "tiles", count: 2 },
      { ...use, call: "sheets", bucket: 9, count: 3 },
    ]);
    const counted = () =>
      database("uses").where({ hour, key_id: key.id }).orderBy("bucket").select("call", "bucket", "count");
    await migrate(database);
    expect((await database("keys").where({ id: key.id }).first("calls"))?.calls).toEqual(["suggest", "tiles"]);
    expect(await counted()).toEqual([
      { call: "tiles", bucket: 7, count: "7" },
      { call: "tiles", bucket: 9, count: "3" },
    ]);
    while ((await lastOf(database)) !== "2026-11-second-factor") await database.migrate.down();
    expect((await database("keys").where({ id: key.id }).first("calls"))?.calls).toEqual(["suggest", "sheets"]);
    await migrate(database);
    await database("keys").where({ id: key.id }).update({ calls: key.calls });
    await database("uses").where({ hour }).delete();
  });

  it("go all the way down and up again", async () => {
    const names = async (): Promise<string[]> =>
      database("information_schema.columns")
        .where({ table_schema: "public" })
        .whereNot("table_name", "like", "migrations%")
        .orderBy(["table_name", "column_name"])
        .select(database.raw("table_name || '.' || column_name || ' ' || data_type as name"))
        .then((rows: { name: string }[]) => rows.map(({ name }) => name));
    await migrate(database);
    const whole = await names();
    expect(whole.length).toBeGreaterThan(100);
    while (await lastOf(database)) await database.migrate.down();
    expect(await names()).toEqual([]);
    await migrate(database);
    expect(await names()).toEqual(whole);
  });
});

const lastOf = async (database: Knex): Promise<string | undefined> =>
  (await database("migrations").orderBy("id", "desc").first("name"))?.name;

const tablesOf = (database: Knex): Promise<string[]> =>
  database("information_schema.tables")
    .where({ table_schema: "public", table_type: "BASE TABLE" })
    .whereNot("table_name", "like", "migrations%")
    .pluck("table_name");

async function columnsOf(database: Knex, table: string): Promise<Column[]> {
  const { rows } = await database.raw(
    `select a.attname as name, format_type(a.atttypid, a.atttypmod) as type,
            (select json_build_object('table', c.confrelid::regclass::text, 'column', f.attname)
               from pg_constraint c join pg_attribute f on f.attrelid = c.confrelid and f.attnum = c.confkey[1]
              where c.contype = 'f' and c.conrelid = a.attrelid and c.conkey = array[a.attnum] limit 1) as of
       from pg_attribute a
      where a.attrelid = ?::regclass and a.attnum > 0 and not a.attisdropped and a.attgenerated = ''
      order by a.attnum`,
    [table],
  );
  return rows;
}

/** Number of rows, and a digest of their values in some columns, in no order. */
async function contentOf(database: Knex, table: string, columns: string[]): Promise<{ rows: number; digest: string }> {
  const list = columns.map(() => "??").join(", ");
  const { rows } = await database.raw(
    `select count(*)::int as rows, md5(string_agg(line, '' order by line)) as digest
       from (select md5(row(${list})::text) as line from ??) lines`,
    [...columns, table],
  );
  return rows[0];
}

/** A value of a type, as PostgreSQL reads it. */
function someOf(type: string, number: number): unknown {
  if (type.endsWith("[]")) return `{${someOf(type.slice(0, -2), number)}}`;
  if (/^(?:integer|bigint|smallint|double precision|real|numeric)/.test(type)) return number;
  if (type === "boolean") return true;
  if (/^(?:timestamp|date)/.test(type)) return "2026-10-01T10:00:00Z";
  if (/^jsonb?$/.test(type)) return JSON.stringify({ number });
  if (type === "bytea") return Buffer.from([number]);
  if (type === "uuid") return `00000000-0000-4000-8000-${String(number).padStart(12, "0")}`;
  return `value ${number}`;
}

/** Puts two rows into every table that has none, those it names rows of first. */
async function fill(database: Knex, tables: readonly string[]): Promise<void> {
  let left: string[] = [];
  for (const table of tables) if (!(await database(table).first())) left.push(table);
  while (left.length) {
    const later: string[] = [];
    for (const table of left) {
      const columns = await columnsOf(database, table);
      const named = columns.flatMap(({ of }) => (of && of.table !== table ? [of.table] : []));
      if (named.some((one) => left.includes(one))) later.push(table);
      else for (const number of [901, 902]) await insert(database, table, columns, number);
    }
    if (later.length === left.length) throw new Error(`these name one another: ${later.join(", ")}`);
    left = later;
  }
}

async function insert(database: Knex, table: string, columns: Column[], number: number): Promise<void> {
  const row: Record<string, unknown> = {};
  for (const { name, type, of } of columns) {
    const ownDb: unknown[] = of ? await database(of.table).orderBy(of.column).limit(2).pluck(of.column) : [];
    row[name] = of ? (ownDb[number % Math.max(1, ownDb.length)] ?? null) : someOf(type, number);
  }
  await database(table).insert(row);
}
