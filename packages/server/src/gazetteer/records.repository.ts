import {
  type AddressInput,
  type AreaInput,
  Merger,
  type RecordSink,
  type SegmentBuilder,
  type Source,
} from "@bibliotope/core/index";
import type { Knex } from "knex";
import { copiedRows } from "../database/copy.ts";
import type { Rows } from "../database/tables.ts";

/**
 * Reads all records of some data-set versions into a builder, one row at a time. Of several versions the first is
 * trusted most: what others hold too is left out.
 *
 * @param progress hears how many were read
 * @returns how many were read, which identities another one represents, and how many addresses were stored twice
 */
export async function readRecords(
  database: Knex,
  versions: readonly number[],
  builder: SegmentBuilder,
  progress: (read: number) => void,
): Promise<{ read: number; replaced: ReadonlyMap<number, number>; doubles: number }> {
  let read = 0;
  const merger = versions.length > 1 ? new Merger(builder) : undefined;
  const sink: RecordSink = merger ?? builder;
  const each = async <T extends "postcodes" | "streets" | "places">(table: T, take: (row: Rows[T]) => void) => {
    for (const [place, version] of versions.entries()) {
      merger?.from(place);
      const rows = database(table as string)
        .where({ version_id: version })
        .orderBy("identity")
        .stream();
      for await (const row of rows as AsyncIterable<Rows[T]>) {
        take(row);
        if (++read % 10_000 === 0) progress(read);
      }
    }
  };
  for (const [place, version] of versions.entries()) {
    merger?.from(place);
    const areas = await database("areas").where({ version_id: version }).orderBy("identity");
    for (const row of parentsFirst(areas)) sink.addArea(areaOf(row));
    read += areas.length;
  }
  await each("postcodes", (row) =>
    sink.addPostcode({ ...common(row), code: row.code, area: row.area, importance: 0.2 }),
  );
  await each("streets", (row) =>
    sink.addStreet({ ...common(row), names: row.names, importance: row.importance, kind: row.kind, area: row.area }),
  );
  for (const [place, version] of versions.entries()) {
    merger?.from(place);
    const columns = ["identity", "lat", "lon", "street", "number", "suffix", "postcode", "name", "unit"];
    const select = database("addresses").where({ version_id: version }).orderBy("identity").select(columns);
    for await (const rows of copiedRows(database, select)) {
      for (const cells of rows) sink.addAddress(addressOf(cells));
      read += rows.length;
      progress(read);
    }
  }
  await each("places", (row) =>
    sink.addPlace({
      ...common(row),
      names: row.names,
      importance: row.importance,
      area: row.area,
      address: row.address,
      facts: row.facts,
    }),
  );
  progress(read);
  return { read, replaced: merger?.replaced ?? new Map(), doubles: merger?.doubles ?? 0 };
}

const areaOf = (row: Rows["areas"]): AreaInput => ({
  ...common(row),
  names: row.names,
  importance: row.importance,
  kind: row.kind,
  parent: row.parent,
  code: row.code ?? undefined,
  rings: row.rings,
});

const addressOf = (cells: readonly (string | null)[]): AddressInput => ({
  identity: Number(cells[0]),
  at: { lat: Number(cells[1]), lon: Number(cells[2]) },
  street: Number(cells[3]),
  number: cells[4] === null ? null : Number(cells[4]),
  suffix: cells[5]!,
  postcode: cells[6] === null ? null : Number(cells[6]),
  name: cells[7] ?? undefined,
  unit: cells[8] ?? undefined,
});

/** Areas so that each comes after the one around it. */
export function parentsFirst<A extends { identity: number; parent: number | null }>(areas: readonly A[]): A[] {
  const children = new Map<number | null, A[]>();
  for (const area of areas) {
    const own = children.get(area.parent);
    if (own) own.push(area);
    else children.set(area.parent, [area]);
  }
  const ordered: A[] = [...(children.get(null) ?? [])];
  // a country may have a hundred thousand towns: too many for the arguments of one call
  for (const area of ordered) for (const within of children.get(area.identity) ?? []) ordered.push(within);
  return ordered;
}

const common = ({ identity, lat, lon }: { identity: number; lat: number; lon: number }) => ({
  identity,
  at: { lat, lon },
});

/** How many records some versions hold, for progress. */
export async function countRecords(database: Knex, versions: readonly number[]): Promise<number> {
  let total = 0;
  for (const table of ["areas", "postcodes", "streets", "addresses", "places"]) {
    const [{ count }] = await database(table)
      .whereIn("version_id", [...versions])
      .count({ count: "*" });
    total += Number(count);
  }
  return total;
}

/** Where the data of some versions comes from. */
export async function readSources(database: Knex, versions: readonly number[]): Promise<Source[]> {
  return database("data_set_versions")
    .join("data_sets", "data_sets.id", "data_set_versions.data_set_id")
    .whereIn("data_set_versions.id", [...versions])
    .orderBy("data_set_versions.id")
    .select("data_sets.name", "data_sets.licence", database.raw("to_char(day, 'YYYY-MM-DD') as day"));
}
