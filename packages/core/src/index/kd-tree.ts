import { type Position, sphereDistance } from "../geo/index.ts";
import { SCALE } from "./layout.ts";

/** Points of a tree, in 1e-7 degrees, and their numbers in tree order. */
export interface PointTree {
  ids: Uint32Array;
  lat: Int32Array;
  lon: Int32Array;
}

/** Ranges this short are not cut further. */
const LEAF = 16;

/** Orders the points into a balanced k-d tree, the middle of every range being its node; longitudes cut first. */
export function buildPointTree(lat: Int32Array, lon: Int32Array): Uint32Array<ArrayBuffer> {
  const ids = Uint32Array.from(lat, (_, i) => i);
  const stack: [left: number, right: number, axis: number][] = [[0, ids.length - 1, 0]];
  for (let range = stack.pop(); range; range = stack.pop()) {
    const [left, right, axis] = range;
    if (right - left <= LEAF) continue;
    const middle = (left + right) >>> 1;
    select(ids, middle, left, right, axis === 0 ? lon : lat);
    stack.push([left, middle - 1, 1 - axis], [middle + 1, right, 1 - axis]);
  }
  return ids;
}

/** Quickselect with the pivot in the middle: after it, ids[k] is where it would stand in a sorted range. */
function select(ids: Uint32Array, k: number, left: number, right: number, values: Int32Array): void {
  while (right > left) {
    const pivot = values[ids[(left + right) >>> 1]];
    let i = left;
    let j = right;
    while (i <= j) {
      while (values[ids[i]] < pivot) i++;
      while (values[ids[j]] > pivot) j--;
      if (i <= j) {
        const swapped = ids[i];
        ids[i++] = ids[j];
        ids[j--] = swapped;
      }
    }
    if (k <= j) right = j;
    else if (k >= i) left = i;
    else return;
  }
}

/**
 * The points nearest to a position on the sphere, nearest first.
 * @param radius metres
 * @param limit how many at most
 * @param allows which points count; all when left out
 * @returns numbers of points and their spherical distances in metres
 */
export function nearestPoints(
  tree: PointTree,
  at: Position,
  radius: number,
  limit: number,
  allows?: (id: number) => boolean,
): { id: number; metres: number }[] {
  const found: { id: number; metres: number }[] = [];
  const reach = () => (found.length < limit ? radius : Math.min(radius, found[found.length - 1].metres));
  const visit = (index: number) => {
    const id = tree.ids[index];
    const metres = sphereDistance(at, { lat: tree.lat[id] / SCALE, lon: tree.lon[id] / SCALE });
    if (metres > reach() || allows?.(id) === false) return;
    let place = found.length;
    while (place > 0 && isBefore(metres, id, found[place - 1])) place--;
    found.splice(place, 0, { id, metres });
    if (found.length > limit) found.pop();
  };
  const search = (left: number, right: number, axis: number) => {
    if (left > right) return;
    if (right - left <= LEAF) {
      for (let i = left; i <= right; i++) visit(i);
      return;
    }
    const middle = (left + right) >>> 1;
    visit(middle);
    const cut = (axis === 0 ? tree.lon : tree.lat)[tree.ids[middle]] / SCALE;
    const lower = axis === 0 ? at.lon < cut : at.lat < cut;
    const [near, far] = lower
      ? ([
          [left, middle - 1],
          [middle + 1, right],
        ] as const)
      : ([
          [middle + 1, right],
          [left, middle - 1],
        ] as const);
    search(near[0], near[1], 1 - axis);
    const gap = axis === 0 ? metresToMeridian(at, cut) : metresToParallel(at, cut);
    if (gap <= reach()) search(far[0], far[1], 1 - axis);
  };
  search(0, tree.ids.length - 1, 0);
  return found;
}

function isBefore(metres: number, id: number, other: { id: number; metres: number }): boolean {
  return metres < other.metres || (metres === other.metres && id < other.id);
}

function metresToParallel(at: Position, lat: number): number {
  return sphereDistance(at, { lat, lon: at.lon });
}

/** Shortest way to a meridian, or to the 180th, behind which the other side may lie. */
function metresToMeridian(at: Position, lon: number): number {
  const across = (to: number) => {
    const turn = (Math.min(90, Math.abs(to - at.lon)) * Math.PI) / 180;
    return 6371008.8 * Math.asin(Math.min(1, Math.cos((at.lat * Math.PI) / 180) * Math.sin(turn)));
  };
  return Math.min(across(lon), across(at.lon < lon ? -180 : 180));
}
