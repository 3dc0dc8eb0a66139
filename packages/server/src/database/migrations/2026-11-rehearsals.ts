import type { Knex } from "knex";

/** Kept rehearsals of forms, and what happened in their last runs. */
export async function up(database: Knex): Promise<void> {
  await database.schema
    .createTable("rehearsals", (table) => {
      table.increments("id");
      table.integer("form_id").notNullable().references("forms.id").index();
      table.text("name").notNullable();
      table.text("situation").notNullable();
      table.jsonb("steps").notNullable();
      table.jsonb("expected").notNullable();
      table.timestamp("kept_at").notNullable().defaultTo(database.fn.now());
      table.unique(["form_id", "name"]);
    })
    .createTable("traces", (table) => {
      table.increments("id");
      table.integer("form_id").notNullable().references("forms.id").index();
      table.text("about").notNullable();
      table.jsonb("events").notNullable();
      table.integer("count").notNullable();
      table.timestamp("kept_at").notNullable().defaultTo(database.fn.now());
    });
}

export async function down(database: Knex): Promise<void> {
  for (const table of ["traces", "rehearsals"]) await database.schema.dropTable(table);
}
