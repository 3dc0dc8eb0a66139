import type { Knex } from "knex";

/** Hosts that maps may fetch pictures from. */
export async function up(database: Knex): Promise<void> {
  await database.schema.alterTable(
    "service_hosts",
    (table) => void table.boolean("for_pictures").notNullable().defaultTo(false),
  );
}

export async function down(database: Knex): Promise<void> {
  await database.schema.alterTable("service_hosts", (table) => void table.dropColumn("for_pictures"));
}
