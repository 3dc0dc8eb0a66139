import { metresPerPixel, project, type Ring, TILE, unproject } from "@bibliotope/core/geo";
import { blur2 } from "d3-array";
import { contours } from "d3-contour";

type Pair = [lon: number, lat: number];

/** How an outline is drawn around spots. */
export interface Drawing {
  /** Metres of the side of a cell of the grid on which spots are counted. */
  cell: number;
  /** Cells over which each is spread. */
  spread: number;
  /** Share of the cells around that must hold something, from which one is inside. */
  least: number;
}

/** Where houses stand close enough to be a town, and where there must be land since something is on it. */
export const TOWN: Drawing = { cell: 60, spread: 2, least: 0.055 };
export const LAND: Drawing = { cell: 400, spread: 3, least: 0.004 };

/** Cells of a grid at most: where spots reach farther without a gap, cells are larger. */
const MOST_CELLS = 2_000_000;
/** Cells between spots from which they are looked at apart. */
const APART = 8;

/** Outlines around spots that are close to each other: polygons, each an outer ring and its holes. */
export function outlinesAround(spots: readonly Pair[], drawing: Drawing): Ring[][] {
  return groupsOf(spots, drawing.cell).flatMap((group) => outlineAround(group, drawing));
}

/** A spot on the square of the projection, its side 1. */
interface Spot {
  x: number;
  y: number;
}

/** Spots in groups that lie far apart. */
function groupsOf(spots: readonly Pair[], cell: number): Spot[][] {
  const byName = new Map<string, Spot[]>();
  const name = (x: number, y: number) => `${x} ${y}`;
  // cells as many metres wide at every latitude would not join: those of a row are taken at its own latitude's scale
  for (const [lon, lat] of spots) {
    const spot = project({ lat, lon });
    const { column, row } = placeOf(spot, cell * APART);
    const at = name(column, row);
    const own = byName.get(at);
    if (own) own.push(spot);
    else byName.set(at, [spot]);
  }
  const groups: Spot[][] = [];
  for (const first of [...byName.keys()]) {
    const begin = byName.get(first);
    if (!begin) continue;
    byName.delete(first);
    const group = [...begin];
    const waiting = [first];
    for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
      const [column, row] = at.split(" ").map(Number);
      for (let dx = -1; dx <= 1; dx++)
        for (let dy = -1; dy <= 1; dy++) {
          const beside = name(column + dx, row + dy);
          const those = byName.get(beside);
          if (!those) continue;
          byName.delete(beside);
          for (const spot of those) group.push(spot);
          waiting.push(beside);
        }
    }
    groups.push(group);
  }
  return groups;
}

/** Metres of the square's side at the equator. */
const SIDE = TILE * metresPerPixel(0, 0);

function placeOf({ x, y }: Spot, metres: number): { column: number; row: number } {
  const side = metres / SIDE;
  return { column: Math.floor(x / side), row: Math.floor(y / side) };
}

function outlineAround(group: readonly Spot[], { cell, spread, least }: Drawing): Ring[][] {
  let [west, north, east, south] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y } of group) {
    [west, north] = [Math.min(west, x), Math.min(north, y)];
    [east, south] = [Math.max(east, x), Math.max(south, y)];
  }
  const { lat } = unproject({ x: west, y: (north + south) / 2 });
  const margin = 3 * spread + 2;
  let side = cell / (TILE * metresPerPixel(0, lat));
  const across = (from: number, to: number) => Math.ceil((to - from) / side) + 2 * margin + 1;
  while (across(west, east) * across(north, south) > MOST_CELLS) side *= 2;
  const [width, height] = [across(west, east), across(north, south)];
  const data = new Float64Array(width * height);
  for (const { x, y } of group)
    data[(Math.floor((y - north) / side) + margin) * width + Math.floor((x - west) / side) + margin] = 1;
  blur2({ data, width, height }, spread);
  const [{ coordinates }] = contours().size([width, height]).thresholds([least])(data as unknown as number[]);
  return coordinates.map((polygon) =>
    polygon.map((ring) =>
      ring.map(([column, row]): [number, number] => {
        const at = unproject({ x: west + (column - margin) * side, y: north + (row - margin) * side });
        return [at.lon, at.lat];
      }),
    ),
  );
}
