import { type AreaKind, type Name, refOf } from "@bibliotope/core/place";
import type { CoverageAnswer, LiveCoverageAnswer } from "@bibliotope/wire";
import type { Knex } from "knex";

/** Sizes of cells in degrees; the first with which the ground is not too many of them wide or high is taken. */
const SIZES = [0.01, 0.02, 0.05, 0.1, 0.25, 0.5, 1, 2, 5];
const MOST_ACROSS = 110;

interface Area {
  identity: number;
  country: string;
  kind: AreaKind;
  names: Name[];
  parent: number | null;
}

interface AreaCounts {
  addresses: number;
  streets: number;
  bare: number;
  places: number;
}

/** How much a version holds in each of the areas, and on a grid. @param other a version to hold beside it */
export async function readCoverage(database: Knex, version: number, other?: number): Promise<CoverageAnswer> {
  const [here, before] = await Promise.all([areasOf(database, version), other ? areasOf(database, other) : undefined]);
  const areas = here.areas.map(({ identity, country, kind, names, parent }) => ({
    ref: refOf(country, identity),
    kind,
    name: names[0].name,
    within: around(here.byIdentity, parent),
    ...here.counts.get(identity)!,
    before: before ? (before.counts.get(identity)?.addresses ?? 0) : null,
  }));
  const lost = before ? lostSince(before, here) : [];
  return { areas: [...areas, ...lost], grid: await readGrid(database, [version], other) };
}

/**
 * How much several versions hold together, by country and on a grid. What more than one of them has counts in each, as it
 * stands in the database; corrections do not count.
 */
export async function readLiveCoverage(database: Knex, versions: readonly number[]): Promise<LiveCoverageAnswer> {
  const countries = new Map<number, LiveCoverageAnswer["countries"][number]>();
  for (const version of versions) {
    const { areas, counts } = await areasOf(database, version);
    for (const { identity, country, kind, names } of areas) {
      if (kind !== "country") continue;
      const sum = countries.get(identity);
      const { addresses, streets, bare, places } = counts.get(identity)!;
      countries.set(identity, {
        ref: refOf(country, identity),
        name: sum?.name ?? names[0].name,
        addresses: addresses + (sum?.addresses ?? 0),
        streets: streets + (sum?.streets ?? 0),
        bare: bare + (sum?.bare ?? 0),
        places: places + (sum?.places ?? 0),
      });
    }
  }
  const sample = await database("addresses")
    .where({ version_id: versions[0] ?? 0 })
    .whereNotNull("number")
    .orderBy("identity")
    .first("country", "identity");
  return {
    countries: [...countries.values()].sort((a, b) => b.addresses - a.addresses),
    grid: await readGrid(database, versions),
    sample: sample ? refOf(sample.country, sample.identity) : null,
  };
}

type Areas = Awaited<ReturnType<typeof areasOf>>;

/** Areas that another version has and this one has not. */
function lostSince(before: Areas, here: Areas): CoverageAnswer["areas"] {
  const gone = before.areas.filter(({ identity }) => !here.byIdentity.has(identity));
  return gone.map(({ identity, country, kind, names, parent }) => ({
    ref: refOf(country, identity),
    kind,
    name: names[0].name,
    within: around(before.byIdentity, parent),
    ...{ addresses: 0, streets: 0, bare: 0, places: 0 },
    before: before.counts.get(identity)?.addresses ?? 0,
  }));
}

async function areasOf(database: Knex, version: number) {
  const areas: Area[] = await database("areas")
    .where({ version_id: version })
    .select("identity", "country", "kind", "names", "parent")
    .orderBy("identity");
  const byIdentity = new Map(areas.map((area) => [area.identity, area]));
  const byName = new Map(
    areas.map(({ identity }): [number, AreaCounts] => [identity, { addresses: 0, streets: 0, bare: 0, places: 0 }]),
  );
  const { rows: streets } = await database.raw(
    `select s.area, count(*)::int as streets, coalesce(sum(n.count), 0)::int as addresses,
       count(*) filter (where n.count is null)::int as bare
     from streets s left join (
       select street, count(*) as count from addresses where version_id = ? group by street) n on n.street = s.identity
     where s.version_id = ? group by s.area`,
    [version, version],
  );
  const places = await database("places")
    .where({ version_id: version })
    .groupBy("area")
    .select("area", database.raw("count(*)::int as places"));
  // what lies in an area lies in those around it too
  for (const { area, ...counts } of [...streets, ...places] as ({ area: number } & Partial<AreaCounts>)[])
    for (let at: number | null = area; at !== null; at = byIdentity.get(at)?.parent ?? null) {
      const sum = byName.get(at);
      if (!sum) break;
      for (const [name, count] of Object.entries(counts)) sum[name as keyof AreaCounts] += count;
    }
  return { areas, byIdentity, counts: byName };
}

function around(areas: ReadonlyMap<number, Area>, parent: number | null): string {
  const names: string[] = [];
  for (let at = parent; at !== null; at = areas.get(at)?.parent ?? null) {
    const area = areas.get(at);
    if (!area) break;
    names.push(area.names[0].name);
  }
  return names.join(", ");
}

async function readGrid(database: Knex, versions: readonly number[], other?: number): Promise<CoverageAnswer["grid"]> {
  const fine = SIZES[0];
  const { rows } = await database.raw(
    `select floor(lat / ?)::int as row, floor(lon / ?)::int as col,
       count(*) filter (where version_id = any(?))::int as here, count(*) filter (where version_id = ?)::int as before
     from addresses where version_id = any(?) group by 1, 2`,
    [fine, fine, [...versions], other ?? 0, [...versions, ...(other ? [other] : [])]],
  );
  let [south, west, north, east] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { row, col } of rows) {
    [south, north] = [Math.min(south, row), Math.max(north, row)];
    [west, east] = [Math.min(west, col), Math.max(east, col)];
  }
  const across = Math.max(north - south, east - west) * fine;
  const size = SIZES.find((one) => across / one <= MOST_ACROSS) ?? SIZES[SIZES.length - 1];
  return { size, cells: gathered(rows, Math.round(size / fine)) };
}

function gathered(
  rows: readonly { row: number; col: number; here: number; before: number }[],
  times: number,
): number[] {
  const cells = new Map<string, number[]>();
  for (const { row, col, here, before } of rows) {
    const at = [Math.floor(row / times), Math.floor(col / times)];
    const cell = cells.get(at.join());
    if (cell) {
      cell[2] += here;
      cell[3] += before;
    } else cells.set(at.join(), [...at, here, before]);
  }
  return [...cells.values()].flat();
}
