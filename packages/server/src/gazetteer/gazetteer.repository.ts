import type { World } from "@bibliotope/islands";
import type { Knex } from "knex";
import { type Cell, copyRows } from "../database/copy.ts";
import { storeHeightGrids } from "../heights/height-grids.repository.ts";
import { identitiesOf } from "./identities.repository.ts";

/** The metadata of a data set's version. */
export interface VersionInput {
  name: string;
  licence: string;
  number: number;
  /** ISO 8601. */
  day: string;
}

/** Stores a world as a new version of a data set, in the given transaction. @returns the version's id */
export async function storeWorld(transaction: Knex.Transaction, world: World, about: VersionInput): Promise<number> {
  const dataSet = await dataSetOf(transaction, about);
  const [{ id: version }] = await transaction("data_set_versions")
    .insert({ data_set_id: dataSet, number: about.number, day: about.day })
    .returning("id");
  const records = [world.areas, world.postcodes, world.streets, world.addresses, world.places];
  const identities = await identitiesOf(
    transaction,
    dataSet,
    records.flatMap((list) => list.map(({ key }) => key)),
  );
  const of = (key: string) => identities.get(key)!;
  const maybe = (key: string | null | undefined) => (key == null ? null : (identities.get(key) ?? null));
  const copy = <T>(table: string, columns: string[], list: readonly T[], row: (item: T) => Cell[]) =>
    copyRows(
      transaction,
      table,
      ["version_id", ...columns],
      mapped(list, (item) => [version, ...row(item)]),
    );
  const common = ["identity", "country", "lat", "lon"];
  const own = (record: { key: string; country: string; at: { lat: number; lon: number } }) => [
    of(record.key),
    record.country,
    record.at.lat,
    record.at.lon,
  ];

  await copy(
    "areas",
    [...common, "parent", "kind", "code", "names", "population", "importance", "rings"],
    world.areas,
    (a) => [
      ...own(a),
      maybe(a.parent),
      a.kind,
      a.code ?? null,
      JSON.stringify(a.names),
      a.population,
      a.importance,
      JSON.stringify(a.rings),
    ],
  );
  await copy("postcodes", [...common, "code", "area"], world.postcodes, (p) => [...own(p), p.code, of(p.area)]);
  await copy("streets", [...common, "kind", "area", "names", "importance"], world.streets, (s) => [
    ...own(s),
    s.kind,
    of(s.area),
    JSON.stringify(s.names),
    s.importance,
  ]);
  await copy(
    "addresses",
    [...common, "street", "number", "suffix", "postcode", "name", "unit"],
    world.addresses,
    (a) => [...own(a), of(a.street), a.number, a.suffix, maybe(a.postcode), a.name ?? null, a.unit ?? null],
  );
  await copy("places", [...common, "area", "address", "kinds", "names", "importance", "facts"], world.places, (p) => [
    ...own(p),
    of(p.area),
    maybe(p.address),
    `{${p.kinds.map((kind) => JSON.stringify(kind)).join(",")}}`,
    JSON.stringify(p.names),
    p.importance,
    JSON.stringify(p.facts),
  ]);
  await copy(
    "map_features",
    ["number", "layer", "rank", "names", "identity", "country", "properties", "geometry"],
    [...world.features.entries()],
    ([number, f]) => [
      number,
      f.layer,
      f.rank,
      JSON.stringify(f.names),
      maybe(f.key),
      f.key?.slice(0, 2) ?? null,
      JSON.stringify(f.properties),
      JSON.stringify(f.geometry),
    ],
  );
  await storeHeightGrids(transaction, version, world.grids);
  return version;
}

/** True when a version of a data set is stored already. */
export async function holdsVersion(transaction: Knex.Transaction, name: string, number: number): Promise<boolean> {
  const stored = await transaction("data_set_versions")
    .join("data_sets", "data_sets.id", "data_set_versions.data_set_id")
    .where({ name, number })
    .first("number");
  return stored !== undefined;
}

async function dataSetOf(transaction: Knex.Transaction, { name, licence }: VersionInput): Promise<number> {
  const [{ id }] = await transaction("data_sets")
    .insert({ name, licence })
    .onConflict("name")
    .merge(["licence"])
    .returning("id");
  return id;
}

function* mapped<T>(list: Iterable<T>, row: (item: T) => Cell[]): Generator<Cell[]> {
  for (const item of list) yield row(item);
}
