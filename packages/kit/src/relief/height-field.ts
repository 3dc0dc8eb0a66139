import type { TileHeightsAnswer } from "@bibliotope/wire";

/** A point of the projected square: 0 to 1, from the west and from the north. */
export interface SquarePoint {
  x: number;
  y: number;
}

/** Heights of the ground from tiles of one zoom. */
export class HeightField {
  readonly #tiles = new Map<string, TileHeightsAnswer>();

  constructor(readonly zoom: number) {}

  set(x: number, y: number, heights: TileHeightsAnswer): void {
    this.#tiles.set(`${x}/${y}`, heights);
  }

  /** Metres above the sea, between the four points around; 0 where nothing is known. */
  at(point: SquarePoint): number {
    const count = 2 ** this.zoom;
    const [column, row] = [Math.floor(point.x * count), Math.floor(point.y * count)];
    const tile = this.#tiles.get(`${column}/${row}`);
    if (!tile) return 0;
    const { columns, rows, metres } = tile;
    const [x, y] = [(point.x * count - column) * (columns - 1), (point.y * count - row) * (rows - 1)];
    const [c, r] = [Math.min(columns - 2, Math.floor(x)), Math.min(rows - 2, Math.floor(y))];
    const [east, south] = [x - c, y - r];
    const value = (dc: number, dr: number) => metres[(r + dr) * columns + c + dc] ?? 0;
    const upper = value(0, 0) * (1 - east) + value(1, 0) * east;
    const lower = value(0, 1) * (1 - east) + value(1, 1) * east;
    return upper * (1 - south) + lower * south;
  }
}
