import type { Knex } from "knex";

/** The gazetteer: identities, data sets with their versions, records by version, publications. */
export async function up(database: Knex): Promise<void> {
  await database.schema
    .createTable("data_sets", (table) => {
      table.increments("id");
      table.text("name").notNullable().unique();
      table.text("licence").notNullable();
      table.integer("trust").notNullable().defaultTo(1);
    })
    .createTable("data_set_versions", (table) => {
      table.increments("id");
      table.integer("data_set_id").notNullable().references("data_sets.id");
      table.integer("number").notNullable();
      table.date("day").notNullable();
      table.timestamp("created_at").notNullable().defaultTo(database.fn.now());
      table.unique(["data_set_id", "number"]);
    })
    // one thing, one identity, over all versions: refs are made from it
    .createTable("identities", (table) => {
      table.increments("id");
      table.integer("data_set_id").notNullable().references("data_sets.id");
      table.text("natural_key").notNullable();
      table.unique(["data_set_id", "natural_key"]);
    })
    .createTable("areas", (table) => {
      recordColumns(table);
      table.integer("parent");
      table.text("kind").notNullable();
      table.text("code");
      table.jsonb("names").notNullable();
      table.integer("population").notNullable();
      table.float("importance").notNullable();
      table.jsonb("rings").notNullable();
    })
    .createTable("postcodes", (table) => {
      recordColumns(table);
      table.text("code").notNullable();
      table.integer("area").notNullable();
    })
    .createTable("streets", (table) => {
      recordColumns(table);
      table.text("kind").notNullable();
      table.integer("area").notNullable();
      table.jsonb("names").notNullable();
      table.float("importance").notNullable();
    })
    .createTable("addresses", (table) => {
      recordColumns(table);
      table.integer("street").notNullable();
      table.integer("number").notNullable();
      table.text("suffix").notNullable();
      table.integer("postcode");
    })
    .createTable("places", (table) => {
      recordColumns(table);
      table.integer("area").notNullable();
      table.integer("address");
      table.specificType("kinds", "text[]").notNullable();
      table.jsonb("names").notNullable();
      table.float("importance").notNullable();
      table.jsonb("facts").notNullable();
    })
    .createTable("map_features", (table) => {
      table.integer("version_id").notNullable().references("data_set_versions.id");
      table.integer("number").notNullable();
      table.text("layer").notNullable();
      table.integer("rank").notNullable();
      table.jsonb("names").notNullable();
      table.integer("identity");
      table.text("country");
      table.jsonb("properties").notNullable();
      table.jsonb("geometry").notNullable();
      table.primary(["version_id", "number"]);
    })
    .createTable("publications", (table) => {
      table.increments("id");
      table.timestamp("created_at").notNullable().defaultTo(database.fn.now());
    })
    .createTable("publication_versions", (table) => {
      table.integer("publication_id").notNullable().references("publications.id");
      table.integer("position").notNullable();
      table.integer("version_id").notNullable().references("data_set_versions.id");
      table.primary(["publication_id", "position"]);
    });

  function recordColumns(table: Knex.CreateTableBuilder) {
    table.integer("version_id").notNullable().references("data_set_versions.id");
    table.integer("identity").notNullable().references("identities.id");
    table.string("country", 2).notNullable();
    table.double("lat").notNullable();
    table.double("lon").notNullable();
    table.primary(["version_id", "identity"]);
  }
}

export async function down(database: Knex): Promise<void> {
  for (const table of [
    "publication_versions",
    "publications",
    "map_features",
    "places",
    "addresses",
    "streets",
    "postcodes",
    "areas",
    "identities",
    "data_set_versions",
    "data_sets",
  ]) {
    await database.schema.dropTable(table);
  }
}
