import { type Frame, frameAround } from "./clip.ts";

/** Points in a cell, on average. */
const IN_A_CELL = 8;
const MOST_CELLS = 1024;

/** Points of the projected square in square cells, one after another, so that those in a frame are found at once. */
export class PointGrid {
  readonly #frame: Frame;
  readonly #side: number;
  /** Where each cell's points begin in the list of points. */
  readonly #begins: Uint32Array;
  /** Places of all points, cell after cell. */
  readonly points: Uint32Array;

  constructor(
    private readonly x: Float64Array,
    private readonly y: Float64Array,
  ) {
    const total = x.length;
    const frame = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity };
    for (let i = 0; i < total; i++) {
      if (x[i] < frame.left) frame.left = x[i];
      if (x[i] > frame.right) frame.right = x[i];
      if (y[i] < frame.top) frame.top = y[i];
      if (y[i] > frame.bottom) frame.bottom = y[i];
    }
    this.#frame = total ? frame : frameAround([0, 0]);
    this.#side = Math.max(1, Math.min(MOST_CELLS, Math.ceil(Math.sqrt(total / IN_A_CELL))));
    this.#begins = new Uint32Array(this.#side * this.#side + 1);
    this.points = new Uint32Array(total);
    const cells = new Uint32Array(total);
    for (let i = 0; i < total; i++) {
      cells[i] = this.#row(y[i]) * this.#side + this.#column(x[i]);
      this.#begins[cells[i] + 1]++;
    }
    for (let cell = 0; cell < this.#side * this.#side; cell++) this.#begins[cell + 1] += this.#begins[cell];
    const next = this.#begins.slice();
    for (let i = 0; i < total; i++) this.points[next[cells[i]]++] = i;
  }

  /** Places of the points in a frame, its edges included, in rising order. */
  within(frame: Frame): number[] {
    const found: number[] = [];
    if (!this.points.length || frame.right < this.#frame.left || frame.left > this.#frame.right) return found;
    const [west, east] = [this.#column(frame.left), this.#column(frame.right)];
    for (let row = this.#row(frame.top); row <= this.#row(frame.bottom); row++) {
      const end = this.#begins[row * this.#side + east + 1];
      for (let at = this.#begins[row * this.#side + west]; at < end; at++) {
        const i = this.points[at];
        const [x, y] = [this.x[i], this.y[i]];
        if (x >= frame.left && x <= frame.right && y >= frame.top && y <= frame.bottom) found.push(i);
      }
    }
    return found.sort((a, b) => a - b);
  }

  #column(x: number): number {
    return this.#cell((x - this.#frame.left) / (this.#frame.right - this.#frame.left));
  }

  #row(y: number): number {
    return this.#cell((y - this.#frame.top) / (this.#frame.bottom - this.#frame.top));
  }

  /** A cell for a share of the frame's side; points beyond it belong to the cell at the edge. */
  #cell(share: number): number {
    return Math.max(0, Math.min(this.#side - 1, Math.floor((share || 0) * this.#side)));
  }
}
