import { refOf } from "@bibliotope/core/place";
import type { SheetFeature } from "@bibliotope/core/sheet";
import type { Knex } from "knex";

/** All map features of some data-set versions, each with the ref of the record that it shows. */
export async function readMapFeatures(database: Knex, versions: readonly number[]): Promise<SheetFeature[]> {
  const rows = await database("map_features")
    .whereIn("version_id", [...versions])
    .orderBy(["version_id", "number"]);
  return rows.map((row) => ({
    type: "Feature",
    ...(row.identity === null ? {} : { id: refOf(row.country, row.identity) }),
    geometry: row.geometry,
    properties: {
      layer: row.layer,
      rank: row.rank,
      ...(row.names.length ? { names: row.names } : {}),
      ...row.properties,
    },
  }));
}
