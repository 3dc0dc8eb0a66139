import type { Knex } from "knex";

const TABLES = ["areas", "postcodes", "streets", "places"];

/** Tables that take very many rows at once. */
const LARGE = ["addresses", "identities", "batch_rows", "batch_results"];

/**
 * A load joins every record to the identity, and stores new identities beside them: a check of each row is once too many.
 * Large tables are not vacuumed only because rows came to them: it would run while the next step waits for the machine.
 */
export async function up(database: Knex): Promise<void> {
  for (const name of LARGE) await database.raw("alter table ?? set (autovacuum_vacuum_insert_threshold = -1)", [name]);
  for (const name of TABLES)
    await database.schema.alterTable(name, (table) => {
      table.dropForeign("version_id");
      table.dropForeign("identity");
    });
}

export async function down(database: Knex): Promise<void> {
  for (const name of LARGE) await database.raw("alter table ?? reset (autovacuum_vacuum_insert_threshold)", [name]);
  for (const name of TABLES)
    await database.schema.alterTable(name, (table) => {
      table.foreign("version_id").references("data_set_versions.id");
      table.foreign("identity").references("identities.id");
    });
}
