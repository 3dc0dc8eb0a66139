import { withoutGuard } from "@bibliotope/core/formats";
import type { TableFormat } from "@bibliotope/wire";
import Papa from "papaparse";
import { TableError } from "./bytes.ts";
import { checkRow, MOST_ROW } from "./limits.ts";

/** How the rows of a CSV are written. */
export type CsvFormat = Pick<TableFormat, "delimiter" | "quote">;

/** A formula that is nothing but a text: `="01234"`. */
const AS_TEXT = /^="(.*)"$/s;
/** How programs write that there is nothing. */
const NONE: ReadonlySet<string> = new Set(
  "NULL null (null) <null> <NULL> [NULL] \\N #N/A #NV #NULL! #NAME? #VALUE! N/A n/a nan NaN - -- – —".split(" "),
);
const LONGEST_NONE = 7;

/** Cuts text that comes piece by piece into rows of cells; an empty line is a row of nothing. */
export class CsvReader {
  /** Rows read until now, empty lines among them. */
  count = 0;
  #rest = "";
  #parser: Papa.Parser | undefined;

  /** @param most rows that are wanted of a piece; 0 for all */
  constructor(
    private readonly format: CsvFormat,
    private readonly most = 0,
  ) {}

  /**
   * @param isLast whether the text ends with this piece
   * @throws TableError when a row is too long, or a quote stays open until the end
   */
  read(piece: string, isLast: boolean): string[][] {
    const text = this.#rest + (this.#parser ? piece : piece.replace(/^\uFEFF/, ""));
    this.#parser ??= new Papa.Parser({
      delimiter: this.format.delimiter,
      quoteChar: this.format.quote,
      // with \n alone, the \r of a \r\n is left at the end of the row
      newline: text.includes("\n") || !text.includes("\r") ? "\n" : "\r",
      preview: this.most,
    });
    const { data, errors, meta } = this.#parser.parse(text, 0, !isLast) as Papa.ParseResult<string[]>;
    for (const row of data) {
      withoutReturn(row);
      for (const [column, cell] of row.entries()) {
        // what our own tables carry against spreadsheets
        if (cell.startsWith("'")) row[column] = withoutGuard(cell);
        // what others carry so that spreadsheets leave the zeros in front
        else if (cell.startsWith('="')) row[column] = AS_TEXT.exec(cell)?.[1].replaceAll('""', '"') ?? cell;
        else if (cell.length <= LONGEST_NONE && NONE.has(cell)) row[column] = "";
      }
    }
    this.count += data.length;
    if (isLast && errors.some(({ code }) => code === "MissingQuotes"))
      throw new TableError(`A quote opened in row ${this.count.toLocaleString("en")} is never closed.`);
    this.#rest = isLast ? "" : text.slice(meta.cursor);
    if (this.#rest.length > MOST_ROW) refuseLongRow(this.#rest, this.format, this.count);
    return data;
  }
}

/**
 * Explains what is wrong with a row that does not end.
 * @param text from the beginning of a row on @param before rows before it
 * @throws TableError that names its column, where it shows which one
 */
export function refuseLongRow(text: string, format: CsvFormat, before: number): never {
  const parser = new Papa.Parser({ delimiter: format.delimiter, quoteChar: format.quote, newline: "\n" });
  const { data } = parser.parse(text, 0, false) as Papa.ParseResult<string[]>;
  data.forEach((row, i) => {
    checkRow(row, before + i + 1);
  });
  throw new TableError(tooLong(before + 1));
}

const tooLong = (row: number) =>
  `Row ${row.toLocaleString("en")} is longer than ${MOST_ROW.toLocaleString("en")} characters. An unclosed quote may be the cause.`;

/** False for an empty line. */
export const isFilled = (row: readonly string[]) => row.length > 1 || row[0] !== "";

function withoutReturn(row: string[]): void {
  const last = row.length - 1;
  if (row[last].endsWith("\r")) row[last] = row[last].slice(0, -1);
}
