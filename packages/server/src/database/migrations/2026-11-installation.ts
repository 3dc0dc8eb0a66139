import type { Knex } from "knex";

/**
 * One row that identifies this history of the database: `bibliotope restore` writes another, and may have made the
 * table already when what it put back is older.
 */
export async function up(database: Knex): Promise<void> {
  await database.raw("create table if not exists installation (history uuid not null default gen_random_uuid())");
  await database.raw("insert into installation select gen_random_uuid() where not exists (select from installation)");
}

export async function down(database: Knex): Promise<void> {
  await database.schema.dropTable("installation");
}
