import type { Knex } from "knex";

/** The workbench: users with sessions, keys, forms with drafts and published versions. Secrets are kept as hashes. */
export async function up(database: Knex): Promise<void> {
  await database.schema
    .createTable("users", (table) => {
      table.increments("id");
      table.text("name").notNullable();
    })
    .createTable("sign_in_links", (table) => {
      table.text("token_hash").primary();
      table.integer("user_id").notNullable().references("users.id");
      table.timestamp("expires_at").notNullable();
      table.timestamp("used_at");
    })
    .createTable("sessions", (table) => {
      table.text("token_hash").primary();
      table.integer("user_id").notNullable().references("users.id");
      table.timestamp("expires_at").notNullable();
    })
    .createTable("keys", (table) => {
      table.increments("id");
      table.text("kind").notNullable();
      table.text("name").notNullable();
      table.text("key_hash").notNullable().unique();
      table.specificType("origins", "text[]").notNullable();
      table.timestamp("created_at").notNullable().defaultTo(database.fn.now());
      table.timestamp("withdrawn_at");
    })
    .createTable("forms", (table) => {
      table.increments("id");
      table.text("ref").notNullable().unique();
      table.integer("revision").notNullable();
      table.jsonb("draft").notNullable();
      table.timestamp("saved_at").notNullable().defaultTo(database.fn.now());
    })
    .createTable("form_versions", (table) => {
      table.integer("form_id").notNullable().references("forms.id");
      table.integer("number").notNullable();
      table.integer("revision").notNullable();
      table.jsonb("definition").notNullable();
      table.timestamp("published_at").notNullable().defaultTo(database.fn.now());
      table.primary(["form_id", "number"]);
    });
}

export async function down(database: Knex): Promise<void> {
  for (const table of ["form_versions", "forms", "keys", "sessions", "sign_in_links", "users"])
    await database.schema.dropTable(table);
}
