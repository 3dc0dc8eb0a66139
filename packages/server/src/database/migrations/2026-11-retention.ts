import type { Knex } from "knex";

/** For how many days things are kept, where somebody chose otherwise. */
export async function up(database: Knex): Promise<void> {
  await database.schema.createTable("retention", (table) => {
    table.text("what").primary();
    table.integer("days").notNullable();
  });
}

export async function down(database: Knex): Promise<void> {
  await database.schema.dropTable("retention");
}
