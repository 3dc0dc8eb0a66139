import type { Knex } from "knex";

const TABLES = ["areas", "postcodes", "streets", "places"];

/** A load joins every record to its identity, and stores new identities beside them: a check of each row is once too many. */
export async function up(database: Knex): Promise<void> {
  for (const name of TABLES)
    await database.schema.alterTable(name, (table) => {
      table.dropForeign("version_id");
      table.dropForeign("identity");
    });
}

export async function down(database: Knex): Promise<void> {
  for (const name of TABLES)
    await database.schema.alterTable(name, (table) => {
      table.foreign("version_id").references("data_set_versions.id");
      table.foreign("identity").references("identities.id");
    });
}
