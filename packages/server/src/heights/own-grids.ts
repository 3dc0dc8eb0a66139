import { readdir, readFile } from "node:fs/promises";
import { extname, join } from "node:path";
import { checkGrid, readAsciiGrid } from "@bibliotope/core/formats";
import type { HeightGrid } from "@bibliotope/core/geo";
import { fromArrayBuffer } from "geotiff";

/** GeoTIFF's code for coordinates in degrees. */
const GEOGRAPHIC = 2;
const READERS: Readonly<Record<string, (file: Buffer) => HeightGrid | Promise<HeightGrid>>> = {
  ".asc": (file) => readAsciiGrid(file.toString("latin1")),
  ".tif": readGeoTiff,
  ".tiff": readGeoTiff,
};

/**
 * Reads the grids of heights that a developer put into a folder: ASCII grids (`.asc`) and GeoTIFF (`.tif`, `.tiff`), in
 * degrees of WGS 84, in the order of their names. A file that cannot be read is left out and said.
 * @param say receives what was read, and what is wrong with what was not
 */
export async function readOwnGrids(folder: string, say: (words: string) => void): Promise<HeightGrid[]> {
  const names = await readdir(folder).catch((error: NodeJS.ErrnoException) => {
    if (error.code !== "ENOENT") say(`Heights in ${folder} cannot be read: ${error.message}`);
    return [];
  });
  const grids: HeightGrid[] = [];
  for (const name of names.sort()) {
    const read = READERS[extname(name).toLowerCase()];
    if (!read) continue;
    try {
      const grid = await read(await readFile(join(folder, name)));
      say(`Heights from ${name}: ${grid.columns} by ${grid.rows}`);
      grids.push(grid);
    } catch (error) {
      say(`Heights from ${name} are left out: ${error instanceof Error ? error.message : String(error)}`);
    }
  }
  return grids;
}

/** Reads the first band of a GeoTIFF (OGC 19-008) as heights in metres. */
async function readGeoTiff(file: Buffer): Promise<HeightGrid> {
  const tiff = await fromArrayBuffer(Uint8Array.from(file).buffer);
  const image = await tiff.getImage();
  const model = image.getGeoKeys()?.GTModelTypeGeoKey;
  if (model !== undefined && model !== GEOGRAPHIC)
    throw new RangeError("its coordinates are projected; save it in degrees of WGS 84 (EPSG:4326)");
  const [columns, rows] = [image.getWidth(), image.getHeight()];
  const [left, bottom, right, top] = image.getBoundingBox();
  const [stepLon, stepLat] = [(right - left) / columns, (top - bottom) / rows];
  // a height is that of the cell's middle
  const grid = { west: left + stepLon / 2, south: bottom + stepLat / 2, stepLon, stepLat, columns, rows };
  checkGrid(grid);
  const none = image.getGDALNoData();
  const [band] = await image.readRasters({ samples: [0] });
  const metres = new Float32Array(columns * rows);
  for (let i = 0; i < metres.length; i++) {
    const value = Number((band as ArrayLike<number>)[i]);
    metres[(rows - 1 - Math.floor(i / columns)) * columns + (i % columns)] = value === none ? Number.NaN : value;
  }
  return { ...grid, metres };
}
