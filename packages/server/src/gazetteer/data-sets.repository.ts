import { rowOf, tableOf } from "@bibliotope/core/formats";
import type { DataAnswer, OddRows, VersionSummary } from "@bibliotope/wire";
import type { Knex } from "knex";
import type { KeptReading } from "../import/inspect.ts";
import { livePublication } from "../publication/publication.repository.ts";

/** Publications that are listed. */
const PUBLICATIONS = 20;
/** Readings of data sets among which that of a file is looked for. */
const READINGS = 50;

/** All data sets with their versions, the newest first; what is live, and what was. */
export async function listData(database: Knex): Promise<DataAnswer> {
  const [sets, versions, live, publications] = await Promise.all([
    database("data_sets").select("id", "name", "licence", "source").orderBy("id"),
    database("data_set_versions")
      .select("id", "data_set_id", "number", "file_name", "counts", "checks", "created_at", {
        isoDay: database.raw<string>("to_char(day, 'YYYY-MM-DD')"),
      })
      .orderBy("id", "desc"),
    livePublication(database),
    database("publications").select("id", "created_at", "why").orderBy("id", "desc").limit(PUBLICATIONS),
  ]);
  const isLive = new Set(live?.versions);
  const published = await database("publication_versions")
    .whereIn(
      "publication_id",
      publications.map(({ id }) => id),
    )
    .orderBy("position");
  const summaryOf = (row: (typeof versions)[number]): VersionSummary => ({
    id: row.id,
    number: row.number,
    day: row.isoDay,
    madeAt: row.created_at.toISOString(),
    fileName: row.file_name,
    counts: row.counts,
    checks: row.checks ?? {},
    isLive: isLive.has(row.id),
  });
  return {
    dataSets: sets.map((set) => ({
      ...set,
      versions: versions.filter(({ data_set_id }) => data_set_id === set.id).map(summaryOf),
    })),
    publications: publications.map(({ id, created_at, why }) => ({
      id,
      madeAt: created_at.toISOString(),
      why,
      versions: published.filter(({ publication_id }) => publication_id === id).map(({ version_id }) => version_id),
    })),
  };
}

export async function findVersion(
  database: Knex,
  version: number,
): Promise<{ name: string; number: number } | undefined> {
  return database("data_set_versions")
    .join("data_sets", "data_sets.id", "data_set_versions.data_set_id")
    .where("data_set_versions.id", version)
    .first("name", "number");
}

/** Counts what a version holds that was not counted when it was made. */
export async function countVersions(database: Knex): Promise<void> {
  const uncounted = await database("data_set_versions").whereNull("counts").pluck("id");
  for (const version of uncounted) {
    const counts: Record<string, number> = {};
    for (const table of ["addresses", "places", "streets", "postcodes", "areas"]) {
      const [{ count }] = await database(table).where({ version_id: version }).count({ count: "*" });
      counts[table] = Number(count);
    }
    await database("data_set_versions")
      .where({ id: version })
      .update({ counts: JSON.stringify(counts) });
  }
}

/** Rows of a version's load that were refused or are odd. */
export async function oddRows(database: Knex, version: number, kind: string, limit: number): Promise<OddRows> {
  const rows = await database("brought_rows")
    .where({ version_id: version, kind })
    .select("number", "kind", "words", "cells", { column: "column_number" })
    .orderBy("number")
    .limit(limit);
  return { rows };
}

/** The rows of a version's load that were refused, as CSV: their number, why, and what stood in them. */
export async function* refusedRows(database: Knex, version: number): AsyncGenerator<string> {
  yield tableOf(["row", "kind", "why"], []);
  const rows = database("brought_rows")
    .where({ version_id: version, is_refused: true })
    .select("number", "kind", "words", "cells")
    .orderBy("number")
    .stream();
  for await (const { number, kind, words, cells } of rows as AsyncIterable<ImportRow>)
    yield rowOf([number, kind, words, ...(cells ?? [])]);
}

interface ImportRow {
  number: number;
  kind: string;
  words: string;
  cells: string[] | null;
}

/** Takes a version away, with all its records. @returns false when it is live or was, or there is none */
export async function dropVersion(database: Knex, version: number): Promise<boolean> {
  return database.transaction(async (transaction) => {
    if (await transaction("publication_versions").where({ version_id: version }).first("version_id")) return false;
    for (const table of ["addresses", "places", "streets", "postcodes", "areas", "map_features", "height_grids"])
      await transaction(table).where({ version_id: version }).delete();
    return (await transaction("data_set_versions").where({ id: version }).delete()) > 0;
  });
}

/** How files of data sets were read before, the newest first. @param name of one data set */
export function keptReadings(database: Knex, name: string | undefined): Promise<KeptReading[]> {
  return database("data_sets")
    .whereNotNull("reading")
    .modify((query) => void (name && query.where({ name })))
    .orderBy("id", "desc")
    .limit(READINGS)
    .pluck("reading");
}
