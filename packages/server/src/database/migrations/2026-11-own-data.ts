import type { Knex } from "knex";

/** Data that developers import: their files, jobs, what was odd about rows; and who published what. */
export async function up(database: Knex): Promise<void> {
  await database.schema.alterTable("data_sets", (table) => {
    table.text("source").notNullable().defaultTo("");
    // how its columns were read last
    table.jsonb("reading");
  });
  await database.schema.alterTable("data_set_versions", (table) => {
    table.text("file_name");
    table.jsonb("counts");
    table.jsonb("checks");
    table.integer("made_by");
    table.integer("job_id").unique();
  });
  // a load joins every address to the version, identity and data set: checking each row once more cost a third of the time
  await database.schema.alterTable("addresses", (table) => {
    table.dropForeign("version_id");
    table.dropForeign("identity");
  });
  await database.schema.alterTable("identities", (table) => {
    table.dropForeign("data_set_id");
    table.integer("replaced_by");
  });
  await database.schema.alterTable("publications", (table) => {
    table.integer("made_by");
    table.text("why").notNullable().defaultTo("");
    table.integer("job_id").unique();
  });
  await database.schema
    .createTable("files", (table) => {
      table.text("id").primary();
      table.text("name").notNullable();
      table.bigInteger("bytes").notNullable();
      table.timestamp("made_at").notNullable().defaultTo(database.fn.now());
    })
    .createTable("brought_rows", (table) => {
      table.integer("version_id").notNullable().references("data_set_versions.id").onDelete("cascade");
      table.integer("number").notNullable();
      table.text("kind").notNullable();
      table.boolean("is_refused").notNullable();
      table.text("words").notNullable();
      table.integer("column_number");
      table.jsonb("cells");
      table.index(["version_id", "kind", "number"]);
    })
    .createTable("jobs", (table) => {
      table.increments("id");
      table.text("kind").notNullable();
      // waiting, running, paused, done, failed, cancelled
      table.text("state").notNullable().defaultTo("waiting");
      table.text("wanted");
      table.jsonb("asked").notNullable();
      table.text("title").notNullable();
      table.double("done").notNullable().defaultTo(0);
      table.double("total").notNullable().defaultTo(0);
      table.text("words").notNullable().defaultTo("");
      table.jsonb("result");
      table.integer("made_by");
      table.timestamp("made_at").notNullable().defaultTo(database.fn.now());
      table.timestamp("began_at");
      table.timestamp("ended_at");
      table.index(["state"]);
    });
}

export async function down(database: Knex): Promise<void> {
  await database.schema.dropTable("jobs").dropTable("brought_rows").dropTable("files");
  await database.schema.alterTable("publications", (table) => table.dropColumns("made_by", "why", "job_id"));
  await database.schema.alterTable("data_set_versions", (table) =>
    table.dropColumns("file_name", "counts", "checks", "made_by", "job_id"),
  );
  await database.schema.alterTable("addresses", (table) => {
    table.foreign("version_id").references("data_set_versions.id");
    table.foreign("identity").references("identities.id");
  });
  await database.schema.alterTable("identities", (table) => {
    table.dropColumn("replaced_by");
    table.foreign("data_set_id").references("data_sets.id");
  });
  await database.schema.alterTable("data_sets", (table) => table.dropColumns("source", "reading"));
}
