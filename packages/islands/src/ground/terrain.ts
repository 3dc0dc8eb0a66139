import { fractal } from "../random.ts";
import { Grid } from "./grid.ts";

/** A hump of an island: its middle and half axes in metres, its turn in radians, its height as a share. */
export interface Hump {
  x: number;
  y: number;
  long: number;
  short: number;
  turn: number;
  lift: number;
}

const COLUMNS = 560;
const ROWS = 440;
const CELL = 125;

/** Height in metres of highest ground, before erosion by noise. */
const PEAK = 1500;

/** Heights in metres above the sea of an island made of humps; negative below water. The rim is always sea. */
export function makeTerrain(humps: readonly Hump[], seed: number): Grid {
  const grid = new Grid(COLUMNS, ROWS, CELL);
  for (let row = 0; row < ROWS; row++) {
    for (let column = 0; column < COLUMNS; column++) {
      const { x, y } = grid.point(column, row);
      const rim = Math.min(column, row, COLUMNS - 1 - column, ROWS - 1 - row) / 30;
      grid.values[row * COLUMNS + column] =
        rim < 1 ? Math.min(heightAt(x, y, humps, seed), -20 + 15 * rim) : heightAt(x, y, humps, seed);
    }
  }
  return grid;
}

function heightAt(x: number, y: number, humps: readonly Hump[], seed: number): number {
  const wx = x + 3800 * fractal(x / 9000, y / 9000, seed + 7, 4);
  const wy = y + 3800 * fractal(x / 9000 + 40, y / 9000, seed + 13, 4);
  let base = 0;
  for (const hump of humps) {
    const dx = wx - hump.x;
    const dy = wy - hump.y;
    const along = (dx * Math.cos(hump.turn) + dy * Math.sin(hump.turn)) / hump.long;
    const beside = (-dx * Math.sin(hump.turn) + dy * Math.cos(hump.turn)) / hump.short;
    base = Math.max(base, hump.lift * Math.exp(-(along * along + beside * beside)));
  }
  const rough = fractal(x / 7000, y / 7000, seed, 6);
  const land = base - 0.3 + 0.16 * rough;
  if (land <= 0) return land * 260;
  // low and flat near the coast, steep inland
  return PEAK * land * land * (0.75 + 0.5 * rough) + land * 60 + 0.4;
}
