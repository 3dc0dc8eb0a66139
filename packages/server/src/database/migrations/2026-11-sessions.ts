import type { Knex } from "knex";

/** Since when a session is, when it was used last, and what it was begun with: so that people know their own. */
export async function up(database: Knex): Promise<void> {
  await database.schema.alterTable("sessions", (table) => {
    table.timestamp("made_at").notNullable().defaultTo(database.fn.now());
    table.timestamp("seen_at").notNullable().defaultTo(database.fn.now());
    table.text("agent").notNullable().defaultTo("");
    table.text("address").notNullable().defaultTo("");
  });
}

export async function down(database: Knex): Promise<void> {
  await database.schema.alterTable("sessions", (table) => table.dropColumns("made_at", "seen_at", "agent", "address"));
}
