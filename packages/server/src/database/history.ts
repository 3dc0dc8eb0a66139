import type { Knex } from "knex";

/**
 * Which history of a database this is. After `bibliotope restore` it is another: what was derived from numbers of the
 * one before (a version, a publication) cannot be applied to those that are there now.
 */
export async function historyOf(database: Knex): Promise<string> {
  const row = await database("installation").first("history");
  return row?.history ?? "";
}
