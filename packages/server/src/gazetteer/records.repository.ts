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
  await each("areas", (r) =>
    builder.addArea({
      ...common(r),
      names: r.names,
      importance: r.importance,
      kind: r.kind,
      parent: r.parent,
      code: r.code ?? undefined,
      rings: r.rings,
    }),
  );
  await each("postcodes", (r) => builder.addPostcode({ ...common(r), code: r.code, area: r.area, importance: 0.2 }));
  await each("streets", (r) =>
    builder.addStreet({ ...common(r), names: r.names, importance: r.importance, kind: r.kind, area: r.area }),
  );
  await each("addresses", (r) =>
    builder.addAddress({ ...common(r), street: r.street, number: r.number, suffix: r.suffix, postcode: r.postcode }),
  );
  await each("places", (r) =>
    builder.addPlace({
      ...common(r),
      names: r.names,
      importance: r.importance,
      area: r.area,
      address: r.address,
      facts: r.facts,
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
