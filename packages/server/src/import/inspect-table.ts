import { proposeColumns } from "@bibliotope/core/import";
import type { TableFormat } from "@bibliotope/wire";
import { textDecoder } from "../text-decoder.ts";
import { encodingOf, readText, SAMPLE, sampleOf, TableError } from "./bytes.ts";
import { type CsvFormat, CsvReader, isFilled, refuseLongRow } from "./csv.ts";
import { featuresOf, readFeature, rowOfFeature } from "./features.ts";
import { checkHeads, checkRow } from "./limits.ts";

/** The beginning of a table. */
export interface TableStart {
  format: TableFormat;
  /** Names of the columns; undefined where a CSV has none. */
  heads: string[] | undefined;
  rows: string[][];
  /** Number of each of these rows, as `TableRow` has it. */
  numbers: number[];
  /** Number in the EPSG dataset of the system that a GeoJSON names for its metres. */
  code?: string;
}

const DELIMITERS = [",", ";", "\t", "|"];
const ROWS_SHOWN = 1000;
/** Features that are read for their names, and characters of them. */
const LOOKED_AT = { features: 1000, characters: 16_000_000 };

/**
 * Finds out how a file is written, and reads its first rows.
 * @param wanted what the person has set by hand
 * @throws TableError when it cannot be read
 */
export async function inspectTable(path: string, wanted: Partial<TableFormat> = {}): Promise<TableStart> {
  const sample = await sampleOf(path);
  const encoding = wanted.encoding ?? encodingOf(sample);
  const text = textDecoder(encoding).decode(sample);
  const kind = wanted.kind ?? kindOf(text);
  const base = { kind, encoding, delimiter: ",", quote: '"', hasHead: true };
  if (kind !== "csv") {
    const code = CRS.exec(text)?.[1];
    return { format: base, ...(await lookAtFeatures(path, base)), ...(code ? { code } : {}) };
  }
  const quote = wanted.quote ?? (/^'[^'\n]*'[,;\t|]/.test(text) ? "'" : '"');
  const said = SAYS_DELIMITER.exec(text)?.[1];
  const delimiter = wanted.delimiter ?? (said && DELIMITERS.includes(said) ? said : delimiterOf(text, quote));
  const isWhole = sample.length < SAMPLE;
  const lines = firstLines(text, { delimiter, quote }, isWhole);
  const skipped = wanted.skipped ?? (wanted.hasHead === false ? (said ? 1 : 0) : rowsAbove(lines, said ? 1 : 0));
  const filled = lines.flatMap((cells, i) => (i >= skipped && isFilled(cells) ? [{ cells, number: i + 1 }] : []));
  if (!filled.length && isWhole) throw new TableError("The file has no rows.");
  const hasHead = wanted.hasHead ?? (filled.length > 0 && looksLikeHead(filled.map(({ cells }) => cells)));
  const format = {
    kind,
    encoding,
    delimiter,
    quote,
    hasHead,
    ...(skipped || wanted.skipped !== undefined ? { skipped } : {}),
  };
  const heads = hasHead ? filled[0]?.cells.map((head) => head.trim()) : undefined;
  if (heads) checkHeads(heads, `Row ${filled[0].number}`);
  const data = (hasHead ? filled.slice(1) : filled).slice(0, ROWS_SHOWN);
  // numbers count empty lines, as editors do
  lines.forEach((cells, i) => {
    checkRow(cells, i + 1, heads);
  });
  if (!data.length) {
    if (isWhole) throw new TableError("The file has a header, but no rows below it.");
    refuseLongRow(text, format, 0);
  }
  return { format, heads, rows: data.map(({ cells }) => cells), numbers: data.map(({ number }) => number) };
}

/** The system of all positions of a GeoJSON, as was usual before RFC 7946: `urn:ogc:def:crs:EPSG::25833`. */
const CRS = /"crs"\s*:\s*\{[^{}]*\{[^{}]*"name"\s*:\s*"(?:urn:ogc:def:crs:)?EPSG:(?:[\d.]*:)?(\d{4,6})"/i;

/** The first line by which spreadsheets say how cells are parted. */
const SAYS_DELIMITER = /^\uFEFF?sep=(.)\r?\n/i;
/** Rows in which the head is looked for. */
const ROWS_ABOVE = 20;
/** Share of its columns that a head has names for. */
const NAMED = 0.7;

/**
 * Rows above the head: a title, the day of the table, a head of groups. They have far fewer cells than the rows below, and what
 * follows them is a head without doubt: words above numbers.
 * @param least rows that are no part of the table in any case
 */
function rowsAbove(lines: readonly string[][], least: number): number {
  const counts = lines.map(filledIn);
  const usual = commonest(counts.filter((count) => count > 1));
  for (let i = least; i < Math.min(lines.length, ROWS_ABOVE); i++) {
    if (counts[i] < NAMED * usual) continue;
    if (i === least) return least;
    const isHead = hasNumbersBelow(lines.slice(i).filter(isFilled)) && namedBy(lines[i]) >= namedBy(lines[least] ?? []);
    return isHead ? i : least;
  }
  return least;
}

const filledIn = (cells: readonly string[]) => cells.filter((cell) => cell.trim()).length;

/** How many columns a head has names for that are known. */
const namedBy = (cells: string[]) => proposeColumns(cells, []).filter(({ use }) => use).length;

/** The number that is most often among some; of several the first; 0 of none. */
function commonest(numbers: readonly number[]): number {
  const times = new Map<number, number>();
  for (const number of numbers) times.set(number, (times.get(number) ?? 0) + 1);
  return [...times].reduce((most, one) => (one[1] > most[1] ? one : most), [0, 0])[0];
}

async function lookAtFeatures(path: string, format: TableFormat): Promise<Omit<TableStart, "format">> {
  const text = readText(path, format.encoding);
  const heads = new Set<string>();
  const first: string[] = [];
  let [count, characters] = [0, 0];
  for await (const feature of featuresOf(text, format.kind)) {
    const { id, geometry, properties } = readFeature(feature, ++count);
    if (geometry !== undefined) heads.add("lat").add("lon");
    if (id !== undefined) heads.add("id");
    for (const name of properties.keys()) heads.add(name);
    checkHeads([...heads], count === 1 ? "Feature 1" : `The table of the first ${count} features`);
    if (first.length < ROWS_SHOWN) first.push(feature);
    characters += feature.length;
    if (count >= LOOKED_AT.features || characters >= LOOKED_AT.characters) break;
  }
  if (!first.length) throw new TableError("The file contains no features.");
  const names = [...heads];
  const rows = first.map((feature, i) => {
    const cells = rowOfFeature(feature, i + 1, names);
    checkRow(cells, i + 1, names);
    return cells;
  });
  return { heads: names, rows, numbers: rows.map((_, i) => i + 1) };
}

function kindOf(text: string): TableFormat["kind"] {
  const start = text.replace(/^[\uFEFF\u001E\s]+/, "");
  if (!/^[{[]/.test(start)) return "csv";
  if (start.startsWith("[")) return "geojson";
  const [line, next = ""] = start.split(/\n\s*/, 2);
  try {
    const { type } = JSON.parse(line.replace("\u001e", ""));
    // objects line by line need not be features
    return type === "Feature" || (type === undefined && /^\u001E?\{/.test(next)) ? "geojsonseq" : "geojson";
  } catch {
    return "geojson";
  }
}

/** @param isWhole whether the text is all there is; else its last row may be cut, and is left out */
const firstLines = (text: string, format: CsvFormat, isWhole: boolean) =>
  new CsvReader(format, ROWS_SHOWN + 1).read(text, isWhole);

/** The delimiter that cuts most rows into the same number of cells, more than one. */
function delimiterOf(text: string, quote: string): string {
  const start = text.slice(0, 65_536);
  let best = { delimiter: ",", same: 0, width: 1 };
  for (const delimiter of DELIMITERS) {
    let rows: string[][];
    try {
      rows = firstLines(start, { delimiter, quote }, start.length === text.length).filter(isFilled);
    } catch {
      continue;
    }
    // a title above the table has cells of its own
    const width = commonest(rows.map((row) => row.length).filter((length) => length > 1));
    const same = rows.filter((row) => row.length === width).length / Math.max(1, rows.length);
    if (width > 1 && (same > best.same || (same === best.same && width > best.width)))
      best = { delimiter, same, width };
  }
  return best.delimiter;
}

/** A head has no numbers, and differs from the rows below it. */
function looksLikeHead(rows: string[][]): boolean {
  const [first] = rows;
  if (first.some(isNumber)) return false;
  if (filledIn(first) < first.length / 2 && !namedBy(first)) return false;
  // one column of words may be a list of addresses, unless its first names them
  return hasNumbersBelow(rows) || first.length > 1 || proposeColumns(first, []).some(({ use }) => use);
}

const isNumber = (cell: string) => /\d/.test(cell) && /^[\s\d.,+-]+$/.test(cell);

/** Words, with numbers below some of them. */
function hasNumbersBelow([first, ...rest]: readonly (readonly string[])[]): boolean {
  return !first.some(isNumber) && first.some((_, column) => rest.some((row) => isNumber(row[column] ?? "")));
}
