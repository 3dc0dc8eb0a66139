import type { TableFormat } from "@bibliotope/wire";
import { readText } from "./bytes.ts";
import { CsvReader, isFilled } from "./csv.ts";
import { featuresOf, rowOfFeature } from "./features.ts";
import { checkRow } from "./limits.ts";

/** A row of a table. Rows count from 1, the head of a CSV and empty lines among them, as editors and spreadsheets count. */
export interface TableRow {
  number: number;
  cells: string[];
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
      if (number <= (format.skipped ?? 0) || !isFilled(cells)) continue;
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
  for await (const feature of featuresOf(text, format.kind)) {
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
