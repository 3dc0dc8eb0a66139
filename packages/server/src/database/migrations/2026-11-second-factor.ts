import type { Knex } from "knex";

/** Codes of an authenticator app, and passkeys. */
export async function up(database: Knex): Promise<void> {
  await database.schema.alterTable("users", (table) => {
    // sealed; requested once it is confirmed
    table.binary("codes_secret");
    table.timestamp("codes_since");
    // the last step of time whose code was used: none works twice
    table.bigInteger("codes_step");
  });
  await database.schema.createTable("passkeys", (table) => {
    table.text("id").primary();
    table.integer("user_id").notNullable().references("users.id").onDelete("CASCADE");
    table.text("name").notNullable();
    table.binary("public_key").notNullable();
    table.bigInteger("counter").notNullable();
    table.specificType("transports", "text[]").notNullable();
    table.timestamp("made_at").notNullable().defaultTo(database.fn.now());
    table.timestamp("used_at");
    table.index("user_id");
  });
  await database.schema.createTable("used_challenges", (table) => {
    table.text("challenge").primary();
    table.timestamp("at").notNullable().defaultTo(database.fn.now());
  });
}

export async function down(database: Knex): Promise<void> {
  await database.schema.dropTable("used_challenges");
  await database.schema.dropTable("passkeys");
  await database.schema.alterTable(
    "users",
    (table) => void table.dropColumns("codes_secret", "codes_since", "codes_step"),
  );
}
