import { type Position, project, TILE } from "../geo/index.ts";
import type { Frame } from "./clip.ts";
import { PointGrid } from "./point-grid.ts";
import { LEAST_ZOOM } from "./view.ts";

/** Markers nearer to each other than these CSS pixels stand in one group. */
const REACH = 46;
/** From this zoom on every marker stands alone. */
const ALONE_ZOOM = 17;

/** The kind of a group of several kinds. */
const MIXED = -1;

/** Markers that stand together at some zoom; one alone has a count of 1. */
export interface MarkerGroup {
  /** Middle of its markers, on the projected square. */
  x: number;
  y: number;
  count: number;
  /** Place in the list of the marker that it is known by; of a group of one, the marker. */
  first: number;
  /** The kind that all of its markers are of; undefined when they are of several. */
  kind?: number;
}

/** Groups of one zoom, as columns. */
interface Level {
  x: Float64Array;
  y: Float64Array;
  count: Uint32Array;
  first: Uint32Array;
  kind: Int32Array;
  /** Finds those in sight. */
  grid?: PointGrid;
}

/**
 * Groups markers by their distance on the screen. The groups of a zoom are made of whole groups of the next closer one,
 * so that going closer only ever takes groups apart, and they depend on nothing but the list, so that they stay while
 * the map is moved.
 */
export class MarkerGroups {
  /** By zoom, from the closest on. */
  readonly #levels = new Map<number, Level>();

  /** @param kinds a whole number from nought on for each, such as its colour's; all of one kind when not given */
  constructor(positions: readonly Position[], kinds?: ArrayLike<number>) {
    const [x, y] = [new Float64Array(positions.length), new Float64Array(positions.length)];
    positions.forEach((position, i) => {
      ({ x: x[i], y: y[i] } = project(position));
    });
    const level = emptyLevel(positions.length);
    // neighbours on the ground become neighbours in memory: joining takes half the time
    level.first.set(new PointGrid(x, y).points);
    level.first.forEach((place, i) => {
      level.x[i] = x[place];
      level.y[i] = y[place];
      level.kind[i] = kinds?.[place] ?? 0;
    });
    level.count.fill(1);
    this.#levels.set(ALONE_ZOOM, level);
  }

  /**
   * The groups of a zoom, or of the whole one below it.
   * @param frame part of the projected square that they lie in, beyond its edges in the next copy of the world; all
   * when not given
   */
  at(zoom: number, frame?: Frame): MarkerGroup[] {
    const level = this.#level(Math.max(0, Math.min(ALONE_ZOOM, Math.floor(zoom))));
    const { x, y, count, first, kind } = level;
    const group = (i: number): MarkerGroup => ({
      x: x[i],
      y: y[i],
      count: count[i],
      first: first[i],
      ...(kind[i] === MIXED ? {} : { kind: kind[i] }),
    });
    if (!frame) return Array.from(x, (_, i) => group(i));
    level.grid ??= new PointGrid(x, y);
    // a frame as broad as the world meets each group once, whatever copy it is of
    if (frame.right - frame.left >= 1)
      return level.grid.within({ ...frame, left: -Infinity, right: Infinity }).map(group);
    const copies = [0];
    if (frame.left < 0) copies.push(1);
    if (frame.right > 1) copies.push(-1);
    return copies.flatMap((copy) =>
      level.grid!.within({ ...frame, left: frame.left + copy, right: frame.right + copy }).map(group),
    );
  }

  /** Makes the groups of all zooms ready, so that no move of the map has to wait for them. */
  prepare(): this {
    this.#level(LEAST_ZOOM);
    for (const level of this.#levels.values()) level.grid ??= new PointGrid(level.x, level.y);
    return this;
  }

  /** The zoom at which a group, known by its first marker and its count, comes apart. */
  apartAt({ first, count }: Pick<MarkerGroup, "first" | "count">): number {
    for (let zoom = LEAST_ZOOM; zoom < ALONE_ZOOM; zoom++) {
      const level = this.#level(zoom);
      const place = level.first.indexOf(first);
      if (place >= 0 && level.count[place] < count) return zoom;
    }
    return ALONE_ZOOM;
  }

  /** The zoom from which a marker, by its place in the list, stands alone. */
  aloneAt(marker: number): number {
    for (let zoom = LEAST_ZOOM; zoom < ALONE_ZOOM; zoom++) {
      const level = this.#level(zoom);
      const place = level.first.indexOf(marker);
      if (place >= 0 && level.count[place] === 1) return zoom;
    }
    return ALONE_ZOOM;
  }

  #level(zoom: number): Level {
    let level = this.#levels.get(zoom);
    if (!level) {
      level = joined(this.#level(zoom + 1), REACH / (TILE * 2 ** zoom));
      this.#levels.set(zoom, level);
    }
    return level;
  }
}

function emptyLevel(length: number): Level {
  return {
    x: new Float64Array(length),
    y: new Float64Array(length),
    count: new Uint32Array(length),
    first: new Uint32Array(length),
    kind: new Int32Array(length),
  };
}

/** Joins what stands nearer than a reach, each with all around it that nothing before it took. */
function joined({ x, y, count, first, kind }: Level, reach: number): Level {
  const total = x.length;
  // twice as wide as a reach: what a point reaches lies in four of them
  const side = 2 * reach;
  const cells = new Cells(x, y, side);
  const isTaken = new Uint8Array(total);
  const level = emptyLevel(total);
  let groups = 0;
  for (let i = 0; i < total; i++) {
    if (isTaken[i]) continue;
    const column = Math.round(x[i] / side) - 1;
    const row = Math.round(y[i] / side) - 1;
    let sumX = 0;
    let sumY = 0;
    let sum = 0;
    let its = kind[i];
    for (let cell = 0; cell < 4; cell++) {
      // written out: a call for each point takes twice as long
      for (let j = cells.firstIn(column + (cell & 1), row + (cell >> 1)); j >= 0; j = cells.next[j]) {
        if (isTaken[j] || (x[j] - x[i]) ** 2 + (y[j] - y[i]) ** 2 > reach * reach) continue;
        isTaken[j] = 1;
        sumX += x[j] * count[j];
        sumY += y[j] * count[j];
        sum += count[j];
        if (kind[j] !== its) its = MIXED;
      }
    }
    level.x[groups] = sumX / sum;
    level.y[groups] = sumY / sum;
    level.count[groups] = sum;
    level.first[groups] = first[i];
    level.kind[groups] = its;
    groups++;
  }
  return {
    x: level.x.slice(0, groups),
    y: level.y.slice(0, groups),
    count: level.count.slice(0, groups),
    first: level.first.slice(0, groups),
    kind: level.kind.slice(0, groups),
  };
}

/** Points in square cells: a hash table of the cells, with a chain of points in each. */
class Cells {
  /** The next point of the chain that each point is in, or -1. */
  readonly next: Int32Array;
  readonly #mask: number;
  readonly #head: Int32Array;

  constructor(x: Float64Array, y: Float64Array, side: number) {
    const size = 2 ** Math.ceil(Math.log2(Math.max(2, 2 * x.length)));
    this.#mask = size - 1;
    this.#head = new Int32Array(size).fill(-1);
    this.next = new Int32Array(x.length);
    // from the last on, so that each chain goes from the first to the last
    for (let i = x.length - 1; i >= 0; i--) {
      const slot = this.#slot(Math.floor(x[i] / side), Math.floor(y[i] / side));
      this.next[i] = this.#head[slot];
      this.#head[slot] = i;
    }
  }

  /** First point of the chain of a cell, or -1; points of other cells may be in it too. */
  firstIn(column: number, row: number): number {
    return this.#head[this.#slot(column, row)];
  }

  #slot(column: number, row: number): number {
    // neighbours in a row stay neighbours in memory
    return (column + Math.imul(row, 0x9e3779b1)) & this.#mask;
  }
}
