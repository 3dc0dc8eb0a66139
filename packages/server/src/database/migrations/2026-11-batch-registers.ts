import type { Knex } from "knex";

/** What registers say of the rows of batches. */
export async function up(database: Knex): Promise<void> {
  await database.schema
    .alterTable("batches", (table) => void table.text("register"))
    .alterTable("batch_results", (table) => void table.jsonb("register"));
}

export async function down(database: Knex): Promise<void> {
  await database.schema
    .alterTable("batches", (table) => void table.dropColumn("register"))
    .alterTable("batch_results", (table) => void table.dropColumn("register"));
}
