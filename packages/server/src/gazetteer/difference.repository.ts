import { formatHouseNumber, profileOf } from "@bibliotope/core/place";
import type { CHANGES, VersionDifference } from "@bibliotope/wire";
import type { Knex } from "knex";

/** Degrees from which something has moved: about a metre. */
const MOVED = 0.00001;
/** Changes of each kind that are shown on the map. */
const SHOWN = 400;

/** How a source writes a name, and its short form, may change without it being another name. */
const isCalledOtherwise = `(a.names is distinct from b.names
  and jsonb_path_query_array(a.names, '$[*].name') is distinct from jsonb_path_query_array(b.names, '$[*].name'))`;

/** What makes a record of each table another one, when it stays where it is. */
const RENAMED = {
  addresses:
    "(a.number, a.suffix, a.unit, a.name, a.postcode, a.street) is distinct from (b.number, b.suffix, b.unit, b.name, b.postcode, b.street)",
  streets: isCalledOtherwise,
  places: isCalledOtherwise,
};
type Table = keyof typeof RENAMED;

const changeOf = (table: Table) => `case
  when a.identity is null then 'new' when b.identity is null then 'gone'
  when abs(a.lat - b.lat) > ${MOVED} or abs(a.lon - b.lon) > ${MOVED} then 'moved'
  when ${RENAMED[table]} then 'renamed' else 'same' end`;

const bothOf = (table: Table) => `(select * from ${table} where version_id = :from) a
  full join (select * from ${table} where version_id = :to) b on b.identity = a.identity`;

/** What is new, gone, moved or renamed in a version, against another; a record is the same by identity. */
export async function compareVersions(database: Knex, from: number, to: number): Promise<VersionDifference> {
  const [addresses, streets, places] = await Promise.all([
    countsOf(database, "addresses", from, to),
    countsOf(database, "streets", from, to),
    countsOf(database, "places", from, to),
  ]);
  const { rows } = await database.raw(
    `select changed.*, s.names as street from (
       select ${changeOf("addresses")} as change, coalesce(b.country, a.country) as country,
         coalesce(b.street, a.street) as street_identity, coalesce(b.version_id, a.version_id) as version_id,
         coalesce(b.number, a.number) as number, coalesce(b.suffix, a.suffix) as suffix,
         coalesce(b.name, a.name) as name, coalesce(b.lat, a.lat) as lat, coalesce(b.lon, a.lon) as lon,
         a.lat as was_lat, a.lon as was_lon,
         row_number() over (partition by ${changeOf("addresses")} order by coalesce(b.identity, a.identity)) as nth
       from ${bothOf("addresses")}) changed
     join streets s on s.identity = changed.street_identity and s.version_id = changed.version_id
     where change <> 'same' and nth <= :most`,
    { from, to, most: SHOWN },
  );
  return { counts: { addresses, streets, places }, spots: rows.map(spotOf) };
}

interface ChangedRow {
  change: (typeof CHANGES)[number];
  country: string;
  number: number | null;
  suffix: string;
  name: string | null;
  lat: number;
  lon: number;
  was_lat: number | null;
  was_lon: number | null;
  street: { name: string }[];
}

function spotOf(row: ChangedRow): VersionDifference["spots"][number] {
  const { stands } = profileOf(row.country).number;
  const house =
    row.number === null ? (row.name ?? "") : formatHouseNumber({ number: row.number, suffix: row.suffix }, stands);
  const street = row.street[0].name;
  return {
    change: row.change,
    label: (stands === "before" ? [house, street] : [street, house]).filter(Boolean).join(" "),
    at: { lat: row.lat, lon: row.lon },
    ...(row.change === "moved" && row.was_lat !== null && row.was_lon !== null
      ? { from: { lat: row.was_lat, lon: row.was_lon } }
      : {}),
  };
}

async function countsOf(
  database: Knex,
  table: Table,
  from: number,
  to: number,
): Promise<VersionDifference["counts"]["addresses"]> {
  const counts = { new: 0, gone: 0, moved: 0, renamed: 0, same: 0 };
  const { rows } = await database.raw(
    `select ${changeOf(table)} as change, count(*)::int as count from ${bothOf(table)} group by 1`,
    { from, to },
  );
  for (const { change, count } of rows as { change: keyof typeof counts; count: number }[]) counts[change] = count;
  return counts;
}
