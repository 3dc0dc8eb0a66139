import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { Knex } from "knex";
import type { ClientBase } from "pg";
import { from as copyFrom } from "pg-copy-streams";

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
  const quoted = columns.map((column) => `"${column}"`).join(", ");
  await pipeline(Readable.from(linesOf(rows)), client.query(copyFrom(`copy "${table}" (${quoted}) from stdin`)));
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
    if (piece.length > 65536) {
      yield piece;
      piece = "";
    }
  }
  if (piece) yield piece;
}

const ESCAPES: Record<string, string> = { "\\": "\\\\", "\t": "\\t", "\n": "\\n", "\r": "\\r" };

function cellText(cell: Cell): string {
  return cell === null ? "\\N" : String(cell).replace(/[\\\t\n\r]/g, (unit) => ESCAPES[unit]);
}
