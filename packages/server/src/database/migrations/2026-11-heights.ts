import type { Knex } from "knex";

/** Heights of the ground, on grids that follow longitude and latitude. */
export async function up(database: Knex): Promise<void> {
  await database.schema.createTable("height_grids", (table) => {
    table.increments("id");
    table.integer("version_id").notNullable().references("data_set_versions.id").onDelete("cascade").index();
    table.double("west").notNullable();
    table.double("south").notNullable();
    table.double("step_lon").notNullable();
    table.double("step_lat").notNullable();
    table.integer("columns").notNullable();
    table.integer("rows").notNullable();
    // 32-bit floats, little endian, row by row from the south-west
    table.binary("metres").notNullable();
  });
}

export async function down(database: Knex): Promise<void> {
  await database.schema.dropTable("height_grids");
}
