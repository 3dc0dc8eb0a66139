import type { Point } from "./plane.ts";

/** Numbers on a grid of square cells over a plane; cell (0, 0) is the south-west one. */
export class Grid {
  readonly values: Float32Array;

  constructor(
    readonly columns: number,
    readonly rows: number,
    /** Side of a cell in metres. */
    readonly cell: number,
  ) {
    this.values = new Float32Array(columns * rows);
  }

  /** The point of a column and row, which need not be integers. */
  point(column: number, row: number): Point {
    return { x: (column - this.columns / 2) * this.cell, y: (row - this.rows / 2) * this.cell };
  }

  column(x: number): number {
    return x / this.cell + this.columns / 2;
  }

  row(y: number): number {
    return y / this.cell + this.rows / 2;
  }

  /** The cell nearest to a point, kept within the grid. */
  indexAt({ x, y }: Point): number {
    const column = Math.max(0, Math.min(this.columns - 1, Math.round(this.column(x))));
    const row = Math.max(0, Math.min(this.rows - 1, Math.round(this.row(y))));
    return row * this.columns + column;
  }

  /** The value between the four cells around a point. */
  sample({ x, y }: Point): number {
    const c = Math.max(0, Math.min(this.columns - 1.001, this.column(x)));
    const r = Math.max(0, Math.min(this.rows - 1.001, this.row(y)));
    const c0 = Math.floor(c);
    const r0 = Math.floor(r);
    const i = r0 * this.columns + c0;
    const v = this.values;
    const south = v[i] * (1 - c + c0) + v[i + 1] * (c - c0);
    const north = v[i + this.columns] * (1 - c + c0) + v[i + this.columns + 1] * (c - c0);
    return south * (1 - r + r0) + north * (r - r0);
  }

  /** How the values rise, in units a metre, to the east and north. */
  gradient(at: Point, step = this.cell): Point {
    return {
      x: (this.sample({ x: at.x + step, y: at.y }) - this.sample({ x: at.x - step, y: at.y })) / (2 * step),
      y: (this.sample({ x: at.x, y: at.y + step }) - this.sample({ x: at.x, y: at.y - step })) / (2 * step),
    };
  }

  /** Every second cell of every second row. */
  halved(): Grid {
    const half = new Grid(this.columns >> 1, this.rows >> 1, this.cell * 2);
    for (let r = 0; r < half.rows; r++) {
      for (let c = 0; c < half.columns; c++)
        half.values[r * half.columns + c] = this.values[2 * r * this.columns + 2 * c];
    }
    return half;
  }
}
