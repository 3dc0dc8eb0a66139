import type { SegmentBuilder, Source } from "@bibliotope/core/index";
import type { Knex } from "knex";

/** Reads all records of some data-set versions into a builder, one row at a time. @returns how many were read */
export async function readRecords(
  database: Knex,
  versions: readonly number[],
  builder: SegmentBuilder,
  progress: (read: number) => void,
): Promise<number> {
  let read = 0;
  const each = async (table: string, take: (row: Row) => void) => {
    const rows = database(table)
      .whereIn("version_id", [...versions])
      .orderBy("identity")
      .stream();
    for await (const row of rows as AsyncIterable<Row>) {
      take(row);
      if (++read % 10_000 === 0) progress(read);
    }
  };
  await each("areas", (row) =>
    builder.addArea({
      ...common(row),
      names: row.names,
      importance: row.importance,
      kind: row.kind,
      parent: row.parent,
      code: row.code ?? undefined,
      rings: row.rings,
    }),
  );
  await each("postcodes", (row) =>
    builder.addPostcode({ ...common(row), code: row.code, area: row.area, importance: 0.2 }),
  );
  await each("streets", (row) =>
    builder.addStreet({ ...common(row), names: row.names, importance: row.importance, kind: row.kind, area: row.area }),
  );
  await each("addresses", (row) =>
    builder.addAddress({
      ...common(row),
      street: row.street,
      number: row.number,
      suffix: row.suffix,
      postcode: row.postcode,
      name: row.name ?? undefined,
      unit: row.unit ?? undefined,
    }),
  );
  await each("places", (row) =>
    builder.addPlace({
      ...common(row),
      names: row.names,
      importance: row.importance,
      area: row.area,
      address: row.address,
      facts: row.facts,
    }),
  );
  progress(read);
  return read;
}

/** A row of any record table, as pg parses it. */
// biome-ignore lint/suspicious/noExplicitAny: the columns differ by table; the builder's own types check what is taken
type Row = any;

const common = (row: Row) => ({
  identity: row.identity as number,
  at: { lat: row.lat as number, lon: row.lon as number },
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
