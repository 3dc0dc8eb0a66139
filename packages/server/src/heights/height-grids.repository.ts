import { endianness } from "node:os";
import type { HeightGrid } from "@bibliotope/core/geo";
import type { Knex } from "knex";

/** Stores grids with a version of a data set. */
export async function storeHeightGrids(
  transaction: Knex.Transaction,
  version: number,
  grids: readonly HeightGrid[],
): Promise<void> {
  for (const { west, south, stepLon, stepLat, columns, rows, metres } of grids) {
    await transaction("height_grids").insert({
      version_id: version,
      west,
      south,
      step_lon: stepLon,
      step_lat: stepLat,
      columns,
      rows,
      metres: littleEndian(Buffer.from(metres.slice().buffer)),
    });
  }
}

/** The grids of some versions, the first version's first. */
export async function readHeightGrids(database: Knex, versions: readonly number[]): Promise<HeightGrid[]> {
  const rows = await database("height_grids")
    .whereIn("version_id", [...versions])
    .orderBy("id");
  const place = (row: { version_id: number }) => versions.indexOf(row.version_id);
  return rows
    .sort((a, b) => place(a) - place(b))
    .map((row) => ({
      west: row.west,
      south: row.south,
      stepLon: row.step_lon,
      stepLat: row.step_lat,
      columns: row.columns,
      rows: row.rows,
      metres: new Float32Array(Uint8Array.from(littleEndian(row.metres)).buffer),
    }));
}

/** To the order of this machine, and back. */
const littleEndian = (bytes: Buffer) => (endianness() === "LE" ? bytes : bytes.swap32());
