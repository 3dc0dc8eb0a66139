import type { Segment } from "@bibliotope/core/index";
import MiniSearch from "minisearch";
import type pg from "pg";
import { copyInto, withSchema } from "./database.ts";
import { addressLines } from "./lines.ts";

/** Something else that finds lines by what is typed. */
export interface Finder {
  name: string;
  /** The best seven lines. */
  find(q: string): Promise<string[]> | string[];
}

/** The same lines in PostgreSQL, found by the letters in threes that they share with what is typed (pg_trgm, GIN). */
export async function withTrigrams<T>(url: string, segment: Segment, use: (finder: Finder) => Promise<T>): Promise<T> {
  return withSchema(url, async (client: pg.Client) => {
    await client.query("create extension if not exists pg_trgm with schema public");
    await client.query("create unlogged table lines (line text not null, importance real not null)");
    const rows = function* () {
      for (const { line, importance } of addressLines(segment)) yield [line, importance] as const;
    };
    await copyInto(client, "lines", rows());
    await client.query("create index on lines using gin (line gin_trgm_ops)");
    await client.query("vacuum analyze lines");
    const text = "select line from lines where line % $1 order by similarity(line, $1) desc, importance desc limit 7";
    return use({
      name: "pg_trgm",
      find: async (q) => (await client.query({ name: "like", text, values: [q] })).rows.map(({ line }) => line),
    });
  });
}

/** The same lines in MiniSearch: all words, the last as a beginning, one letter in five wrong. */
export function miniSearch(segment: Segment): Finder {
  const index = new MiniSearch<{ id: number; line: string; importance: number }>({
    fields: ["line"],
    storeFields: ["line", "importance"],
    processTerm: (term) => term.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase(),
  });
  const batch: { id: number; line: string; importance: number }[] = [];
  let id = 0;
  for (const { line, importance } of addressLines(segment)) {
    batch.push({ id: id++, line, importance });
    if (batch.length === 10_000) index.addAll(batch.splice(0));
  }
  index.addAll(batch);
  return {
    name: "MiniSearch",
    find: (q) =>
      index
        .search(q, {
          combineWith: "AND",
          prefix: (_term, i, terms) => i === terms.length - 1,
          fuzzy: 0.2,
          boostDocument: (_id, _term, stored) => 1 + (stored?.importance as number),
        })
        .slice(0, 7)
        .map(({ line }) => line),
  };
}
