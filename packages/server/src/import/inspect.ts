import {
  countryCode,
  type FoundCountry,
  type FoundProjection,
  findCountry,
  findProjection,
  type ImportRow,
  metresIn,
  proposeColumns,
  type Reading,
  RowReader,
  standsInCapitals,
} from "@bibliotope/core/import";
import { countryBox, formatHouseNumber, formatLine, type Parts, profileOf } from "@bibliotope/core/place";
import type { FileStart, LookAtFileRequest, TableReading } from "@bibliotope/wire";
import { countriesAt, countryOutline, mayLieIn } from "../world/outlines.ts";
import { TableError } from "./bytes.ts";
import { inspectTable } from "./inspect-table.ts";

const ROWS_SHOWN = 100;
/** Characters of a cell that are shown. */
const CELL_SHOWN = 300;

/** A file that is to be looked at. */
export interface FileToInspect {
  path: string;
  params: LookAtFileRequest;
  /** Where no column names one. */
  country: string | undefined;
  /** How files of data sets were read before, the newest first. */
  readings: readonly KeptReading[];
}

/** How the columns of a data set were read last, with their names. */
export type KeptReading = TableReading & { heads?: string[] | null };

/**
 * How a file would be read: what its columns are taken for and why, and its first rows as they would read.
 * @throws TableError
 */
export async function inspect({ path, params, country, readings }: FileToInspect): Promise<FileStart> {
  const { format, heads, rows, numbers, code } = await inspectTable(path, params.format);
  const isData = params.purpose !== "batch";
  const proposals = proposeColumns(heads, rows, params.purpose);
  const kept = params.reading || !isData ? undefined : keptReading(readings, heads);
  const columns = proposals.map((proposal, i) => {
    if (params.reading) return { ...proposal, use: params.reading.columns[i] ?? null };
    return kept ? { use: kept.columns[i] ?? null, why: "as last time" } : proposal;
  });
  const hasCountry = columns.some(({ use }) => use?.meaning === "country");
  const said = (params.reading ?? kept)?.projection;
  const found = hasCountry || !isData ? undefined : countryOf(columns, heads, rows, country, code);
  const own = params.reading?.country ?? kept?.country ?? found?.country;
  const metres = metresOf(columns, heads, rows, own, code, said !== undefined);
  const projection = said ?? metres?.projection;
  const inCapitals =
    isData &&
    standsInCapitals(
      columns.map(({ use }) => use),
      rows,
    );
  const others: Omit<TableReading, "columns"> = params.reading ?? {
    ...(inCapitals ? { recases: true } : {}),
    ...(kept ?? {}),
    ...(own ? { country: own } : {}),
  };
  const reading: TableReading = {
    ...others,
    columns: columns.map(({ use }) => use),
    ...(projection ? { projection } : {}),
  };
  return {
    format,
    heads: heads ?? null,
    columns,
    reading,
    inCapitals,
    projections: metres?.weighed ?? [],
    ...(found ? { countryWhy: found.why } : {}),
    ...readFirst(rows, numbers, reading),
  };
}

/**
 * The country of rows that name none. Of degrees that only their values tell, and of two in one column, latitude and longitude
 * change places where that alone suits.
 */
function countryOf(
  columns: FileStart["columns"],
  heads: readonly string[] | undefined,
  rows: readonly (readonly string[])[],
  usual: string | undefined,
  code: string | undefined,
): FoundCountry {
  const by = (meaning: string) => columns.findIndex(({ use }) => use?.meaning === meaning);
  const [lat, lon] = [by("lat"), by("lon")];
  const isByValues = lat >= 0 && lon >= 0 && [lat, lon].every((i) => columns[i].why.includes("look like degrees"));
  const uses = columns.map(({ use }) => use);
  const found = findCountry(uses, heads, rows, LANDS, { usual, isOrderKnown: !isByValues, code });
  const pair = by("position");
  const isPair = pair >= 0 && !/lat/i.test(heads?.[pair] ?? "");
  if (!found.turned || (!isByValues && !isPair)) return found;
  const why = `looks like degrees; the rows are then in ${found.turned}, which matches the street names`;
  if (isPair) {
    columns[pair] = { use: { meaning: "lonlat" }, why };
    return { country: found.turned, why: `positions are in ${found.turned}` };
  }
  columns[lat] = { use: { meaning: "lon" }, why };
  columns[lon] = { use: { meaning: "lat" }, why };
  return { country: found.turned, why: `positions are in ${found.turned}` };
}

const LANDS = {
  countriesAt,
  hintsOf: (code: string) => {
    const box = countryBox(code) ?? countryOutline(code)?.box;
    return { isIn: mayLieIn, ...(box ? { box } : {}) };
  },
};

/** What metres may be of, and, where nobody has said it, why; the columns that hold them are told of it, and change places where they are the other way round. */
function metresOf(
  columns: FileStart["columns"],
  heads: readonly string[] | undefined,
  rows: readonly (readonly string[])[],
  country: string | undefined,
  code: string | undefined,
  isSaid: boolean,
): FoundProjection | undefined {
  const uses = columns.map(({ use }) => use);
  const metres = metresIn(uses, heads, rows, code);
  if (!metres) return undefined;
  const named = uses.findIndex((use) => use?.meaning === "country");
  const written = named < 0 ? "" : (rows.map((row) => row[named] ?? "").find(Boolean) ?? "");
  const of = countryCode(written) ?? country;
  const found = findProjection(metres.pairs, of, { ...(of ? LANDS.hintsOf(of) : {}), ...metres.hints });
  if (isSaid) return found;
  for (const column of metres.columns) columns[column] = { ...columns[column], why: found.why };
  const [east, north] = metres.columns;
  if (!found.isSwapped || north === undefined) return found;
  [columns[east].use, columns[north].use] = [{ meaning: "north" }, { meaning: "east" }];
  // seen from the columns as they now are
  const weighed = found.weighed.map((one) => ({ ...one, isSwapped: !one.isSwapped }));
  return { ...found, weighed };
}

/** The first rows as they would read, and where all of them would lie. */
function readFirst(rows: string[][], numbers: readonly number[], reading: Reading): Pick<FileStart, "rows" | "spots"> {
  let reader: RowReader;
  try {
    reader = new RowReader(reading);
  } catch (error) {
    throw new TableError((error as Error).message);
  }
  const spots = rows.flatMap((cells) => reader.position(cells) ?? []);
  const shown = rows.slice(0, ROWS_SHOWN).map((cells, i) => {
    const { row, refused, doubts } = reader.read(cells);
    return {
      number: numbers[i],
      cells: cells.map((cell) => (cell.length > CELL_SHOWN ? `${cell.slice(0, CELL_SHOWN)}…` : cell)),
      ...(row ? { line: lineOf(row), at: row.at } : {}),
      ...(refused ? { refused: refused.words } : {}),
      doubts: doubts.map(({ words }) => words),
    };
  });
  return { rows: shown, spots };
}

/** The address of a row in one line, in the country's order. */
function lineOf(row: ImportRow): string {
  const profile = profileOf(row.country);
  const parts: Parts = Object.fromEntries(row.areas.map(({ kind, names: [{ name }] }) => [kind, { name }]));
  const street = row.street?.names[0].name;
  if (street) parts[row.street?.isBlock ? "block" : "street"] = { name: street };
  if (row.house) parts[profile.number.part] = { name: formatHouseNumber(row.house, profile.number.stands) };
  if (row.name) parts[row.house ? "building" : "house"] = { name: row.name };
  if (row.unit) parts.unit = { name: row.unit };
  if (row.postcode) parts.postcode = { name: row.postcode };
  const place = row.place?.names[0].name;
  if (place) parts.place = { name: place };
  const line = formatLine(parts, profile);
  return place && !line.includes(place) ? [place, line].filter(Boolean).join(", ") : line;
}

/** How the columns were read last, where a file had the same ones. */
function keptReading(readings: readonly KeptReading[], heads: string[] | undefined): TableReading | undefined {
  if (!heads) return undefined;
  const found = readings.find((reading) => JSON.stringify(reading.heads) === JSON.stringify(heads));
  if (!found) return undefined;
  const { heads: _, ...reading } = found;
  return reading;
}
