import type { Knex } from "knex";

/** What people change by hand, over all versions; what end users report comes in as proposals. */
export async function up(database: Knex): Promise<void> {
  await database.schema.createTable("corrections", (table) => {
    table.increments("id");
    // proposed, applied, refused, undone
    table.text("state").notNullable();
    table.text("ref");
    table.text("country");
    table.integer("identity");
    // the record as it was, in one line
    table.text("line").notNullable();
    table.jsonb("change").notNullable();
    table.text("note").notNullable().defaultTo("");
    // of the key by which it was reported; null from the workbench
    table.integer("key_id");
    table.integer("made_by");
    table.timestamp("made_at").notNullable().defaultTo(database.fn.now());
    table.integer("decided_by");
    table.timestamp("decided_at");
    table.index(["state"]);
  });
}

export async function down(database: Knex): Promise<void> {
  await database.schema.dropTable("corrections");
}
