import { type Gathered, Gatherer, type ImportRow, type ReadRow, RowReader } from "@bibliotope/core/import";
import type { Knex } from "knex";
import { type Cell, copying, copyRows, type RowCopy } from "../database/copy.ts";
import { identitiesOf } from "../gazetteer/identities.repository.ts";
import { Borders } from "./borders.ts";
import { TableError } from "./bytes.ts";
import * as repository from "./import.repository.ts";
import type { ImportRequest, Loaded } from "./import-request.ts";
import { readTable } from "./table.ts";

export type Progress = (done: number, words: string) => void;

/** Rows with a doubt of one kind that are kept with it; all are counted. */
const DOUBTS_KEPT = 1000;
/** Characters kept of each cell of a row that is listed. */
const CELL_KEPT = 300;

/**
 * Loads a table as a new version of a data set: rows are read once, checked and copied aside, then areas, postcodes
 * and streets are made of them. All in one transaction: whatever goes wrong, nothing is there, nor after a trial.
 *
 * @param progress hears how many bytes were read, and what is being done
 * @throws TableError when the file cannot be read, or no row of it can be taken
 */
export async function load(database: Knex, params: ImportRequest, progress: Progress): Promise<Loaded> {
  const before = await repository.versionOfJob(database, params.job);
  if (before) return before;
  const borders = await Borders.of(database);
  const loaded = database.transaction(async (transaction) => {
    await transaction.raw("set local synchronous_commit to off");
    await transaction.raw("set local work_mem to '256MB'");
    // joins of tables: a planner that takes new rows for few would look each up by itself, for minutes
    await transaction.raw("set local enable_nestloop to off");
    const version = await repository.makeVersion(transaction, params);
    await repository.makeStaging(transaction);
    const { gathered, taken, checks, rows, staged } = await copying(
      transaction,
      "imported",
      repository.STAGED,
      (copy) => readRows(copy, params, borders, progress),
    );
    if (!taken) throw new repository.NothingTaken(rows, checks);
    const outside = checks["outside-country"] ?? 0;
    if (outside > taken * MISPLACED)
      throw new TableError(
        `${outside.toLocaleString("en")} of ${taken.toLocaleString("en")} rows are outside their country, so nothing was imported. Check which columns are degrees or metres, and the zone.`,
      );
    progress(-1, "Creating streets, postcodes and areas");
    const dataSet = version.dataSet;
    const earlier = await repository.earlierStreets(transaction, dataSet, version.id);
    const made = gathered.finish(earlier);
    await storeAround(transaction, version, made);
    progress(-1, "Assigning refs to addresses");
    const counted = await repository.storeAddresses(transaction, version, staged);
    progress(-1, "Checking");
    const checked = { ...checks, ...(await repository.checkStored(transaction, version.id, DOUBTS_KEPT)) };
    const counts = {
      rows,
      ...counted,
      streets: made.streets.length,
      postcodes: made.postcodes.length,
      areas: made.areas.length,
    };
    if (params.isTrial) throw new TrialEnded({ counts, checks: checked });
    await repository.finishVersion(transaction, version.id, counts, checked);
    return { version: version.id, counts, checks: checked };
  });
  return loaded.catch((error: unknown) => {
    if (error instanceof TrialEnded) return error.loaded;
    throw error;
  });
}

/** Ends the transaction of a trial, so that nothing of it is there. */
class TrialEnded extends Error {
  constructor(readonly loaded: Loaded) {
    super("a trial ended");
  }
}

/** Share of rows outside their country from which the positions cannot be right. */
const MISPLACED = 0.5;

interface RowsRead {
  gathered: Gatherer;
  rows: number;
  taken: number;
  /** What of them was copied aside: a row may be both. */
  staged: { addresses: number; places: number };
  checks: Record<string, number>;
}

async function readRows(copy: RowCopy, params: ImportRequest, borders: Borders, progress: Progress): Promise<RowsRead> {
  const reader = new RowReader(params.reading);
  const gathered = new Gatherer((country) => borders.namesOf(country));
  const checks: Record<string, number> = {};
  const staged = { addresses: 0, places: 0 };
  let [rows, taken, bytes] = [0, 0, 0];
  const noteOdd = (kind: string, words: string, column: number | undefined, number: number, cells: string[] | null) =>
    copy.row([cells ? "r" : "d", number, column ?? null, kind, words, cells && JSON.stringify(cells)]);
  /** All doubts are counted; the words of one are made where it is listed. */
  const doubt = (kind: string, words: () => string, column: number | undefined, number: number) => {
    checks[kind] = (checks[kind] ?? 0) + 1;
    if (checks[kind] <= DOUBTS_KEPT) noteOdd(kind, words(), column, number, null);
  };
  const width = params.reading.columns.length;
  for await (const batch of readTable(params.path, params.format, params.heads, (more) => {
    bytes += more;
  })) {
    for (const { number, cells } of batch) {
      rows++;
      const { row, refused, doubts } = readOne(reader, cells, width, params.heads);
      if (refused) {
        checks[refused.kind] = (checks[refused.kind] ?? 0) + 1;
        noteOdd(
          refused.kind,
          refused.words,
          refused.column,
          number,
          cells.map((cell) => cell.slice(0, CELL_KEPT)),
        );
        continue;
      }
      taken++;
      const { heap, area, isSameArea, postcode, spelling } = gathered.add(row);
      const { country, at } = row;
      if (spelling) doubt("two-spellings", () => `also spelled “${spelling}”`, undefined, number);
      if (isSameArea)
        doubt("same-area", () => "names only a town or region that an earlier row names", undefined, number);
      if (borders.isOutside(country, at))
        doubt("outside-country", () => borders.outsideWords(country, at), undefined, number);
      for (const { kind, words, column } of doubts) doubt(kind, () => words, column, number);
      if (heap !== undefined && (row.house || row.name || !row.place)) {
        copy.row(addressCells(row, number, heap, postcode));
        staged.addresses++;
      }
      if (row.place) {
        copy.row(placeCells(row, row.place, number, area));
        staged.places++;
      }
    }
    progress(bytes, `Read ${rows.toLocaleString("en")} rows`);
    await copy.flow();
  }
  return { gathered, rows, taken, staged, checks };
}

function readOne(reader: RowReader, cells: string[], width: number, heads: readonly string[] | undefined): ReadRow {
  if (cells.length < width || (cells.length > width && cells.slice(width).some(Boolean)))
    return { doubts: [], refused: { kind: "width", words: `${cells.length} cells, but ${width} columns` } };
  if (heads?.[0] === cells[0] && heads.every((head, i) => head === cells[i]))
    return { doubts: [], refused: { kind: "head-again", words: "the header row again" } };
  return reader.read(cells);
}

const addressCells = (row: ImportRow, number: number, heap: number, postcode: number | undefined): Cell[] => [
  "a",
  number,
  heap,
  row.id ?? null,
  row.name ?? null,
  null,
  row.country,
  row.at.lat,
  row.at.lon,
  row.house?.number ?? null,
  row.house?.suffix ?? "",
  row.unit ?? null,
  postcode ?? null,
];

const placeCells = (row: ImportRow, place: NonNullable<ImportRow["place"]>, number: number, area: number): Cell[] => [
  "p",
  number,
  area,
  row.id ?? null,
  place.names[0].name,
  JSON.stringify({
    names: place.names,
    kinds: place.kinds,
    importance: row.importance ?? 0.1,
    ...(row.facts ? { facts: row.facts } : {}),
  }),
  row.country,
  row.at.lat,
  row.at.lon,
];

/** Stores what was made of the rows, and tells the staging table which street, postcode and area each row has. */
async function storeAround(
  transaction: Knex.Transaction,
  version: repository.NewVersion,
  { areas, postcodes, streets, streetOfHeap, isFar }: Gathered,
): Promise<void> {
  const keys = [areas, postcodes, streets].flatMap((list) => list.map(({ key }) => key));
  const identities = await identitiesOf(transaction, version.dataSet, keys);
  const of = (key: string) => identities.get(key)!;
  const own = (record: { key: string; country: string; at: { lat: number; lon: number } }): Cell[] => [
    version.id,
    of(record.key),
    record.country,
    record.at.lat,
    record.at.lon,
  ];
  await repository.copyAreas(
    transaction,
    areas.map((area) => [...own(area), area.parent && of(area.parent), area]),
  );
  await copyRows(
    transaction,
    "postcodes",
    [...repository.COMMON, "code", "area"],
    postcodes.map((postcode) => [...own(postcode), postcode.code, of(postcode.area)]),
  );
  await copyRows(
    transaction,
    "streets",
    [...repository.COMMON, "kind", "area", "names", "importance"],
    streets.map((street) => [
      ...own(street),
      street.kind,
      of(street.area),
      JSON.stringify(street.names),
      street.importance,
    ]),
  );
  const streetIds = streets.map(({ key }) => of(key));
  await copyRows(
    transaction,
    "imported_heaps",
    ["heap", "street", "is_far"],
    Array.from(streetOfHeap, (street, heap) => [heap, streetIds[street], isFar[heap]]),
  );
  await copyRows(
    transaction,
    "imported_areas",
    ["place", "identity"],
    areas.map(({ key }, place) => [place, of(key)]),
  );
  await copyRows(
    transaction,
    "imported_postcodes",
    ["place", "identity"],
    postcodes.map(({ key }, place) => [place, of(key)]),
  );
}
