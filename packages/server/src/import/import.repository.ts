import type { EarlierStreet, GatheredArea } from "@bibliotope/core/import";
import type { Knex } from "knex";
import { type Cell, copyRows } from "../database/copy.ts";
import { giveIdentities } from "../gazetteer/identities.repository.ts";
import { TableError } from "./bytes.ts";
import type { ImportRequest, Loaded, VersionCounts } from "./import-request.ts";

export interface NewVersion {
  id: number;
  dataSet: number;
}

/** Raised when no row of a table could be taken. */
export class NothingTaken extends TableError {
  constructor(rows: number, checks: Record<string, number>) {
    const [kind, count] = Object.entries(checks).sort((a, b) => b[1] - a[1])[0] ?? ["", 0];
    super(
      rows
        ? `None of ${rows.toLocaleString("en")} rows can be imported; ${count.toLocaleString("en")} of them: ${kind.replaceAll("-", " ")}. Check what the columns are read as.`
        : "The file has no rows.",
    );
  }
}

export const COMMON = ["version_id", "identity", "country", "lat", "lon"];

/**
 * Columns of the staging table. A row of it is an address (a), a place (p), a row that was refused (r) or one with a
 * doubt (d); `part` is the heap of an address, the area of a place, the column of a row that is odd.
 */
export const STAGED = [
  "kind",
  "number",
  "part",
  "own",
  "name",
  "more",
  "country",
  "lat",
  "lon",
  "house",
  "suffix",
  "unit",
  "postcode",
];

export async function makeVersion(transaction: Knex.Transaction, params: ImportRequest): Promise<NewVersion> {
  const { name, licence, source } = params.dataSet;
  const [{ id: dataSet }] = await transaction("data_sets")
    .insert({ name, licence, source, reading: JSON.stringify({ heads: params.heads, ...params.reading }), trust: 2 })
    .onConflict("name")
    .merge(["licence", "source", "reading"])
    .returning("id");
  const last = await transaction("data_set_versions").where({ data_set_id: dataSet }).max({ number: "number" }).first();
  const [{ id }] = await transaction("data_set_versions")
    .insert({
      data_set_id: dataSet,
      number: (last?.number ?? 0) + 1,
      day: params.day,
      file_name: params.fileName,
      made_by: params.madeBy,
      job_id: params.job,
    })
    .returning("id");
  return { id, dataSet };
}

/** The version that a job has made already. */
export async function versionOfJob(database: Knex, job: number): Promise<Loaded | undefined> {
  return database("data_set_versions").where({ job_id: job }).first({ version: "id" }, "counts", "checks");
}

export async function finishVersion(
  transaction: Knex.Transaction,
  id: number,
  counts: VersionCounts,
  checks: Record<string, number>,
): Promise<void> {
  // what is looked at next is the new version: the planner is to know how much it holds
  await transaction.raw("analyze areas, postcodes, streets, addresses, places, brought_rows");
  await transaction("data_set_versions")
    .where({ id })
    .update({ counts: JSON.stringify(counts), checks: JSON.stringify(checks) });
}

/** Tables that live as long as the load's transaction. */
export async function makeStaging(transaction: Knex.Transaction): Promise<void> {
  await transaction.raw(`
    create temporary table imported (
      kind "char" not null, number int not null, part int, own text, name text, more text,
      country text, lat float8, lon float8, house int, suffix text, unit text, postcode int
    ) on commit drop`);
  await transaction.raw("create temporary table imported_heaps (heap int, street int, is_far int) on commit drop");
  await transaction.raw("create temporary table imported_areas (place int, identity int) on commit drop");
  await transaction.raw("create temporary table imported_postcodes (place int, identity int) on commit drop");
}

/** Streets of the newest version before, by the key that their area and name give, so that they keep their refs. */
export async function earlierStreets(
  transaction: Knex.Transaction,
  dataSet: number,
  version: number,
): Promise<Map<string, EarlierStreet[]>> {
  const before = await transaction("data_set_versions")
    .where({ data_set_id: dataSet })
    .andWhere("id", "<", version)
    .max({ id: "id" })
    .first();
  const earlier = new Map<string, EarlierStreet[]>();
  if (!before?.id) return earlier;
  const rows = await transaction("streets")
    .join("identities", "identities.id", "streets.identity")
    .where("streets.version_id", before.id)
    .select("natural_key", "lat", "lon");
  for (const { natural_key: key, lat, lon } of rows) {
    const base = key.replace(/@[^@/]*$/, "");
    const list = earlier.get(base) ?? [];
    list.push({ key, at: { lat, lon } });
    earlier.set(base, list);
  }
  return earlier;
}

export async function copyAreas(
  transaction: Knex.Transaction,
  areas: [...Cell[], GatheredArea][] | (readonly (Cell | GatheredArea)[])[],
): Promise<void> {
  await copyRows(
    transaction,
    "areas",
    [...COMMON, "parent", "kind", "code", "names", "population", "importance", "rings"],
    areas.map((row) => {
      const { kind, code, names, importance, rings } = row.at(-1) as GatheredArea;
      const own = row.slice(0, -1) as Cell[];
      return [...own, kind, code ?? null, JSON.stringify(names), 0, importance, JSON.stringify(rings)];
    }),
  );
}

/**
 * Gives every address and place its identity, the one that it had in earlier versions, and stores it. Of several rows
 * with the same, the first is taken; the others are listed as doubles.
 * @param rows how many were staged
 */
export async function storeAddresses(
  transaction: Knex.Transaction,
  { id, dataSet }: NewVersion,
  rows: { addresses: number; places: number },
): Promise<{ addresses: number; places: number }> {
  await transaction.raw("analyze imported, imported_heaps, imported_areas, imported_postcodes");
  await transaction.raw(`
    create temporary view keyed as
    select b.number, h.street, b.house, b.suffix, b.postcode, b.name, b.unit, b.country, b.lat, b.lon,
      coalesce('id:' || b.own, h.street || '/' || coalesce(b.house::text, '') || b.suffix
        || '/' || coalesce(b.unit, '') || '/' || coalesce(b.name, '')) as key
    from imported b join imported_heaps h on h.heap = b.part where b.kind = 'a'`);
  await transaction.raw(`
    create temporary view keyed_places as
    select b.number, a.identity as area, b.more::jsonb as more, b.country, b.lat, b.lon,
      coalesce('p:id:' || b.own, 'p:' || a.identity || '/' || b.name) as key
    from imported b join imported_areas a on a.place = b.part where b.kind = 'p'`);
  const given = await giveIdentities(transaction, dataSet, "keyed");
  const givenPlaces = await giveIdentities(transaction, dataSet, "keyed_places");
  const addresses = await transaction.raw(
    `insert into addresses (version_id, identity, country, lat, lon, street, number, suffix, postcode, name, unit)
     select ?::int, g.identity, k.country, k.lat, k.lon, k.street, k.house, k.suffix, p.identity, k.name, k.unit
     from keyed k
     join ?? g on g.number = k.number
     left join imported_postcodes p on p.place = k.postcode`,
    [id, given],
  );
  const places = await transaction.raw(
    `insert into places (version_id, identity, country, lat, lon, area, address, kinds, names, importance, facts)
     select ?::int, g.identity, k.country, k.lat, k.lon, k.area, ga.identity,
       array(select jsonb_array_elements_text(k.more -> 'kinds')), k.more -> 'names',
       (k.more ->> 'importance')::real, coalesce(k.more -> 'facts', '{}')
     from keyed_places k
     join ?? g on g.number = k.number
     -- a row that names an address too stands at it, whichever row named that first
     left join keyed ka on ka.number = k.number
     left join ?? ga on ga.key = ka.key`,
    [id, givenPlaces, given],
  );
  if (addresses.rowCount < rows.addresses) await listDoubles(transaction, id, "keyed", given);
  if (places.rowCount < rows.places) await listDoubles(transaction, id, "keyed_places", givenPlaces);
  await transaction.raw("drop view keyed, keyed_places");
  return { addresses: addresses.rowCount, places: places.rowCount };
}

/** Lists the rows that say again what an earlier one said. */
async function listDoubles(
  transaction: Knex.Transaction,
  version: number,
  table: string,
  given: string,
): Promise<void> {
  await transaction.raw(
    `insert into brought_rows (version_id, number, kind, is_refused, words)
     select ?::int, k.number, 'double', true, 'the same as row ' || g.number
     from ?? k join ?? g on g.key = k.key and g.number < k.number`,
    [version, table, given],
  );
}

/** Lists the rows that were refused or are odd, and counts what only shows when all are stored. */
export async function checkStored(
  transaction: Knex.Transaction,
  version: number,
  most: number,
): Promise<Record<string, number>> {
  await transaction.raw(
    `insert into brought_rows (version_id, number, kind, is_refused, words, column_number, cells)
     select ?::int, number, own, kind = 'r', name, part, more::jsonb from imported where kind in ('r', 'd')`,
    [version],
  );
  const far = await transaction.raw(
    `select count(*)::int as count from imported b join imported_heaps h on h.heap = b.part
     where b.kind = 'a' and h.is_far = 1`,
  );
  await transaction.raw(
    `insert into brought_rows (version_id, number, kind, is_refused, words)
     select ?::int, b.number, 'far-from-street', false, 'far from the other numbers of its street'
     from imported b join imported_heaps h on h.heap = b.part
     where b.kind = 'a' and h.is_far = 1 order by b.number limit ?`,
    [version, most],
  );
  const doubles = await transaction("brought_rows")
    .where({ version_id: version, kind: "double" })
    .count({ count: "*" });
  const counts = { "far-from-street": far.rows[0].count, double: Number(doubles[0].count) };
  return Object.fromEntries(Object.entries(counts).filter(([, count]) => count > 0));
}
