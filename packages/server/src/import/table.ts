import { proposeColumns } from "@bibliotope/core/import";
import type { TableFormat } from "@bibliotope/wire";
import { textDecoder } from "../text-decoder.ts";
import { encodingOf, readText, SAMPLE, sampleOf, TableError } from "./bytes.ts";
import { type CsvFormat, CsvReader, isFilled, refuseLongRow } from "./csv.ts";
import { featureTexts, featureTooLong, readFeature, rowOfFeature } from "./features.ts";
import { checkHeads, checkRow, MOST_FEATURE } from "./limits.ts";

/** The beginning of a table. */
export interface TableStart {
  format: TableFormat;
  /** Names of the columns; undefined where a CSV has none. */
  heads: string[] | undefined;
  rows: string[][];
}

/** A row of a table. Rows count from 1, the head of a CSV and empty lines among them, as editors and spreadsheets count. */
export interface TableRow {
  number: number;
  cells: string[];
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
  if (kind !== "csv") return { format: base, ...(await lookAtFeatures(path, base)) };
  const quote = wanted.quote ?? (/^'[^'\n]*'[,;\t|]/.test(text) ? "'" : '"');
  const delimiter = wanted.delimiter ?? delimiterOf(text, quote);
  const isWhole = sample.length < SAMPLE;
  const lines = firstLines(text, { delimiter, quote }, isWhole);
  const rows = lines.filter(isFilled);
  if (!rows.length && isWhole) throw new TableError("The file has no rows.");
  const hasHead = wanted.hasHead ?? (rows.length > 0 && looksLikeHead(rows));
  const format = { kind, encoding, delimiter, quote, hasHead };
  const heads = hasHead ? rows[0]?.map((head) => head.trim()) : undefined;
  if (heads) checkHeads(heads, `Row ${lines.findIndex(isFilled) + 1}`);
  const data = hasHead ? rows.slice(1) : rows;
  // numbers count empty lines, as editors do
  lines.forEach((cells, i) => {
    checkRow(cells, i + 1, heads);
  });
  if (!data.length) {
    if (isWhole) throw new TableError("The file has a header, but no rows below it.");
    refuseLongRow(text, format, 0);
  }
  return { format, heads, rows: data.slice(0, ROWS_SHOWN) };
}

/**
 * All rows of a table, some hundred at a time.
 * @param note hears how many bytes were read since the last time
 * @throws TableError with where reading ended, and why
 */
export async function* readTable(
  path: string,
  format: TableFormat,
  heads: readonly string[] | undefined,
  note?: (bytes: number) => void,
): AsyncGenerator<TableRow[]> {
  const text = readText(path, format.encoding, note);
  yield* format.kind === "csv" ? csvRows(text, format) : featureRows(text, format, heads ?? []);
}

/** Rows that are handed on at once, and characters of features that are. */
const BATCH = { rows: 2000, characters: 8_000_000 };

async function* csvRows(text: AsyncIterable<string>, format: TableFormat): AsyncGenerator<TableRow[]> {
  const reader = new CsvReader(format);
  let number = 0;
  let isBelowHead = !format.hasHead;
  const numbered = (rows: string[][]) => {
    const batch: TableRow[] = [];
    for (const cells of rows) {
      number++;
      if (!isFilled(cells)) continue;
      checkRow(cells, number);
      if (isBelowHead) batch.push({ number, cells });
      isBelowHead = true;
    }
    return batch;
  };
  for await (const piece of text) {
    const batch = numbered(reader.read(piece, false));
    if (batch.length) yield batch;
  }
  const batch = numbered(reader.read("", true));
  if (batch.length) yield batch;
}

async function* featureRows(
  text: AsyncIterable<string>,
  format: TableFormat,
  heads: readonly string[],
): AsyncGenerator<TableRow[]> {
  let number = 0;
  let characters = 0;
  let batch: TableRow[] = [];
  for await (const feature of format.kind === "geojson" ? featureTexts(text) : lines(text)) {
    number++;
    const cells = rowOfFeature(feature, number, heads);
    checkRow(cells, number, heads);
    batch.push({ number, cells });
    characters += feature.length;
    if (batch.length < BATCH.rows && characters < BATCH.characters) continue;
    yield batch;
    batch = [];
    characters = 0;
  }
  if (batch.length) yield batch;
}

/** Lines that hold something, without the mark of RFC 8142 before them. */
async function* lines(text: AsyncIterable<string>): AsyncGenerator<string> {
  let rest = "";
  let count = 0;
  for await (const piece of text) {
    const all = (rest + piece).split("\n");
    rest = all.pop() ?? "";
    for (const line of all) {
      if (!line.replace("\u001e", "").trim()) continue;
      count++;
      if (line.length > MOST_FEATURE) throw featureTooLong(count);
      yield line.replace("\u001e", "");
    }
    if (rest.length > MOST_FEATURE) throw featureTooLong(count + 1);
  }
  if (rest.replace("\u001e", "").trim()) yield rest.replace("\u001e", "");
}

async function lookAtFeatures(path: string, format: TableFormat): Promise<Pick<TableStart, "heads" | "rows">> {
  const text = readText(path, format.encoding);
  const heads = new Set<string>(["lat", "lon"]);
  const first: string[] = [];
  let [count, characters] = [0, 0];
  for await (const feature of format.kind === "geojson" ? featureTexts(text) : lines(text)) {
    const { id, properties } = readFeature(feature, ++count);
    if (id !== undefined) heads.add("id");
    for (const name of Object.keys(properties)) heads.add(name);
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
  return { heads: names, rows };
}

function kindOf(text: string): TableFormat["kind"] {
  const start = text.replace(/^[\uFEFF\u001E\s]+/, "");
  if (!/^[{[]/.test(start)) return "csv";
  const [line] = start.split("\n", 1);
  try {
    return JSON.parse(line.replace("\u001e", "")).type === "Feature" ? "geojsonseq" : "geojson";
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
    const width = rows[0]?.length ?? 0;
    const same = rows.filter((row) => row.length === width).length / Math.max(1, rows.length);
    if (width > 1 && (same > best.same || (same === best.same && width > best.width)))
      best = { delimiter, same, width };
  }
  return best.delimiter;
}

/** A head has no numbers, and differs from the rows below it. */
function looksLikeHead([first, ...rest]: string[][]): boolean {
  const isNumber = (cell: string) => /\d/.test(cell) && /^[\s\d.,+-]+$/.test(cell);
  if (first.some(isNumber)) return false;
  const hasNumbers = first.some((_, column) => rest.some((row) => isNumber(row[column] ?? "")));
  // one column of words may be a list of addresses, unless its first names them
  return hasNumbers || first.length > 1 || proposeColumns(first, []).some(({ use }) => use);
}
