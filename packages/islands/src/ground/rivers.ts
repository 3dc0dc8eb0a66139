import type { Grid } from "./grid.ts";
import { Heap } from "./heap.ts";
import type { Point } from "./plane.ts";

/** A river from the source to the sea; flow is the number of cells that drain into its end. */
export interface River {
  points: Point[];
  flow: number;
}

/** Cells that must drain into one before it is called a river. */
const SOURCE = 420;

/** Rivers run downhill everywhere: hollows are filled first (priority flood, Barnes et al. 2014). */
export function findRivers(heights: Grid): River[] {
  const down = drainage(heights);
  const flow = new Uint32Array(heights.values.length).fill(1);
  for (const cell of down.order.toReversed()) {
    const to = down.to[cell];
    if (to >= 0) flow[to] += flow[cell];
  }
  const isSource = (cell: number) => heights.values[cell] > 0 && flow[cell] >= SOURCE;
  const fed = new Uint8Array(flow.length);
  for (const cell of down.order) if (isSource(cell) && down.to[cell] >= 0) fed[down.to[cell]] = 1;
  const taken = new Uint8Array(flow.length);
  const sources = [...down.order]
    .filter((cell) => isSource(cell) && !fed[cell])
    .sort((a, b) => heights.values[b] - heights.values[a] || a - b);
  const rivers: River[] = [];
  for (const source of sources) {
    const points: Point[] = [];
    let end = source;
    for (let cell = source; cell >= 0; cell = down.to[cell]) {
      points.push(heights.point(cell % heights.columns, Math.floor(cell / heights.columns)));
      end = cell;
      if (taken[cell] || heights.values[cell] < -3) break;
      taken[cell] = 1;
    }
    if (points.length > 6) rivers.push({ points, flow: flow[end] });
  }
  return rivers;
}

/** For each cell the neighbour it drains to, and the cells from the sea upwards. */
function drainage(heights: Grid): { to: Int32Array; order: number[] } {
  const { columns, rows, values } = heights;
  const to = new Int32Array(values.length).fill(-1);
  const seen = new Uint8Array(values.length);
  const order: number[] = [];
  const heap = new Heap();
  for (let cell = 0; cell < values.length; cell++) {
    if (values[cell] <= 0) {
      seen[cell] = 1;
      if (touchesLand(heights, cell)) heap.push(cell, values[cell]);
    }
  }
  for (let item = heap.pop(); item; item = heap.pop()) {
    order.push(item.cell);
    const c = item.cell % columns;
    const r = Math.floor(item.cell / columns);
    for (const [dc, dr] of AROUND) {
      if (c + dc < 0 || r + dr < 0 || c + dc >= columns || r + dr >= rows) continue;
      const other = item.cell + dr * columns + dc;
      if (seen[other]) continue;
      seen[other] = 1;
      to[other] = item.cell;
      heap.push(other, Math.max(values[other], item.cost + 0.01));
    }
  }
  return { to, order };
}

function touchesLand({ columns, rows, values }: Grid, cell: number): boolean {
  const c = cell % columns;
  const r = Math.floor(cell / columns);
  return AROUND.some(
    ([dc, dr]) =>
      c + dc >= 0 && r + dr >= 0 && c + dc < columns && r + dr < rows && values[cell + dr * columns + dc] > 0,
  );
}

export const AROUND = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
  [1, 1],
  [-1, 1],
  [-1, -1],
  [1, -1],
] as const;
