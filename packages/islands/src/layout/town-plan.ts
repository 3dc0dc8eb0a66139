import type { Grid } from "../ground/grid.ts";
import { distance, type Point } from "../ground/plane.ts";
import { noise, type Random } from "../random.ts";
import type { Site } from "./sites.ts";

/** A line of a town's plan between crossings. */
interface Run {
  points: Point[];
  /** 2 is a main street, 3 a street, 4 a lane. */
  rank: 2 | 3 | 4;
}

/** The streets, blocks and parks of one town. */
export interface TownPlan {
  runs: Run[];
  /** Corners of the blocks between streets. */
  blocks: Point[][];
  parks: Point[][];
}

/** Sides of a block in metres, along and across the slope. */
const ALONG = 96;
const ACROSS = 74;

/**
 * Lays out a town: a lattice that follows the ground (rows along the slope's contour), bent by noise, cut off at the
 * water, at steep ground and at the town's edge, with gaps and parks.
 */
export function planTown(heights: Grid, site: Site, seed: number, random: Random): TownPlan {
  const slope = heights.gradient(site.at, 500);
  const turn = Math.atan2(slope.y, slope.x) + Math.PI / 2 + random.between(-0.2, 0.2);
  const reach = Math.ceil((site.radius * 1.35) / ACROSS);
  const size = 2 * reach + 1;
  const place = (i: number, j: number): Point => {
    const u = (i - reach) * ALONG;
    const v = (j - reach) * ACROSS;
    const bend = 150;
    const bu = u + bend * (noise(u / 520, v / 520, seed) - 0.5);
    const bv = v + bend * (noise(u / 480 + 9, v / 480, seed + 5) - 0.5);
    return {
      x: site.at.x + bu * Math.cos(turn) - bv * Math.sin(turn),
      y: site.at.y + bu * Math.sin(turn) + bv * Math.cos(turn),
    };
  };
  const isIn: boolean[] = [];
  for (let j = 0; j < size; j++) for (let i = 0; i < size; i++) isIn.push(canBuild(heights, site, place(i, j), seed));
  const at = (i: number, j: number) => i >= 0 && j >= 0 && i < size && j < size && isIn[j * size + i];
  const parkOf = pickParks(size, at, random);
  const open = lattice(size, at, parkOf, random);
  return {
    runs: [
      ...walk(
        size,
        (k, n) => open.row(k, n),
        (k, n, t) => place(k + t, n),
        random,
      ),
      ...walk(
        size,
        (k, n) => open.column(n, k),
        (k, n, t) => place(n, k + t),
        random,
      ),
    ],
    ...cells(size, at, parkOf, place),
  };
}

function canBuild(heights: Grid, site: Site, point: Point, seed: number): boolean {
  const away = distance(point, site.at) / site.radius;
  const turn = Math.atan2(point.y - site.at.y, point.x - site.at.x);
  const edge = 0.72 + 0.6 * noise(2.2 * Math.cos(turn) + 50, 2.2 * Math.sin(turn) + 50, seed + 3);
  if (away > edge || heights.sample(point) < 1.2) return false;
  const { x, y } = heights.gradient(point, 60);
  return x * x + y * y < 0.06;
}

/** Blocks that are parks instead: a few, larger ones near the middle. */
function pickParks(size: number, at: (i: number, j: number) => boolean, random: Random): Set<number> {
  const parks = new Set<number>();
  for (let tries = 0; tries < size / 2; tries++) {
    const i = random.integer(1, size - 4);
    const j = random.integer(1, size - 4);
    const wide = random.integer(1, 2);
    const high = random.integer(1, 2);
    if (!at(i, j) || !at(i + wide, j + high) || random.chance(0.55)) continue;
    for (let a = 0; a < wide; a++) for (let b = 0; b < high; b++) parks.add((j + b) * size + i + a);
  }
  return parks;
}

/** Which pieces of the lattice are open: most, fewer towards the edges; never through a park. */
function lattice(size: number, at: (i: number, j: number) => boolean, parks: Set<number>, random: Random) {
  const rows = new Set<number>();
  const columns = new Set<number>();
  const isPark = (i: number, j: number) => parks.has(j * size + i);
  for (let j = 0; j < size; j++) {
    for (let i = 0; i < size; i++) {
      const keepRow = j % 4 === 0 || !random.chance(0.1);
      if (at(i, j) && at(i + 1, j) && keepRow && !(isPark(i, j) && isPark(i, j - 1))) rows.add(j * size + i);
      const keepColumn = i % 4 === 0 || !random.chance(0.16);
      if (at(i, j) && at(i, j + 1) && keepColumn && !(isPark(i, j) && isPark(i - 1, j))) columns.add(j * size + i);
    }
  }
  return {
    row: (i: number, j: number) => rows.has(j * size + i),
    column: (i: number, j: number) => columns.has(j * size + i),
  };
}

/** Joins open pieces in one direction into streets of a few pieces each. */
function walk(
  size: number,
  isOpen: (k: number, n: number) => boolean,
  place: (k: number, n: number, t: number) => Point,
  random: Random,
): Run[] {
  const runs: Run[] = [];
  for (let n = 0; n < size; n++) {
    const isMain = n % 4 === 0;
    for (let k = 0; k < size; k++) {
      if (!isOpen(k, n)) continue;
      const most = isMain ? random.integer(6, 14) : random.integer(2, 6);
      const points = [place(k, n, 0)];
      let pieces = 0;
      while (pieces < most && isOpen(k + pieces, n)) {
        for (const t of [0.25, 0.5, 0.75, 1]) points.push(place(k + pieces, n, t));
        pieces++;
      }
      runs.push({ points, rank: isMain ? 2 : pieces > 2 ? 3 : 4 });
      k += pieces - 1;
    }
  }
  return runs;
}

function cells(
  size: number,
  at: (i: number, j: number) => boolean,
  parks: Set<number>,
  place: (i: number, j: number) => Point,
) {
  const blocks: Point[][] = [];
  const green: Point[][] = [];
  for (let j = 0; j < size - 1; j++) {
    for (let i = 0; i < size - 1; i++) {
      if (!(at(i, j) && at(i + 1, j) && at(i + 1, j + 1) && at(i, j + 1))) continue;
      const rim: Point[] = [];
      for (const t of [0, 0.25, 0.5, 0.75]) rim.push(place(i + t, j));
      for (const t of [0, 0.25, 0.5, 0.75]) rim.push(place(i + 1, j + t));
      for (const t of [0, 0.25, 0.5, 0.75]) rim.push(place(i + 1 - t, j + 1));
      for (const t of [0, 0.25, 0.5, 0.75]) rim.push(place(i, j + 1 - t));
      (parks.has(j * size + i) ? green : blocks).push(rim);
    }
  }
  return { blocks, parks: green };
}
