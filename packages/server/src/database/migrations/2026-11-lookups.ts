import type { Knex } from "knex";

/** Earlier lookups of the workbench, kept for their user alone, and whether they are kept at all. */
export async function up(database: Knex): Promise<void> {
  await database.schema
    .alterTable("users", (table) => {
      table.boolean("keeps_lookups").notNullable().defaultTo(true);
    })
    .createTable("lookups", (table) => {
      table.increments("id");
      table.integer("user_id").notNullable().references("users.id");
      table.text("asked").notNullable();
      table.text("outcome").notNullable();
      table.integer("found").notNullable();
      table.timestamp("asked_at").notNullable().defaultTo(database.fn.now());
      table.unique(["user_id", "asked"]);
    });
}

export async function down(database: Knex): Promise<void> {
  await database.schema.dropTable("lookups");
  await database.schema.alterTable("users", (table) => table.dropColumn("keeps_lookups"));
}
