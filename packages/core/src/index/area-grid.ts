import type { Position } from "../geo/index.ts";
import { SCALE } from "./layout.ts";

/** Degrees of a cell. */
const CELL = 0.25;
const COLUMNS = 360 / CELL;
/** Areas that lie in more cells are looked at wherever a position is. */
const MOST_CELLS = 64;

/** Which areas may lie around a position, by their boxes. */
export class AreaGrid {
  readonly #wide: number[] = [];
  readonly #cells = new Map<number, number[]>();

  /**
   * @param boxes west, south, east, north of each area in 1e-7 degrees
   * @param changed areas whose boxes are not to be relied on
   */
  constructor(boxes: Int32Array, count: number, changed: ReadonlySet<number>) {
    for (let area = 0; area < count; area++) {
      const [west, south, east, north] = Array.from(boxes.subarray(area * 4, area * 4 + 4), (value) => value / SCALE);
      const [left, right, low, high] = [column(west), column(east), row(south), row(north)];
      if (changed.has(area) || west > east || (right - left + 1) * (high - low + 1) > MOST_CELLS) {
        this.#wide.push(area);
        continue;
      }
      for (let y = low; y <= high; y++)
        for (let x = left; x <= right; x++) {
          const cell = y * COLUMNS + x;
          const existing = this.#cells.get(cell);
          if (existing) existing.push(area);
          else this.#cells.set(cell, [area]);
        }
    }
  }

  /** In their order: what contains others before those. */
  near({ lat, lon }: Position): number[] {
    const near = this.#cells.get(row(lat) * COLUMNS + column(lon)) ?? [];
    return [...this.#wide, ...near].sort((a, b) => a - b);
  }
}

const column = (lon: number) => Math.floor((lon + 180) / CELL);
const row = (lat: number) => Math.floor((lat + 90) / CELL);
