import type { Grid } from "./grid.ts";
import { Heap } from "./heap.ts";
import type { Point } from "./plane.ts";
import { AROUND } from "./rivers.ts";

/** What a step costs: dear uphill, dearer over water, so that borders follow ridges and roads the valleys. */
function stepCost(
  heights: Grid,
  from: number,
  to: number,
  diagonal: boolean,
  { water, climb = 140 }: { water: number; climb?: number },
): number {
  const length = heights.cell * (diagonal ? Math.SQRT2 : 1);
  const rise = Math.abs(heights.values[to] - heights.values[from]) / length;
  return length * (1 + 14 * rise * rise * (climb / 14) + (heights.values[to] <= 0 ? water : 0));
}

/**
 * Spreads from several points at once over the cheapest ways.
 * @param reach cost at which it stops
 * @param water what a metre over water costs more
 * @param climb how dear a rise is; as for a road when not given
 * @returns for each cell the number of the point it belongs to, or -1, and the cell it was reached from
 */
export function spread(heights: Grid, starts: readonly Point[], reach: number, water: number, climb?: number) {
  const owner = new Int16Array(heights.values.length).fill(-1);
  const from = new Int32Array(heights.values.length).fill(-1);
  const cost = new Float64Array(heights.values.length).fill(Infinity);
  const heap = new Heap();
  starts.forEach((start, i) => {
    const cell = heights.indexAt(start);
    owner[cell] = i;
    cost[cell] = 0;
    heap.push(cell, 0);
  });
  for (let item = heap.pop(); item; item = heap.pop()) {
    if (item.cost > cost[item.cell]) continue;
    const c = item.cell % heights.columns;
    const r = Math.floor(item.cell / heights.columns);
    for (const [dc, dr] of AROUND) {
      if (c + dc < 0 || r + dr < 0 || c + dc >= heights.columns || r + dr >= heights.rows) continue;
      const next = item.cell + dr * heights.columns + dc;
      const total = item.cost + stepCost(heights, item.cell, next, dc !== 0 && dr !== 0, { water, climb });
      if (total >= cost[next] || total > reach) continue;
      cost[next] = total;
      owner[next] = owner[item.cell];
      from[next] = item.cell;
      heap.push(next, total);
    }
  }
  return { owner, from, cost };
}
