import { type Position, project, TILE } from "../geo/index.ts";
import type { Frame } from "./clip.ts";
import { PointGrid } from "./point-grid.ts";
import { LEAST_ZOOM } from "./view.ts";

/** Markers nearer to each other than these CSS pixels stand in one group. */
const REACH = 46;
/** From this zoom on every marker is alone. */
const ALONE_ZOOM = 17;

/** A group that has at most this share of the markers left has come apart: one marker less is not worth a press. */
const LEFT = 0.75;

/** The kind of a group of several kinds. */
const MIXED = -1;

/** Markers that stand together at some zoom; one alone has a count of 1. */
export interface MarkerGroup {
  /** Middle of the markers, on the projected square. */
  x: number;
  y: number;
  count: number;
  /** Place in the list of the marker that it is known by; of a group of one, the marker. */
  first: number;
  /** The kind that all of the markers are of; undefined when they are of several. */
  kind?: number;
  /** Mean of those of the markers that have a value; undefined when none has. */
  mean?: number;
}

/** Groups of one zoom, as columns. */
interface Level {
  x: Float64Array;
  y: Float64Array;
  count: Uint32Array;
  first: Uint32Array;
  kind: Int32Array;
  /** Sum of the values, and of how many markers. */
  sum: Float64Array;
  known: Uint32Array;
  /** Finds those in sight. */
  grid?: PointGrid;
}

/**
 * Groups markers by their distance on the screen. The groups of a zoom are made of complete groups of the next closer one,
 * so that going closer only ever takes groups apart, and they depend on nothing but the list, so that they stay while
 * the map is moved.
 */
export class MarkerGroups {
  /** By zoom, from the closest on. */
  readonly #levels = new Map<number, Level>();
  readonly #joiner: Joiner;

  /**
   * @param kinds an integer from 0 on for each, such as its colour's; all of one kind when not given
   * @param values of each, of which groups have a mean; NaN for one that has none
   */
  constructor(positions: readonly Position[], kinds?: ArrayLike<number>, values?: ArrayLike<number>) {
    const level = emptyLevel(positions.length);
    for (let i = 0; i < positions.length; i++) {
      const { x, y } = project(positions[i]);
      level.x[i] = x;
      level.y[i] = y;
      level.count[i] = 1;
      level.first[i] = i;
      if (!values || Number.isNaN(values[i])) continue;
      level.sum[i] = values[i];
      level.known[i] = 1;
    }
    if (kinds) level.kind.set(kinds);
    this.#joiner = new Joiner(positions.length);
    this.#levels.set(ALONE_ZOOM, level);
  }

  /**
   * The groups of a zoom, or of the integer zoom below it.
   * @param frame part of the projected square that they lie in, beyond its edges in the next copy of the world; all
   * when not given
   */
  at(zoom: number, frame?: Frame): MarkerGroup[] {
    const level = this.#level(Math.max(0, Math.min(ALONE_ZOOM, Math.floor(zoom))));
    const { x, y, count, first, kind, sum, known } = level;
    const group = (i: number): MarkerGroup => ({
      x: x[i],
      y: y[i],
      count: count[i],
      first: first[i],
      ...(kind[i] === MIXED ? {} : { kind: kind[i] }),
      ...(known[i] ? { mean: sum[i] / known[i] } : {}),
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

  /** The zoom at which a group, known by its first marker and its count, comes apart: its first part has lost a quarter. */
  apartAt({ first, count }: Pick<MarkerGroup, "first" | "count">): number {
    for (let zoom = LEAST_ZOOM; zoom < ALONE_ZOOM; zoom++) {
      const level = this.#level(zoom);
      const place = level.first.indexOf(first);
      if (place >= 0 && level.count[place] <= LEFT * count) return zoom;
    }
    return ALONE_ZOOM;
  }

  /** The zoom from which a marker, by place in the list, is alone. */
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
      level = this.#joiner.joined(this.#level(zoom + 1), REACH / (TILE * 2 ** zoom));
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
    sum: new Float64Array(length),
    known: new Uint32Array(length),
  };
}

/**
 * Joins what is nearer than a reach. It sorts points by square cells in a hash table, so that those of a cell stand
 * side by side in memory, and keeps its own memory from zoom to zoom: requesting new takes as long as the joining.
 */
class Joiner {
  readonly #slots: Uint32Array;
  /** Where the points of each slot begin; several cells may share a slot. */
  readonly #begins: Uint32Array;
  readonly #sorted: Level;
  readonly #isTaken: Uint8Array;
  readonly #groups: Level;

  /** @param most points in a level */
  constructor(most: number) {
    this.#slots = new Uint32Array(most);
    this.#begins = new Uint32Array(maskOf(most) + 2);
    this.#sorted = emptyLevel(most);
    this.#isTaken = new Uint8Array(most);
    this.#groups = emptyLevel(most);
  }

  /** The groups of a level: each point with all within a reach around it that nothing before it took. */
  joined(level: Level, reach: number): Level {
    const total = level.x.length;
    const mask = maskOf(total);
    // a cell is twice as wide as a reach: what a point reaches lies in four of them
    const cells = 1 / (2 * reach);
    this.#sort(level, cells, mask);
    const { x, y, count, first, kind, sum: values, known } = this.#sorted;
    const begins = this.#begins;
    const isTaken = this.#isTaken.fill(0, 0, total);
    const groups = this.#groups;
    const square = reach * reach;
    let made = 0;
    for (let i = 0; i < total; i++) {
      if (isTaken[i]) continue;
      const atX = x[i];
      const atY = y[i];
      const column = ((atX * cells + 0.5) | 0) - 1;
      const row = ((atY * cells + 0.5) | 0) - 1;
      let sumX = 0;
      let sumY = 0;
      let sum = 0;
      let own = kind[i];
      let value = 0;
      let valued = 0;
      for (let cell = 0; cell < 4; cell++) {
        const slot = slotOf(column + (cell & 1), row + (cell >> 1), mask);
        const end = begins[slot + 1];
        for (let j = begins[slot]; j < end; j++) {
          if (isTaken[j]) continue;
          const dx = x[j] - atX;
          const dy = y[j] - atY;
          if (dx * dx + dy * dy > square) continue;
          isTaken[j] = 1;
          sumX += x[j] * count[j];
          sumY += y[j] * count[j];
          sum += count[j];
          value += values[j];
          valued += known[j];
          if (kind[j] !== own) own = MIXED;
        }
      }
      groups.x[made] = sumX / sum;
      groups.y[made] = sumY / sum;
      groups.count[made] = sum;
      groups.first[made] = first[i];
      groups.kind[made] = own;
      groups.sum[made] = value;
      groups.known[made] = valued;
      made++;
    }
    return {
      x: groups.x.slice(0, made),
      y: groups.y.slice(0, made),
      count: groups.count.slice(0, made),
      first: groups.first.slice(0, made),
      kind: groups.kind.slice(0, made),
      sum: groups.sum.slice(0, made),
      known: groups.known.slice(0, made),
    };
  }

  #sort({ x, y, count, first, kind, sum, known }: Level, cells: number, mask: number): void {
    const total = x.length;
    const slots = this.#slots;
    const sorted = this.#sorted;
    const begins = this.#begins.fill(0, 0, mask + 2);
    for (let i = 0; i < total; i++) {
      const slot = slotOf((x[i] * cells) | 0, (y[i] * cells) | 0, mask);
      slots[i] = slot;
      begins[slot]++;
    }
    for (let slot = 0, before = 0; slot <= mask + 1; slot++) begins[slot] = before += begins[slot];
    // from the last on, so that those of a slot stay in order
    for (let i = total - 1; i >= 0; i--) {
      const at = --begins[slots[i]];
      sorted.x[at] = x[i];
      sorted.y[at] = y[i];
      sorted.count[at] = count[i];
      sorted.first[at] = first[i];
      sorted.kind[at] = kind[i];
      sorted.sum[at] = sum[i];
      sorted.known[at] = known[i];
    }
  }
}

/** The last slot of a hash table for so many points, all bits of it set. */
function maskOf(total: number): number {
  return 2 ** Math.ceil(Math.log2(Math.max(2, 2 * total))) - 1;
}

/** Slot of a cell in the hash table: neighbours in a row stay neighbours in memory. */
function slotOf(column: number, row: number, mask: number): number {
  return (column + Math.imul(row, 0x9e3779b1)) & mask;
}
