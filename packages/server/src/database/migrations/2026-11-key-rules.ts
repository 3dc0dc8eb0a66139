import type { Knex } from "knex";

/** What a key may be used for, until when, and when it was used last. */
export async function up(database: Knex): Promise<void> {
  await database.schema.alterTable("keys", (table) => {
    table.specificType("calls", "text[]").notNullable().defaultTo("{}");
    table.specificType("countries", "text[]").notNullable().defaultTo("{}");
    table.timestamp("ends_at");
    table.timestamp("used_at");
  });
}

export async function down(database: Knex): Promise<void> {
  await database.schema.alterTable("keys", (table) => table.dropColumns("calls", "countries", "ends_at", "used_at"));
}
