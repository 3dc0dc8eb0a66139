import { TableError } from "./bytes.ts";

/** Columns that a table may have. */
export const MOST_COLUMNS = 500;
/** Bytes of one cell, as UTF-8. */
export const MOST_CELL = 64 * 1024;
/** Characters of a row of CSV: as many as are read to find out how a file is written. */
export const MOST_ROW = 1 << 20;
/** Characters of a feature, whose geometry may be long. */
export const MOST_FEATURE = 10_000_000;
/** Characters of a column's name. */
const MOST_HEAD = 1000;

/**
 * Refuses a row that nobody can want read.
 * @param number of the row, as an editor counts
 * @param heads names of the columns, where they have names
 * @throws TableError that names the row and the column
 */
export function checkRow(cells: readonly string[], number: number, heads?: readonly string[]): void {
  if (cells.length > MOST_COLUMNS) throw tooManyColumns(`Row ${count(number)}`, cells.length);
  for (let i = 0; i < cells.length; i++) {
    // a letter takes three bytes at most, most of them one
    if (cells[i].length * 3 <= MOST_CELL) continue;
    const bytes = Buffer.byteLength(cells[i]);
    if (bytes > MOST_CELL)
      throw new TableError(
        `Row ${count(number)}, ${columnWords(i, heads)}: the cell has ${count(Math.ceil(bytes / 1024))} kB. At most ${MOST_CELL / 1024} kB are read.${cells[i].includes("\n") ? " A quote that is never closed can be the cause." : ""}`,
      );
  }
}

/** @throws TableError for names of columns that are too many or too long */
export function checkHeads(heads: readonly string[], where: string): void {
  if (heads.length > MOST_COLUMNS) throw tooManyColumns(where, heads.length);
  const long = heads.findIndex((head) => head.length > MOST_HEAD);
  if (long >= 0)
    throw new TableError(
      `${where}, column ${long + 1}: the name “${heads[long].slice(0, 40)}…” has ${count(heads[long].length)} characters. At most ${count(MOST_HEAD)} are read.`,
    );
}

/** @param where the row at which it was seen */
const tooManyColumns = (where: string, columns: number) =>
  new TableError(
    `${where} has ${count(columns)} columns. The limit is ${MOST_COLUMNS}: leave out those you do not need.`,
  );

const columnWords = (index: number, heads: readonly string[] | undefined) =>
  heads?.[index] ? `column ${index + 1} (“${heads[index].slice(0, 60)}”)` : `column ${index + 1}`;

const count = (value: number) => value.toLocaleString("en");
