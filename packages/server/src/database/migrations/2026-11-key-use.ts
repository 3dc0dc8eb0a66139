import type { Knex } from "knex";

/** How much a key may ask, what processes have leased of that, and what was requested. */
export async function up(database: Knex): Promise<void> {
  await database.schema.alterTable("keys", (table) => {
    table.integer("per_minute");
    table.integer("per_day");
  });
  await database.schema
    .createTable("permits", (table) => {
      table.integer("key_id").notNullable().references("keys.id").onDelete("cascade");
      table.text("amount").notNullable();
      table.integer("turn").notNullable();
      table.timestamp("began").notNullable();
      table.integer("taken").notNullable();
      table.primary(["key_id", "amount"]);
    })
    .createTable("uses", (table) => {
      table.timestamp("hour").notNullable();
      table.integer("key_id").notNullable().references("keys.id").onDelete("cascade");
      table.text("call").notNullable();
      table.text("outcome").notNullable();
      table.smallint("bucket").notNullable();
      table.bigInteger("count").notNullable();
      table.primary(["hour", "key_id", "call", "outcome", "bucket"]);
    })
    .createTable("choices", (table) => {
      table.timestamp("hour").notNullable();
      table.integer("key_id").notNullable().references("keys.id").onDelete("cascade");
      table.smallint("letters").notNullable();
      table.bigInteger("count").notNullable();
      table.primary(["hour", "key_id", "letters"]);
    });
}

export async function down(database: Knex): Promise<void> {
  await database.schema.dropTable("choices").dropTable("uses").dropTable("permits");
  await database.schema.alterTable("keys", (table) => table.dropColumns("per_minute", "per_day"));
}
