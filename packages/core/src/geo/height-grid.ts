import { isPosition, type Position } from "./position.ts";

/** Heights on a grid that follows longitude and latitude. */
export interface HeightGrid {
  /** Degrees of the south-western point. */
  west: number;
  south: number;
  /** Degrees from one point to the next. */
  stepLon: number;
  stepLat: number;
  columns: number;
  rows: number;
  /** Metres above the sea, row by row from the south, each from the west; NaN where nothing is known. */
  metres: Float32Array;
}

/**
 * The height between the four points of a grid around a position, by bilinear interpolation.
 * @returns metres above the sea; undefined outside the grid, and where one of the four is not known
 */
export function heightOn(grid: HeightGrid, { lat, lon }: Position): number | undefined {
  const { columns, rows, metres } = grid;
  if (!isPosition(lat, lon)) return undefined;
  // a grid over the 180th meridian goes on beyond it
  const column = (lon - grid.west - 360 * Math.floor((lon - grid.west) / 360)) / grid.stepLon;
  const row = (lat - grid.south) / grid.stepLat;
  if (!(column <= columns - 1 && row >= 0 && row <= rows - 1)) return undefined;
  const c = Math.min(columns - 2, Math.floor(column));
  const r = Math.min(rows - 2, Math.floor(row));
  const at = r * columns + c;
  const [east, north] = [column - c, row - r];
  const lower = metres[at] * (1 - east) + metres[at + 1] * east;
  const upper = metres[at + columns] * (1 - east) + metres[at + columns + 1] * east;
  const height = lower * (1 - north) + upper * north;
  return Number.isNaN(height) ? undefined : height;
}
