import type { Knex } from "knex";

/** Many lookups at once: the rows of a file, what was found, and what people decided. */
export async function up(database: Knex): Promise<void> {
  await database.schema
    .createTable("batches", (table) => {
      table.increments("id");
      table.text("name").notNullable();
      table.integer("job_id");
      // of the key by which it came; null from the workbench
      table.integer("key_id");
      table.jsonb("reading").notNullable();
      table.text("ask").notNullable();
      table.jsonb("heads");
      table.integer("made_by");
      table.timestamp("made_at").notNullable().defaultTo(database.fn.now());
      // null until all of the file is stored
      table.integer("rows");
    })
    .createTable("batch_rows", (table) => {
      table.integer("batch_id").notNullable().references("batches.id").onDelete("cascade");
      table.integer("number").notNullable();
      table.specificType("cells", "text[]").notNullable();
      table.primary(["batch_id", "number"]);
    })
    .createTable("batch_results", (table) => {
      table.integer("batch_id").notNullable().references("batches.id").onDelete("cascade");
      table.integer("number").notNullable();
      // clear, doubtful, none; seen once somebody has decided
      table.text("standing").notNullable();
      table.text("asked").notNullable();
      table.float("score");
      table.float("distance");
      table.integer("others").notNullable();
      // the record that is taken, as an answer of the wire has it
      table.jsonb("answer");
      table.text("decision");
      table.primary(["batch_id", "number"]);
      table.index(["batch_id", "standing", "score"]);
    })
    .createTable("batch_decisions", (table) => {
      table.increments("id");
      table.integer("batch_id").notNullable().references("batches.id").onDelete("cascade");
      table.integer("number").notNullable();
      // accept, choose, correct, leave, back
      table.text("how").notNullable();
      table.jsonb("answer");
      table.integer("made_by");
      table.timestamp("made_at").notNullable().defaultTo(database.fn.now());
      table.index(["batch_id", "number"]);
    });
}

export async function down(database: Knex): Promise<void> {
  for (const table of ["batch_decisions", "batch_results", "batch_rows", "batches"])
    await database.schema.dropTable(table);
}
