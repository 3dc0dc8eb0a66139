import { proposeColumns } from "@bibliotope/core/bring";
import type { TableFormat } from "@bibliotope/wire";
import { encodingOf, readText, SAMPLE, sampleOf, TableError } from "./bytes.ts";
import { type CsvFormat, CsvReader, isFilled, LONGEST_ROW, tooLong } from "./csv.ts";
import { featureTexts, readFeature, rowOfFeature } from "./features.ts";

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
const ROWS_SHOWN = 200;
const FEATURES_LOOKED_AT = 1000;

/**
 * Finds out how a file is written, and reads its first rows.
 * @param wanted what the person has set by hand
 * @throws TableError when it cannot be read
 */
export async function lookAtTable(path: string, wanted: Partial<TableFormat> = {}): Promise<TableStart> {
  const sample = await sampleOf(path);
  const encoding = wanted.encoding ?? encodingOf(sample);
  const text = new TextDecoder(encoding).decode(sample);
  const kind = wanted.kind ?? kindOf(text);
  const base = { kind, encoding, delimiter: ",", quote: '"', hasHead: true };
  if (kind !== "csv") return { format: base, ...(await lookAtFeatures(path, base)) };
  const quote = wanted.quote ?? (/^'[^'\n]*'[,;\t|]/.test(text) ? "'" : '"');
  const delimiter = wanted.delimiter ?? delimiterOf(text, quote);
  const isWhole = sample.length < SAMPLE;
  const rows = firstRows(text, { delimiter, quote }, isWhole);
  if (!rows.length) throw new TableError(isWhole ? "The file has no rows." : tooLong(1));
  const hasHead = wanted.hasHead ?? looksLikeHead(rows);
  const format = { kind, encoding, delimiter, quote, hasHead };
  const heads = hasHead ? rows[0].map((head) => head.trim()) : undefined;
  const data = hasHead ? rows.slice(1) : rows;
  if (!data.length) throw new TableError(isWhole ? "The file has a head, but no rows below it." : tooLong(2));
  return { format, heads, rows: data.slice(0, ROWS_SHOWN) };
}

/**
 * All rows of a table, some hundred at a time.
 * @param note hears how many bytes were read since the last time
 * @throws TableError that says where reading ended, and why
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

const BATCH = 2000;

async function* csvRows(text: AsyncIterable<string>, format: TableFormat): AsyncGenerator<TableRow[]> {
  const reader = new CsvReader(format);
  let number = 0;
  let isBelowHead = !format.hasHead;
  const numbered = (rows: string[][]) => {
    const batch: TableRow[] = [];
    for (const cells of rows) {
      number++;
      if (!isFilled(cells)) continue;
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
  let batch: TableRow[] = [];
  for await (const feature of format.kind === "geojson" ? featureTexts(text) : lines(text)) {
    number++;
    batch.push({ number, cells: rowOfFeature(feature, number, heads) });
    if (batch.length < BATCH) continue;
    yield batch;
    batch = [];
  }
  if (batch.length) yield batch;
}

/** Lines that hold something, without the mark of RFC 8142 before them. */
async function* lines(text: AsyncIterable<string>): AsyncGenerator<string> {
  let rest = "";
  for await (const piece of text) {
    const all = (rest + piece).split("\n");
    rest = all.pop() ?? "";
    if (rest.length > LONGEST_ROW) throw new TableError("A line is longer than a feature may be.");
    for (const line of all) if (line.replace("\u001e", "").trim()) yield line.replace("\u001e", "");
  }
  if (rest.replace("\u001e", "").trim()) yield rest.replace("\u001e", "");
}

async function lookAtFeatures(path: string, format: TableFormat): Promise<Pick<TableStart, "heads" | "rows">> {
  const text = readText(path, format.encoding);
  const heads = new Set<string>(["lat", "lon"]);
  const first: string[] = [];
  for await (const feature of format.kind === "geojson" ? featureTexts(text) : lines(text)) {
    const { id, properties } = readFeature(feature, first.length + 1);
    if (id !== undefined) heads.add("id");
    for (const name of Object.keys(properties)) heads.add(name);
    first.push(feature);
    if (first.length >= FEATURES_LOOKED_AT) break;
  }
  if (!first.length) throw new TableError("The file holds no features.");
  const names = [...heads];
  return { heads: names, rows: first.slice(0, ROWS_SHOWN).map((feature, i) => rowOfFeature(feature, i + 1, names)) };
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
const firstRows = (text: string, format: CsvFormat, isWhole: boolean) =>
  new CsvReader(format, ROWS_SHOWN + 1).read(text, isWhole).filter(isFilled);

/** The delimiter that cuts most rows into the same number of cells, more than one. */
function delimiterOf(text: string, quote: string): string {
  const start = text.slice(0, 65_536);
  let best = { delimiter: ",", same: 0, width: 1 };
  for (const delimiter of DELIMITERS) {
    let rows: string[][];
    try {
      rows = firstRows(start, { delimiter, quote }, start.length === text.length);
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

/** A head has no numbers, and says something else than the rows below it. */
function looksLikeHead([first, ...rest]: string[][]): boolean {
  const isNumber = (cell: string) => /\d/.test(cell) && /^[\s\d.,+-]+$/.test(cell);
  if (first.some(isNumber)) return false;
  const hasNumbers = first.some((_, column) => rest.some((row) => isNumber(row[column] ?? "")));
  // one column of words may be a list of addresses, unless its first says what it is
  return hasNumbers || first.length > 1 || proposeColumns(first, []).some(({ use }) => use);
}
