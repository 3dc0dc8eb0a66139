import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { sphereDistance } from "@bibliotope/core/geo";
import { RowReader } from "@bibliotope/core/import";
import { afterAll, describe, expect, it } from "vitest";
import { inspect } from "../../packages/server/src/import/inspect.ts";
import { FURTHER, type Manner, rowsOf, tableOf } from "./further.ts";

const folder = mkdtempSync(join(tmpdir(), "bibliotope-further-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const ROWS = 60;
/** Metres that a national grid's datum may be off. */
const NEAR = 40;

async function read(manner: Manner, seed: number) {
  const rows = rowsOf(manner.country, ROWS, seed);
  const path = join(folder, `${manner.country}-${seed}.csv`);
  writeFileSync(path, tableOf(manner, rows));
  return { rows, start: await inspect({ path, params: {}, country: undefined, readings: [] }) };
}

describe("tables as further countries head them", () => {
  it.each(FURTHER.map((manner) => [manner.name, manner] as const))("%s", async (_, manner) => {
    for (const seed of [1, 2, 3]) {
      const { rows, start } = await read(manner, seed);
      const { columns, reading } = start;
      const meant = manner.columns.map(([head, , meaning = null]) => [head, meaning]);
      const seen = columns.map(({ use }, i) => [manner.columns[i][0], use && !use.form ? use.meaning : null]);
      expect(seen).toEqual(meant);
      expect(reading.country ?? manner.country).toBe(manner.country);
      const isAsked = columns.some(({ why }) => why.includes(": choose "));
      expect(isAsked).toBe(manner.isAsked ?? false);
      if (isAsked) continue;
      const reader = new RowReader(reading);
      rows.forEach((row, n) => {
        const cells = manner.columns.map(([, cell]) => String(cell(row, n)));
        const { row: found, refused } = reader.read(cells);
        expect(refused?.words).toBeUndefined();
        expect(sphereDistance(found!.at, row)).toBeLessThan(NEAR);
        expect(found!.house?.number).toBe(row.house);
        const town = found!.areas.find(({ kind }) => kind === "town")?.names[0].name;
        expect(town?.toLowerCase()).toBe(row.town.toLowerCase());
        expect(found!.street?.names[0].name.toLowerCase()).toContain(row.street.toLowerCase());
      });
    }
  });

  it("are read the same in whatever order their columns stand", async () => {
    for (const manner of FURTHER.filter(({ isAsked }) => !isAsked)) {
      const turned = { ...manner, columns: manner.columns.toReversed() };
      const { start } = await read(turned, 4);
      const of = new Map(turned.columns.map(([head], i) => [head, start.columns[i].use]));
      for (const [head, , meaning] of manner.columns) {
        // of two that say the same, the one that stands first has it
        const isAlone = manner.columns.filter(([, , other]) => other === meaning).length === 1;
        if (meaning && isAlone)
          expect([manner.name, head, of.get(head)?.meaning]).toEqual([manner.name, head, meaning]);
      }
    }
  });
});
