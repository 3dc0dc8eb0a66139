import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Knex } from "knex";
import { expect, it } from "vitest";
import { ownDatabase } from "../../testing/own-server.ts";
import { connect, migrate } from "./connect.ts";

const FILE = join(import.meta.dirname, "tables.ts");
/** What the driver makes of PostgreSQL's types; of those that are not here, text. */
const TYPES: Readonly<Record<string, string>> = {
  int2: "number",
  int4: "number",
  float4: "number",
  float8: "number",
  bool: "boolean",
  date: "Date",
  timestamptz: "Date",
  bytea: "Buffer",
  json: "unknown",
  jsonb: "unknown",
};
/** What may be written where something else is read: JSON as its text, numbers of eight bytes as numbers, times as text. */
const WRITTEN: Readonly<Record<string, string>> = {
  json: "string",
  jsonb: "string",
  int8: "number",
  date: "string",
  timestamptz: "string",
};
/** Columns of which more is known than the database says, with where the type is from. */
const KNOWN: Readonly<Record<string, readonly [type: string, from?: string]>> = {
  "areas.kind": ["AreaKind", "@bibliotope/core/place"],
  "areas.names": ["Name[]", "@bibliotope/core/place"],
  "batch_decisions.answer": ['Pick<Rows["batch_results"], "standing" | "answer" | "decision">'],
  "batch_results.standing": ["RowStatus", "@bibliotope/wire"],
  "brought_rows.cells": ["string[]"],
  "areas.rings": ["Ring[]", "@bibliotope/core/geo"],
  "corrections.change": ["StoredChange", "../corrections/corrections.repository.ts"],
  "data_set_versions.checks": ["Record<string, number>"],
  "data_set_versions.counts": ['VersionSummary["counts"]', "@bibliotope/wire"],
  "jobs.kind": ["JobKind", "@bibliotope/wire"],
  "jobs.state": ["JobState", "@bibliotope/wire"],
  "jobs.wanted": ['"paused" | "cancelled"'],
  "keys.calls": ["KeyCall[]", "@bibliotope/wire"],
  "keys.kind": ["KeyKind", "@bibliotope/wire"],
  "map_features.geometry": ['MapFeature["geometry"]', "@bibliotope/core/map"],
  "map_features.layer": ["MapLayer", "@bibliotope/core/map"],
  "map_features.names": ['NonNullable<MapFeature["properties"]["names"]>', "@bibliotope/core/map"],
  "map_features.properties": ['Omit<MapFeature["properties"], "layer" | "rank" | "names">', "@bibliotope/core/map"],
  "places.facts": ["Facts", "@bibliotope/core/place"],
  "places.names": ["Name[]", "@bibliotope/core/place"],
  "service_hosts.scheme": ['AllowedHost["scheme"]', "@bibliotope/wire"],
  "services.definition": ["Service", "@bibliotope/core/service"],
  "streets.kind": ['"street" | "block"'],
  "streets.names": ["Name[]", "@bibliotope/core/place"],
  "users.role": ["Role", "@bibliotope/wire"],
};
/** Tables that packages make for themselves. */
const OF_PACKAGES = ["migrations", "migrations_lock"];

it("the types of the tables are those of the database", { timeout: 60_000 }, async () => {
  const own = await ownDatabase("typed");
  const database = connect(own.url, 2);
  try {
    await migrate(database);
    const text = await tablesText(database);
    if (process.env.UPDATE_DOCS) writeFileSync(FILE, text);
    expect(readFileSync(FILE, "utf8")).toBe(text);
  } finally {
    await database.destroy();
    await own.drop();
  }
});

async function tablesText(database: Knex): Promise<string> {
  const { rows } = await database.raw<{ rows: { table: string; column: string; type: string; isNullable: boolean }[] }>(
    `select table_name as table, column_name as column, udt_name as type, is_nullable = 'YES' as "isNullable"
     from information_schema.columns join information_schema.tables using (table_schema, table_name)
     where table_schema = 'public' and table_type = 'BASE TABLE' and not table_name = any (?)
     order by table_name collate "C", ordinal_position`,
    [OF_PACKAGES],
  );
  const byTable = new Map<string, { read: string[]; written: string[] }>();
  const imports = new Map<string, Set<string>>();
  for (const { table, column, type, isNullable } of rows) {
    const plain = type.replace(/^_/, "");
    const [known, from] = KNOWN[`${table}.${column}`] ?? [];
    const name =
      known && from && /\w+(?=\W*$|\[)/.exec(known.replace(/^(NonNullable|Omit)</, "").replace(/,.*/, ""))?.[0];
    if (name && from) imports.set(from, (imports.get(from) ?? new Set()).add(name));
    const one = known ?? `${TYPES[plain] ?? "string"}${type === plain ? "" : "[]"}`;
    const orNull = isNullable && one !== "unknown" ? " | null" : "";
    const { read, written } = byTable.get(table) ?? { read: [], written: [] };
    read.push(`${column}: ${one}${orNull};`);
    if (Object.hasOwn(WRITTEN, type)) written.push(`${column}: ${WRITTEN[type]} | ${one}${orNull};`);
    byTable.set(table, { read, written });
  }
  const read = [...byTable].map(([table, columns]) => `  ${table}: { ${columns.read.join(" ")} };`);
  const tables = [...byTable].map(([table, { written }]) =>
    written.length
      ? `    ${table}: Written<Rows["${table}"], { ${written.join(" ")} }>;`
      : `    ${table}: Rows["${table}"];`,
  );
  const heads = [...imports].map(([from, names]) => `import type { ${[...names].sort().join(", ")} } from "${from}";`);
  return formatted(`// Made from the database of the newest version; UPDATE_DOCS=1 npm run test:server -- tables writes it anew.
${heads.join("\n")}
import type { Knex } from "knex";

/** Rows of each table as the driver gives them. */
export interface Rows {
${read.join("\n")}
}

/** A table some columns of which are written otherwise than they are read. */
type Written<Row, Columns> = Knex.CompositeTableType<
  Row,
  { [Column in keyof Row]?: (Column extends keyof Columns ? Columns[Column] : Row[Column]) | Knex.Raw | Knex.Ref<string, object> }
>;

declare module "knex/types/tables.js" {
  interface Tables {
${tables.join("\n")}
  }
}
`);
}

/** As the project's files are formatted. */
function formatted(text: string): string {
  const biome = join(import.meta.dirname, "../../../../node_modules/.bin/biome");
  return execFileSync(biome, ["check", "--write", "--stdin-file-path=packages/server/src/database/tables.ts"], {
    input: text,
    encoding: "utf8",
    cwd: join(import.meta.dirname, "../../../.."),
  });
}
