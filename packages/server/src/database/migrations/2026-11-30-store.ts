import type { Knex } from "knex";

/** Files that all servers of one database share: uploads and index files, in chunks. */
export async function up(database: Knex): Promise<void> {
  await database.schema.createTable("stored_files", (table) => {
    table.text("name").primary();
    table.bigInteger("bytes").notNullable();
    table.text("sha256").notNullable();
    table.timestamp("made_at").notNullable().defaultTo(database.fn.now());
  });
  await database.schema.createTable("stored_chunks", (table) => {
    table.text("name").notNullable().references("stored_files.name").onDelete("CASCADE");
    table.integer("number").notNullable();
    table.binary("data").notNullable();
    table.primary(["name", "number"]);
  });
  // what is in them is packed already, or read once
  await database.raw("alter table stored_chunks alter column data set storage external");
}

export async function down(database: Knex): Promise<void> {
  await database.schema.dropTable("stored_chunks");
  await database.schema.dropTable("stored_files");
}
