import { once } from "node:events";
import type { Writable } from "node:stream";
import type { Knex } from "knex";
import type { ClientBase } from "pg";
import { from as copyFrom, to as copyTo } from "pg-copy-streams";

/** Characters that are handed on at once. */
const PIECE = 65_536;
/** Characters that may wait for the database while more rows are read. */
const AHEAD = 4 << 20;

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
  await copying(transaction, table, columns, async (copy) => {
    for (const row of rows) if (!copy.row(row)) await copy.flow();
  });
}

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
  const names = columns.map((column) => `"${column}"`).join(", ");
  const client = await connectionOf(transaction);
  return new RowCopy(client.query(copyFrom(`copy "${table}" (${names}) from stdin`)), columns.length);
}

export class RowCopy {
  #piece = "";
  /** Characters handed on that the connection has not taken. */
  #ahead = 0;
  #caughtUp: (() => void) | undefined;
  #failed: Error | undefined;

  constructor(
    private readonly stream: Writable,
    private readonly columns: number,
  ) {
    stream.on("error", (error) => {
      this.#failed ??= error;
      // the stream only tells of it: what it still holds would go to a connection that it has let go
      stream.destroy();
      this.#caughtUp?.();
    });
  }

  /**
   * A row with fewer cells than the copy has columns gets nulls for the rest.
   * @returns whether there is room for more; if not, wait for `flow`
   */
  row(cells: readonly Cell[]): boolean {
    let line = cellText(cells[0]);
    for (let i = 1; i < this.columns; i++) line += `\t${i < cells.length ? cellText(cells[i]) : "\\N"}`;
    this.#piece += `${line}\n`;
    if (this.#piece.length > PIECE) this.#write();
    return this.#ahead <= AHEAD;
  }

  /** Waits while the database has much to take. @throws the database's error for rows handed on before */
  async flow(): Promise<void> {
    while (this.#ahead > AHEAD && !this.#failed)
      await new Promise<void>((resolve) => {
        this.#caughtUp = resolve;
      });
    if (this.#failed) throw this.#failed;
  }

  async end(): Promise<void> {
    this.#write();
    if (this.#failed) throw this.#failed;
    this.stream.end();
    await once(this.stream, "finish");
  }

  /** Gives up: the connection can be used again, and the transaction taken back. */
  async cancel(): Promise<void> {
    if (this.#failed) return;
    const closed = new Promise((resolve) => this.stream.once("close", resolve));
    this.stream.destroy(new Error("the rows could not be read"));
    await closed;
  }

  #write(): void {
    const piece = this.#piece;
    this.#piece = "";
    if (!piece || this.#failed) return;
    this.#ahead += piece.length;
    this.stream.write(piece, () => {
      this.#ahead -= piece.length;
      this.#caughtUp?.();
    });
  }
}

/**
 * Reads rows by COPY, some thousand at a time: many times as fast as a cursor.
 * @param select a query of our own; its values are put into its text by Knex
 * @returns cells as PostgreSQL writes them, null where there is nothing
 */
export async function* copiedRows(database: Knex, select: Knex.QueryBuilder): AsyncGenerator<(string | null)[][]> {
  const client = await database.client.acquireConnection();
  let isDone = false;
  try {
    const stream = (client as ClientBase).query(copyTo(`copy (${select.toQuery()}) to stdout`));
    let rest = "";
    for await (const piece of stream.setEncoding("utf8") as AsyncIterable<string>) {
      const lines = (rest + piece).split("\n");
      rest = lines.pop()!;
      yield lines.map(cellsOf);
    }
    isDone = true;
  } finally {
    // one left in the middle of a COPY is of no more use
    if (!isDone) client.__knex__disposed = new Error("a COPY was not read to its end");
    await database.client.releaseConnection(client);
  }
}

/** The connection that a transaction of Knex holds. */
async function connectionOf(transaction: Knex.Transaction): Promise<ClientBase> {
  return transaction.client.acquireConnection();
}

/** What COPY takes for its own; a NUL cannot be stored at all. */
const SPECIAL = /[\\\t\n\r\0]/g;
const IS_SPECIAL = /[\\\t\n\r\0]/;
const ESCAPED = /\\(.)/g;
const ESCAPES: Record<string, string> = { "\\": "\\\\", "\t": "\\t", "\n": "\\n", "\r": "\\r" };

function cellText(cell: Cell): string {
  if (cell === null) return "\\N";
  if (typeof cell === "number") return String(cell);
  return IS_SPECIAL.test(cell) ? cell.replace(SPECIAL, (unit) => ESCAPES[unit] ?? "") : cell;
}

const UNESCAPED: Record<string, string> = { t: "\t", n: "\n", r: "\r", b: "\b", f: "\f", v: "\v" };

function cellsOf(line: string): (string | null)[] {
  const cells: (string | null)[] = line.split("\t");
  if (!line.includes("\\")) return cells;
  for (let i = 0; i < cells.length; i++) {
    const cell = cells[i]!;
    if (cell === "\\N") cells[i] = null;
    else if (cell.includes("\\")) cells[i] = cell.replace(ESCAPED, (_, unit: string) => UNESCAPED[unit] ?? unit);
  }
  return cells;
}
