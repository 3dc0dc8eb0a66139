import type { Knex } from "knex";

/** What each address of a form is expected to be after a rehearsal. */
export async function up(database: Knex): Promise<void> {
  await database.schema.alterTable("rehearsals", (table) => {
    table.jsonb("states").notNullable().defaultTo("{}");
  });
}

export async function down(database: Knex): Promise<void> {
  await database.schema.alterTable("rehearsals", (table) => {
    table.dropColumn("states");
  });
}
