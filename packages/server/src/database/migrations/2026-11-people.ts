import type { Knex } from "knex";

/** People with a role and a password, and sessions whose secret is made anew from time to time. */
export async function up(database: Knex): Promise<void> {
  await database.schema.alterTable("users", (table) => {
    table.text("role").notNullable().defaultTo("manage");
    table.text("password_hash");
    table.timestamp("signed_in_at");
  });
  await database.schema.alterTable("sessions", (table) => {
    // what the token against foreign changes is made from: it stays while the secret changes
    table.text("family");
    table.text("previous_hash").index();
    table.timestamp("rotated_at").notNullable().defaultTo(database.fn.now());
  });
  await database.raw("create unique index users_name on users (lower(name))");
}

export async function down(database: Knex): Promise<void> {
  await database.raw("drop index users_name");
  await database.schema.alterTable("sessions", (table) => table.dropColumns("family", "previous_hash", "rotated_at"));
  await database.schema.alterTable("users", (table) => table.dropColumns("role", "password_hash", "signed_in_at"));
}
