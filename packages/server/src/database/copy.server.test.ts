import { setTimeout as sleep } from "node:timers/promises";
import type { Knex } from "knex";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { required } from "../../testing/shared.ts";
import { connect } from "./connect.ts";
import { copiedRows, copying, copyRows } from "./copy.ts";

const TEXTS = ["plain", "", "tab\tand\nline\r", "back\\slash \\N \\t", "Høvej “ß”", "\\N"];

describe("COPY", () => {
  let database: Knex;
  beforeAll(() => {
    database = connect(required("BIBLIOTOPE_TEST_DATABASE"), 2);
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

  it("tells what the database says of a reading, and of a connection that is lost", { tags: ["long"] }, async () => {
    const far = database.raw(
      "(select number, pg_backend_pid() as pid from generate_series(1, 5000000) as number) as far",
    );
    await expect(
      all(
        database("far")
          .select("no_such_column")
          .from(far as never),
        database,
      ),
    ).rejects.toThrow(/no_such/);
    await expect(
      all(database.select(database.raw("1 / (number - 400000)")).from(far as never), database),
    ).rejects.toThrow(/division by zero/);
    const lost = async () => {
      for await (const some of copiedRows(database, database.select("pid").from(far as never)))
        await database.raw("select pg_terminate_backend(?)", [Number(some[0]![0])]);
    };
    await expect(lost()).rejects.toThrow(/terminat|closed|connection/i);
    expect((await database.raw("select 1 as one")).rows).toEqual([{ one: 1 }]);
  });

  describe("rows that the database does not take", () => {
    const MANY = 3_000_000;

    /** Loads numbers, one of which is none; `pause` is called now and then, as a file that is read lets time pass. */
    const narrow = (pause: (i: number, pid: number) => Promise<unknown>, wrong = 10) =>
      database.transaction(async (transaction) => {
        await transaction.raw("create temporary table narrow (number int) on commit drop");
        const { pid } = (await transaction.raw("select pg_backend_pid() as pid")).rows[0];
        await copying(transaction, "narrow", ["number"], async (copy) => {
          for (let i = 0; i < MANY; i++) {
            const hasRoom = copy.row([i === wrong ? "ten" : i]);
            if (i % 100_000 === 0) await pause(i, pid);
            if (!hasRoom) await copy.flow();
          }
        });
      });
    const isWell = async () => expect((await database.raw("select 1 as one")).rows).toEqual([{ one: 1 }]);

    it.each([
      ["all at once", async () => undefined],
      ["while time passes", () => sleep(5)],
      ["while much time passes", (i: number) => sleep(i === 100_000 ? 200 : 0)],
    ])("are told of, %s", async (_, pause) => {
      await expect(narrow(pause)).rejects.toThrow(/ten/);
      await isWell();
    });

    it.each([0, MANY / 2, MANY - 1])("are told of, the wrong one being row %i", async (wrong) => {
      await expect(narrow(() => sleep(1), wrong)).rejects.toThrow(/ten/);
      await isWell();
    });

    it("are told of when a whole list is loaded", async () => {
      function* numbers() {
        for (let i = 0; i < MANY; i++) yield [i === 10 ? "ten" : i];
      }
      const loading = database.transaction(async (transaction) => {
        await transaction.raw("create temporary table narrow (number int) on commit drop");
        await copyRows(transaction, "narrow", ["number"], numbers());
      });
      await expect(loading).rejects.toThrow(/ten/);
      await isWell();
    });

    it("are told of when there is no such column", async () => {
      const loading = database.transaction(async (transaction) => {
        await transaction.raw("create temporary table narrow (number int) on commit drop");
        await copyRows(transaction, "narrow", ["figure"], [[1]]);
      });
      await expect(loading).rejects.toThrow(/figure/);
      await isWell();
    });

    it("end with the connection, and nobody else does", async () => {
      const lost = narrow(async (i, pid) => {
        if (i === 500_000) await database.raw("select pg_terminate_backend(?)", [pid]);
        await sleep(5);
      }, MANY);
      await expect(lost).rejects.toThrow(/terminat|closed|connection/i);
      await isWell();
    });

    it("are forgotten when what writes them gives up", async () => {
      const given = narrow(async (i) => {
        await sleep(1);
        if (i === 500_000) throw new Error("enough");
      }, MANY);
      await expect(given).rejects.toThrow("enough");
      await isWell();
    });
  });
});
