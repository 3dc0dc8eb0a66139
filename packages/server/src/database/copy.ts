import { once } from "node:events";
import { Readable, type Writable } from "node:stream";
import { finished, pipeline } from "node:stream/promises";
import type { Knex } from "knex";
import type { ClientBase } from "pg";
import { from as copyFrom } from "pg-copy-streams";

/** Letters that are handed on at once. */
const PIECE = 65_536;

export type Cell = string | number | null;

/**
 * Loads rows by COPY within a transaction.
 * @param table a table's name from our own code, never from outside
 */
export async function copyRows(
  transaction: Knex.Transaction,
  table: string,
  columns: readonly string[],
  rows: Iterable<readonly Cell[]>,
): Promise<void> {
  const client: ClientBase = await connectionOf(transaction);
  await pipeline(Readable.from(linesOf(rows)), client.query(copyFrom(copyWords(table, columns))));
}

const copyWords = (table: string, columns: readonly string[]) =>
  `copy "${table}" (${columns.map((column) => `"${column}"`).join(", ")}) from stdin`;

/** Writes rows by COPY; when that throws, the COPY is given up, so that the transaction can be taken back. */
export async function copying<T>(
  transaction: Knex.Transaction,
  table: string,
  columns: readonly string[],
  write: (copy: RowCopy) => Promise<T>,
): Promise<T> {
  const copy = await openCopy(transaction, table, columns);
  try {
    const written = await write(copy);
    await copy.end();
    return written;
  } catch (error) {
    await copy.cancel();
    throw error;
  }
}

/** Opens a COPY that rows are written to one by one; the transaction can do nothing else until it ends. */
async function openCopy(transaction: Knex.Transaction, table: string, columns: readonly string[]): Promise<RowCopy> {
  return new RowCopy((await connectionOf(transaction)).query(copyFrom(copyWords(table, columns))), columns.length);
}

export class RowCopy {
  #piece = "";

  constructor(
    private readonly stream: Writable,
    private readonly columns: number,
  ) {}

  /** A row with fewer cells than the copy has columns gets nulls for the rest. */
  row(cells: readonly Cell[]): void {
    let line = cellText(cells[0]);
    for (let i = 1; i < this.columns; i++) line += `\t${i < cells.length ? cellText(cells[i]) : "\\N"}`;
    this.#piece += `${line}\n`;
    if (this.#piece.length > PIECE) this.#write();
  }

  /** Waits while the database has more to take than it can. */
  async flow(): Promise<void> {
    if (this.stream.writableNeedDrain) await once(this.stream, "drain");
  }

  async end(): Promise<void> {
    this.#write();
    this.stream.end();
    await finished(this.stream);
  }

  /** Gives up: the connection can be used again, and the transaction taken back. */
  async cancel(): Promise<void> {
    const closed = new Promise((resolve) => this.stream.once("close", resolve));
    // it tells why, and nobody else is to hear of it
    this.stream.on("error", () => undefined);
    this.stream.destroy(new Error("the rows could not be read"));
    await closed;
  }

  #write(): void {
    if (this.#piece) this.stream.write(this.#piece);
    this.#piece = "";
  }
}

/** The connection that a transaction of Knex holds. */
async function connectionOf(transaction: Knex.Transaction): Promise<ClientBase> {
  return transaction.client.acquireConnection();
}

/** Rows in COPY's text format, some thousand to a piece. */
function* linesOf(rows: Iterable<readonly Cell[]>): Generator<string> {
  let piece = "";
  for (const row of rows) {
    piece += `${row.map(cellText).join("\t")}\n`;
    if (piece.length > PIECE) {
      yield piece;
      piece = "";
    }
  }
  if (piece) yield piece;
}

/** What COPY takes for its own; a NUL cannot be stored at all. */
const SPECIAL = /[\\\t\n\r\0]/g;
const ESCAPES: Record<string, string> = { "\\": "\\\\", "\t": "\\t", "\n": "\\n", "\r": "\\r" };

function cellText(cell: Cell): string {
  if (cell === null) return "\\N";
  return typeof cell === "number" ? String(cell) : cell.replace(SPECIAL, (unit) => ESCAPES[unit] ?? "");
}
