import type { Knex } from "knex";

/** Houses that have a name, with or without a number, and flats. */
export async function up(database: Knex): Promise<void> {
  await database.schema.alterTable("addresses", (table) => {
    table.integer("number").nullable().alter();
    table.text("name");
    table.text("unit");
  });
}

export async function down(database: Knex): Promise<void> {
  await database("addresses").whereNull("number").delete();
  await database.schema.alterTable("addresses", (table) => {
    table.dropColumns("name", "unit");
    table.integer("number").notNullable().alter();
  });
}
