import type { Knex } from "knex";
import { nameKey } from "../../users/name-key.ts";

/** One normalised name a person is found by; and what was tried at the door, so that all processes count together. */
export async function up(database: Knex): Promise<void> {
  await database.schema.alterTable("users", (table) => void table.text("name_key"));
  const taken = new Set<string>();
  for (const { id, name } of (await database("users").orderBy("id").select("id", "name")) as Named[]) {
    // names that were two until now stay two
    const key = taken.has(nameKey(name)) ? `${nameKey(name)} ${id}` : nameKey(name);
    taken.add(key);
    await database("users").where({ id }).update({ name_key: key });
  }
  await database.raw("drop index users_name");
  await database.schema.alterTable("users", (table) => void table.text("name_key").notNullable().unique().alter());
  await database.schema.createTable("sign_in_tries", (table) => {
    table.bigIncrements("id");
    table.text("name_key").notNullable();
    table.text("address").notNullable();
    table.timestamp("at").notNullable().defaultTo(database.fn.now());
    table.index(["name_key", "at"]);
    table.index(["address", "at"]);
  });
  // from where somebody came in: a stranger's guessing elsewhere does not keep them out
  await database.schema.createTable("sign_in_places", (table) => {
    table.integer("user_id").notNullable().references("users.id").onDelete("CASCADE");
    table.text("address").notNullable();
    table.timestamp("seen_at").notNullable().defaultTo(database.fn.now());
    table.primary(["user_id", "address"]);
  });
}

export async function down(database: Knex): Promise<void> {
  await database.schema.dropTable("sign_in_places");
  await database.schema.dropTable("sign_in_tries");
  await database.schema.alterTable("users", (table) => void table.dropColumn("name_key"));
  await database.raw("create unique index users_name on users (lower(name))");
}

interface Named {
  id: number;
  name: string;
}
