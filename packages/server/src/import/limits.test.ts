import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { inspectTable } from "./inspect-table.ts";
import { MOST_CELL, MOST_COLUMNS } from "./limits.ts";
import { readTable } from "./table.ts";

const path = join(mkdtempSync(join(tmpdir(), "bibliotope-limits-")), "file");

/** Rows of a table in the three ways in which it may be written, and the number of its first row. */
const WRITERS = {
  csv: {
    write: (heads: string[], rows: string[][]) => [heads, ...rows].map((row) => row.join(",")).join("\n"),
    first: 2,
  },
  geojson: {
    write: (heads: string[], rows: string[][]) =>
      `{"type":"FeatureCollection","features":[${rows.map((row) => featureOf(heads, row)).join(",")}]}`,
    first: 1,
  },
  geojsonseq: {
    write: (heads: string[], rows: string[][]) => `${rows.map((row) => featureOf(heads, row)).join("\n")}\n`,
    first: 1,
  },
};
type Kind = keyof typeof WRITERS;

function featureOf(heads: string[], row: string[]): string {
  const properties = Object.fromEntries(heads.map((head, i) => [head, row[i]]));
  return JSON.stringify({ type: "Feature", geometry: null, properties });
}

/** Looks at a table and reads it. @returns its rows, or the words with which it is refused */
async function readAll(kind: Kind, heads: string[], rows: string[][], empty = 0): Promise<string[][] | string> {
  const [head, ...rest] = WRITERS[kind].write(heads, rows).split("\n");
  const gap = "\n".repeat(empty);
  writeFileSync(path, kind === "csv" ? `${gap}${head}\n${gap}${rest.join("\n")}` : [head, ...rest].join("\n"));
  try {
    const start = await inspectTable(path);
    const read: string[][] = [];
    for await (const batch of readTable(path, start.format, start.heads)) read.push(...batch.map(({ cells }) => cells));
    return read;
  } catch (error) {
    return (error as Error).message;
  }
}

const kinds = fc.constantFrom(...(Object.keys(WRITERS) as Kind[]));

describe("a cell", () => {
  it("is read when it has 64 kB, and refused with its row and its column when it has more, wherever it is", async () => {
    const shape = fc.record({
      kind: kinds,
      width: fc.integer({ min: 2, max: 6 }),
      height: fc.integer({ min: 1, max: 5 }),
      letter: fc.constantFrom("x", "ø", "水", "🗺"),
      over: fc.integer({ min: -1, max: 1 }),
      at: fc.nat(),
      // lines with nothing in them, before the table and within it
      empty: fc.nat(3),
    });
    await fc.assert(
      fc.asyncProperty(shape, async ({ kind, width, height, letter, over, at, empty }) => {
        const heads = Array.from({ length: width }, (_, i) => `head ${"abcdef"[i]}`);
        const rows = Array.from({ length: height }, () => heads.map(() => "word"));
        const [row, column] = [at % height, Math.floor(at / height) % width];
        const long = letter.repeat(Math.floor(MOST_CELL / Buffer.byteLength(letter)) + over);
        rows[row][column] = long;
        const read = await readAll(kind, heads, rows, empty);
        if (over <= 0) {
          expect(read).toHaveLength(height);
          expect((read as string[][])[row]).toContain(long);
        } else {
          expect(read).toContain(`Row ${row + WRITERS[kind].first + (kind === "csv" ? 2 * empty : 0)}, column `);
          expect(read).toContain(`(“${heads[column]}”)`);
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe("columns", () => {
  it("are read when there are five hundred, and refused in a sentence when there are more", {
    tags: ["long"],
  }, async () => {
    await fc.assert(
      fc.asyncProperty(kinds, fc.integer({ min: -3, max: 40_000 }), async (kind, over) => {
        // a position is two columns of its own where there are features
        const width = MOST_COLUMNS + over - (kind === "csv" ? 0 : 2);
        const heads = Array.from({ length: width }, (_, i) => `h${i}`);
        const read = await readAll(kind, heads, [heads.map(() => "word")]);
        if (over <= 0) expect((read as string[][])[0]).toHaveLength(MOST_COLUMNS + over);
        else expect(read).toMatch(/^(Row|Feature) 1 has [\d,]+ columns\. The limit is 500/);
      }),
      { numRuns: 30 },
    );
  });

  it("are counted over all features that are looked at", async () => {
    const features = Array.from({ length: 40 }, (_, i) =>
      featureOf(
        Array.from({ length: 30 }, (_, j) => `h${i * 30 + j}`),
        new Array(30).fill("word"),
      ),
    );
    writeFileSync(path, features.join("\n"));
    await expect(inspectTable(path)).rejects.toThrow("The table of the first 17 features has 512 columns.");
  });
});

describe("a feature", () => {
  it("is refused by its number when it has more than ten million letters", async () => {
    const long = { type: "Feature", geometry: null, properties: { a: "x" } };
    const ring = Array.from({ length: 700_000 }, () => [12.345678, 1.5]);
    writeFileSync(
      path,
      [long, long, { ...long, geometry: { type: "Polygon", coordinates: [ring] } }]
        .map((one) => JSON.stringify(one))
        .join("\n"),
    );
    await expect(inspectTable(path)).rejects.toThrow("Feature 3 is longer than 10,000,000 characters.");
  });

  it("is refused by its number and its property when its lists lie too deep", async () => {
    const deep = `${"[".repeat(200_000)}${"]".repeat(200_000)}`;
    writeFileSync(path, `{"type":"Feature","geometry":null,"properties":{"a":"x","b":${deep}}}\n`);
    await expect(inspectTable(path)).rejects.toThrow(/Feature 1.*(“b”|JSON)/);
  });
});
