import { type HeightGrid, heightOn, type Position, unproject } from "@bibliotope/core/geo";
import type { TileHeightsAnswer } from "@bibliotope/wire";
import type { Knex } from "knex";
import { readHeightGrids } from "./height-grids.repository.ts";

/** Points to a side of a tile's grid, both edges included. */
const SIDE = 33;

/** Heights of the published data sets, in memory that all threads share. */
export class Heights {
  #grids: readonly HeightGrid[] | undefined;
  readonly #own: readonly HeightGrid[];

  /** @param own grids of the developer's, which know better than those of data sets */
  constructor(own: readonly HeightGrid[] = []) {
    this.#own = own.map(inSharedMemory);
  }

  /** Reads the grids of some versions; until it is done, the ones before answer. */
  async load(database: Knex, versions: readonly number[]): Promise<void> {
    const grids = await readHeightGrids(database, versions);
    this.#grids = [...this.#own, ...grids.map(inSharedMemory)];
  }

  /** Answers from grids that another thread has read. */
  take(grids: readonly HeightGrid[]): void {
    this.#grids = grids;
  }

  /** All grids, best first: what another thread can answer from. */
  get grids(): readonly HeightGrid[] {
    return this.#grids ?? [];
  }

  /** False until grids were read. */
  get isReady(): boolean {
    return this.#grids !== undefined;
  }

  /** Metres above the sea, from the first grid that knows; null where none does. */
  at(position: Position): number | null {
    for (const grid of this.#grids ?? []) {
      const metres = heightOn(grid, position);
      if (metres !== undefined) return Math.round(metres * 10) / 10;
    }
    return null;
  }

  /** Heights of a tile's ground, row by row from the north-west. */
  tile({ z, x, y }: { z: number; x: number; y: number }): TileHeightsAnswer {
    const metres = Array.from({ length: SIDE * SIDE }, (_, i) => {
      const [column, row] = [i % SIDE, Math.floor(i / SIDE)];
      return this.at(unproject({ x: (x + column / (SIDE - 1)) / 2 ** z, y: (y + row / (SIDE - 1)) / 2 ** z }));
    });
    return { columns: SIDE, rows: SIDE, metres };
  }
}

function inSharedMemory(grid: HeightGrid): HeightGrid {
  const metres = new Float32Array(new SharedArrayBuffer(grid.metres.byteLength));
  metres.set(grid.metres);
  return { ...grid, metres };
}
