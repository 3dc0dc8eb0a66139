import type { MapFeature } from "@bibliotope/core/map";
import { refOf } from "@bibliotope/core/place";
import type { Knex } from "knex";
import { copiedRows } from "../database/copy.ts";
import { deriveFeatures, type Gazetteer } from "./derive-features.ts";
import { worldFeatures } from "./world-features.ts";

/**
 * All map features of some data-set versions, each with the ref of the record that it shows, on the world's lands. A version
 * that brings none has them made from the addresses, places and areas.
 */
export async function readMapFeatures(database: Knex, versions: readonly number[]): Promise<MapFeature[]> {
  const rows = await database("map_features")
    .whereIn("version_id", [...versions])
    .orderBy(["version_id", "number"]);
  const features: MapFeature[] = rows.map((row) => ({
    type: "Feature",
    ...(row.identity === null || row.country === null ? {} : { id: refOf(row.country, row.identity) }),
    geometry: row.geometry,
    properties: {
      layer: row.layer,
      rank: row.rank,
      ...(row.names.length ? { names: row.names } : {}),
      ...row.properties,
    },
  }));
  const drawn = new Set(rows.map((row) => row.version_id));
  for (const version of versions)
    if (!drawn.has(version))
      for (const feature of deriveFeatures(await readGazetteer(database, version))) features.push(feature);
  return features.length ? worldFeatures().concat(features) : features;
}

async function readGazetteer(database: Knex, version: number): Promise<Gazetteer> {
  const of = (table: string, ...columns: string[]) =>
    database(table).where({ version_id: version }).select(columns).orderBy("identity");
  const at = ({ lat, lon, ...row }: { lat: number; lon: number }) => ({ ...row, at: { lat, lon } });
  const [areas, streets, places] = await Promise.all([
    of("areas", "identity", "country", "kind", "names", "lat", "lon", "importance"),
    of("streets", "identity", "country", "kind", "names"),
    of("places", "identity", "country", "lat", "lon"),
  ]);
  const addresses: Gazetteer["addresses"] = [];
  const select = database("addresses")
    .where({ version_id: version })
    .orderBy("identity")
    .select("street", "lat", "lon");
  for await (const rows of copiedRows(database, select))
    for (const [street, lat, lon] of rows)
      addresses.push({ street: Number(street), at: { lat: Number(lat), lon: Number(lon) } });
  return { areas: areas.map(at), streets, addresses, places: places.map(at) } as Gazetteer;
}
