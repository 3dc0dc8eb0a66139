import type { Position, Ring } from "../geo/index.ts";

/** Degrees of a cell: about one kilometre. */
const CELL = 0.01;
const COLUMNS = 40_000;
/** Cells of which less than this share of all lies apart from the rest are left out of a hull. */
const STRAY = 0.02;
/** Degrees by which a hull stands off its outermost points. */
const MARGIN = 0.0005;

interface Cell {
  count: number;
  lat: number;
  lon: number;
  bounds: [west: number, south: number, east: number, north: number];
}

/** Where many positions lie, kept as cells: as much memory as there is ground covered, however many they are. */
export class Spread {
  count = 0;
  readonly #cells = new Map<number, Cell>();

  add({ lat, lon }: Position): void {
    this.count++;
    const name = Math.floor((lat + 90) / CELL) * COLUMNS + Math.floor((lon + 180) / CELL);
    const cell = this.#cells.get(name);
    if (!cell) {
      this.#cells.set(name, { count: 1, lat, lon, bounds: [lon, lat, lon, lat] });
      return;
    }
    cell.count++;
    cell.lat += lat;
    cell.lon += lon;
    const { bounds } = cell;
    if (lon < bounds[0]) bounds[0] = lon;
    if (lat < bounds[1]) bounds[1] = lat;
    if (lon > bounds[2]) bounds[2] = lon;
    if (lat > bounds[3]) bounds[3] = lat;
  }

  /** Takes in what lies in another. */
  join(other: Spread): void {
    this.count += other.count;
    for (const [name, { count, lat, lon, bounds }] of other.#cells) {
      const cell = this.#cells.get(name);
      if (!cell) this.#cells.set(name, { count, lat, lon, bounds: [...bounds] });
      else {
        cell.count += count;
        cell.lat += lat;
        cell.lon += lon;
        cell.bounds = [
          Math.min(cell.bounds[0], bounds[0]),
          Math.min(cell.bounds[1], bounds[1]),
          Math.max(cell.bounds[2], bounds[2]),
          Math.max(cell.bounds[3], bounds[3]),
        ];
      }
    }
  }

  /** The middle of where most lie, and a hull around them; a few that lie apart do not count. */
  shape(): { at: Position; rings: Ring[] } {
    const cells = this.#together();
    const count = cells.reduce((sum, cell) => sum + cell.count, 0);
    const sum = (of: "lat" | "lon") => cells.reduce((total, cell) => total + cell[of], 0) / count;
    const corners = cells.flatMap(({ bounds: [west, south, east, north] }): [number, number][] => [
      [west - MARGIN, south - MARGIN],
      [east + MARGIN, south - MARGIN],
      [east + MARGIN, north + MARGIN],
      [west - MARGIN, north + MARGIN],
    ]);
    return { at: { lat: sum("lat"), lon: sum("lon") }, rings: [hullOf(corners)] };
  }

  /** All cells but small heaps of them that lie apart. */
  #together(): Cell[] {
    const left = new Set(this.#cells.keys());
    const kept: Cell[] = [];
    let largest: Cell[] = [];
    let most = 0;
    for (const start of this.#cells.keys()) {
      if (!left.delete(start)) continue;
      const heap = [start];
      for (let i = 0; i < heap.length; i++)
        for (let row = -2; row <= 2; row++)
          for (let column = -2; column <= 2; column++) {
            const next = heap[i] + row * COLUMNS + column;
            if (left.delete(next)) heap.push(next);
          }
      const cells = heap.map((name) => this.#cells.get(name)!);
      const count = cells.reduce((sum, cell) => sum + cell.count, 0);
      if (count > most) [largest, most] = [cells, count];
      if (count > this.count * STRAY) for (const cell of cells) kept.push(cell);
    }
    return kept.length ? kept : largest;
  }
}

/** The convex hull, closed, counter-clockwise (Andrew's monotone chain). */
function hullOf(points: readonly (readonly [number, number])[]): Ring {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const chain = (list: readonly (readonly [number, number])[]) => {
    const half: (readonly [number, number])[] = [];
    for (const point of list) {
      while (half.length > 1 && turn(half[half.length - 2], half[half.length - 1], point) <= 0) half.pop();
      half.push(point);
    }
    return half.slice(0, -1);
  };
  const ring = [...chain(sorted), ...chain(sorted.toReversed())];
  return [...ring, ring[0]].map(([lon, lat]): [number, number] => [lon, lat]);
}

function turn(a: readonly [number, number], b: readonly [number, number], c: readonly [number, number]): number {
  return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
}
