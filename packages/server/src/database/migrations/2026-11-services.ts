import type { Knex } from "knex";

/** Outside services as they are described, the secrets they are called with (sealed), and the hosts that may be called. */
export async function up(database: Knex): Promise<void> {
  await database.schema
    .createTable("services", (table) => {
      table.text("name").primary();
      table.integer("revision").notNullable();
      table.jsonb("definition").notNullable();
      table.timestamp("saved_at").notNullable().defaultTo(database.fn.now());
    })
    .createTable("service_secrets", (table) => {
      table.text("name").primary();
      table.binary("sealed").notNullable();
      table.timestamp("set_at").notNullable().defaultTo(database.fn.now());
    })
    .createTable("service_hosts", (table) => {
      table.increments("id");
      table.text("scheme").notNullable();
      table.text("host").notNullable();
      table.integer("port").notNullable();
      table.boolean("is_inside").notNullable();
      table.text("stand_in");
      table.unique(["scheme", "host", "port"]);
    });
}

export async function down(database: Knex): Promise<void> {
  for (const table of ["service_hosts", "service_secrets", "services"]) await database.schema.dropTable(table);
}
