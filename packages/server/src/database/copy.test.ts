import type { Knex } from "knex";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { connect } from "./connect.ts";
import { copiedRows, copying, copyRows } from "./copy.ts";

const TEXTS = ["plain", "", "tab\tand\nline\r", "back\\slash \\N \\t", "Høvej “ß”", "\\N"];

describe("COPY", () => {
  let database: Knex;
  beforeAll(() => {
    database = connect(process.env.BIBLIOTOPE_TEST_DATABASE!, 2);
  });
  afterAll(() => database.destroy());

  async function all(select: Knex.QueryBuilder, within: Knex): Promise<(string | null)[][]> {
    const rows = [];
    for await (const some of copiedRows(within, select)) rows.push(...some);
    return rows;
  }

  it("gives back every text as it came, and nothing as nothing", async () => {
    const rows = [...TEXTS.map((text, i) => [i, text, i / 3]), [99, null, -0.1]] as const;
    await database.raw("create table copied (number int, words text, share float8)");
    try {
      await database.transaction((transaction) =>
        copyRows(transaction, "copied", ["number", "words", "share"], rows as never),
      );
      const read = await all(database("copied").select("number", "words", "share").orderBy("number"), database);
      expect(read.map(([number, words, share]) => [Number(number), words, Number(share)])).toEqual(rows);
      expect(await all(database("copied").where({ words: "o'clock" }).select("words"), database)).toEqual([]);
    } finally {
      await database.raw("drop table copied");
    }
  });

  it("reads more than fits into one piece, and can be left in the middle", async () => {
    const numbers = database.raw("generate_series(1, 200000) as number");
    const rows = await all(database.select("number").from(numbers as never), database);
    expect(rows).toHaveLength(200_000);
    expect(rows.at(-1)).toEqual(["200000"]);
    for await (const some of copiedRows(database, database.select("number").from(numbers as never))) {
      expect(some.length).toBeGreaterThan(0);
      break;
    }
    expect((await database.raw("select 1 as one")).rows).toEqual([{ one: 1 }]);
  });

  it("tells what the database says of rows that were handed on", async () => {
    const broken = database.transaction(async (transaction) => {
      await transaction.raw("create temporary table narrow (number int) on commit drop");
      await copying(transaction, "narrow", ["number"], async (copy) => {
        for (let i = 0; i < 2_000_000; i++) {
          copy.row([i === 10 ? "ten" : i]);
          if (i % 1000 === 0) await copy.flow();
        }
      });
    });
    await expect(broken).rejects.toThrow(/ten/);
  });
});
