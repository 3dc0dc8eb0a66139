import { mkdtemp, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { heightOn } from "@bibliotope/core/geo";
import { writeArrayBuffer } from "geotiff";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { readOwnGrids } from "./own-grids.ts";

const ASCII = "ncols 2\nnrows 2\nxllcenter -21.5\nyllcenter -35.5\ncellsize 0.5\n10 20\n30 40\n";

/** A GeoTIFF of three columns and two rows, a degree a cell, from 10° west and 50° north. */
function tiff(metres: number[], more: object = {}): Buffer {
  const made = writeArrayBuffer(new Float32Array(metres), {
    width: 3,
    height: 2,
    GTModelTypeGeoKey: 2,
    GeographicTypeGeoKey: 4326,
    ModelPixelScale: [1, 1, 0],
    ModelTiepoint: [0, 0, 0, -10, 50, 0],
    ...more,
  });
  return Buffer.from(made as ArrayBuffer);
}

describe("readOwnGrids", () => {
  let folder: string;
  let said: string[];
  const read = () => readOwnGrids(folder, (words) => said.push(words));
  beforeEach(async () => {
    folder = await mkdtemp(join(tmpdir(), "bibliotope-heights-"));
    said = [];
  });
  afterEach(() => rm(folder, { recursive: true }));

  it("reads ASCII grids and GeoTIFF, by their names, and nothing else", async () => {
    await writeFile(join(folder, "b.asc"), ASCII);
    await writeFile(join(folder, "a.TIF"), tiff([1, 2, 3, 4, 5, 6]));
    await writeFile(join(folder, "readme.txt"), "not a grid");
    const [first, second] = await read();
    expect(said).toEqual(["Heights from a.TIF: 3 by 2", "Heights from b.asc: 2 by 2"]);
    // cell middles: 9.5° west is the first column's, 49.5° north the first row's
    expect(heightOn(first, { lat: 49.5, lon: -9.5 })).toBeCloseTo(1, 5);
    expect(heightOn(first, { lat: 48.5, lon: -7.5 })).toBeCloseTo(6, 5);
    expect(heightOn(first, { lat: 49, lon: -9 })).toBeCloseTo(3, 5);
    expect(heightOn(second, { lat: -35, lon: -21.5 })).toBeCloseTo(10, 5);
  });

  it("leaves out what cannot be read, says why, and keeps the rest", async () => {
    await writeFile(join(folder, "a.asc"), "ncols 2");
    await writeFile(join(folder, "b.tif"), "this is no TIFF");
    await writeFile(join(folder, "c.tif"), tiff([1, 2, 3, 4, 5, 6], { GTModelTypeGeoKey: 1 }));
    await writeFile(join(folder, "d.asc"), ASCII);
    expect((await read()).length).toBe(1);
    expect(said[0]).toBe("Heights from a.asc are left out: the header has no nrows");
    expect(said[1]).toMatch(/^Heights from b\.tif are left out: /);
    expect(said[2]).toMatch(/its coordinates are projected; save it in degrees/);
    expect(said[3]).toBe("Heights from d.asc: 2 by 2");
  });

  it("has none where there is no folder", async () => {
    expect(await readOwnGrids(join(folder, "nowhere"), (words) => said.push(words))).toEqual([]);
    expect(said).toEqual([]);
  });
});
