import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import pg from "pg";
import { from as copyFrom } from "pg-copy-streams";

/** A connection to the benchmark's own database, and a schema in it that is dropped afterwards. */
export async function withSchema<T>(url: string, use: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await client.query("drop schema if exists beside cascade; create schema beside; set search_path = beside, public");
    // the whole machine is the benchmark's: a sort and an index may take what they need
    await client.query("set maintenance_work_mem = '1GB'; set work_mem = '64MB'");
    return await use(client);
  } finally {
    await client.query("drop schema if exists beside cascade");
    await client.end();
  }
}

/** Loads rows of numbers and texts without tabs by COPY. */
export async function copyInto(
  client: pg.Client,
  table: string,
  rows: Iterable<readonly (string | number)[]>,
): Promise<void> {
  const text = function* () {
    let piece = "";
    for (const row of rows) {
      piece += `${row.join("\t")}\n`;
      if (piece.length < 65_536) continue;
      yield piece;
      piece = "";
    }
    yield piece;
  };
  await pipeline(Readable.from(text()), client.query(copyFrom(`copy ${table} from stdin`)));
}
