import type { HeightGrid } from "../geo/index.ts";

/** Points of the largest grid that is read. */
const MOST_POINTS = 40_000_000;

/**
 * Reads an ASCII grid of heights: a header of `ncols`, `nrows`, `xllcorner` or `xllcenter`, `yllcorner` or `yllcenter`,
 * `cellsize` and perhaps `nodata_value`, then the heights in metres row by row from the north. Degrees of WGS 84.
 * @throws {RangeError} with what is wrong and in which line
 */
export function readAsciiGrid(text: string): HeightGrid {
  const header = new Map<string, number>();
  let from = 0;
  let line = 0;
  for (;;) {
    const end = text.indexOf("\n", from);
    const words = text
      .slice(from, end < 0 ? undefined : end)
      .trim()
      .split(/\s+/);
    line++;
    if (!/^[a-z_]/i.test(words[0])) break;
    const value = Number(words[1]);
    if (words.length !== 2 || Number.isNaN(value))
      throw new RangeError(
        `line ${line}: a header line is a name and a number, this is "${words.join(" ").slice(0, 40)}"`,
      );
    header.set(words[0].toLowerCase(), value);
    if (end < 0) break;
    from = end + 1;
  }
  const need = (...names: string[]) => {
    const name = names.find((one) => header.has(one));
    if (name === undefined) throw new RangeError(`the header has no ${names.join(" or ")}`);
    return header.get(name)!;
  };
  const [columns, rows, step] = [need("ncols"), need("nrows"), need("cellsize")];
  // a corner is half a cell off the first point
  const west = need("xllcenter", "xllcorner") + (header.has("xllcenter") ? 0 : step / 2);
  const south = need("yllcenter", "yllcorner") + (header.has("yllcenter") ? 0 : step / 2);
  const grid = { west, south, stepLon: step, stepLat: step, columns, rows };
  checkGrid(grid);
  const none = header.get("nodata_value");
  const metres = new Float32Array(columns * rows);
  const words = text.slice(from).split(/\s+/).filter(Boolean);
  if (words.length !== metres.length)
    throw new RangeError(
      `${columns} columns and ${rows} rows are ${metres.length} heights; the file holds ${words.length}`,
    );
  words.forEach((word, i) => {
    const value = Number(word);
    if (Number.isNaN(value)) throw new RangeError(`height ${i + 1} is no number: "${word.slice(0, 20)}"`);
    const row = rows - 1 - Math.floor(i / columns);
    metres[row * columns + (i % columns)] = value === none ? Number.NaN : value;
  });
  return { ...grid, metres };
}

/** @throws {RangeError} when a grid does not lie on the globe, or is none */
export function checkGrid({ west, south, stepLon, stepLat, columns, rows }: Omit<HeightGrid, "metres">): void {
  const isWhole = (value: number) => Number.isInteger(value) && value >= 2;
  if (!isWhole(columns) || !isWhole(rows))
    throw new RangeError(`a grid has two columns and rows at least, not ${columns} by ${rows}`);
  if (columns * rows > MOST_POINTS)
    throw new RangeError(
      `a grid of at most ${MOST_POINTS.toLocaleString("en")} heights is read; cut it into several files`,
    );
  if (!(stepLon > 0 && stepLat > 0)) throw new RangeError("the cells have no size");
  if (
    !(
      south >= -90 &&
      south + stepLat * (rows - 1) <= 90 &&
      west >= -180 &&
      west <= 180 &&
      stepLon * (columns - 1) <= 360
    )
  )
    throw new RangeError(
      `it reaches from ${west}, ${south} by ${stepLon * (columns - 1)} and ${stepLat * (rows - 1)}: these are no degrees of longitude and latitude; save it in WGS 84 (EPSG:4326)`,
    );
}
