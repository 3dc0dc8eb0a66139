import type { Position } from "@bibliotope/core/geo";
import type { CoverageAnswer } from "@bibliotope/wire";

/** A cell of a coverage grid: its bounds in degrees, and its addresses. */
export interface Cell {
  west: number;
  south: number;
  east: number;
  north: number;
  /** Addresses of the version, and of the one that it is compared with. */
  here: number;
  before: number;
}

/** The cells of a grid as it is sent: four numbers each, the south-west corner in cells. */
export function cellsOf({ size, cells }: CoverageAnswer["grid"]): Cell[] {
  return Array.from({ length: Math.floor(cells.length / 4) }, (_, i) => {
    const [row, col, here, before] = cells.slice(i * 4, i * 4 + 4);
    return { west: col * size, south: row * size, east: (col + 1) * size, north: (row + 1) * size, here, before };
  });
}

/** How opaque a cell is drawn, 0.25 to 0.75: by the logarithm of its addresses, since towns have thousands of times more. */
export function opacityOf(here: number, most: number): number {
  return 0.25 + (0.5 * Math.log(1 + here)) / Math.log(1 + Math.max(1, most));
}

/** The cell that a position is in. */
export function cellAt(cells: readonly Cell[], { lat, lon }: Position): Cell | undefined {
  return cells.find(({ west, south, east, north }) => lat >= south && lat < north && lon >= west && lon < east);
}

/** Corners of all cells, for a map to fit. */
export const cornersOf = (cells: readonly Cell[]): Position[] =>
  cells.flatMap(({ west, south, east, north }) => [
    { lat: south, lon: west },
    { lat: north, lon: east },
  ]);
