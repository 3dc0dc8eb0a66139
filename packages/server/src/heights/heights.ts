import { type HeightGrid, heightOn, type Position } from "@bibliotope/core/geo";
import type { Knex } from "knex";
import { readHeightGrids } from "./height-grids.repository.ts";

/** Heights of the published data sets, in memory. */
export class Heights {
  #grids: HeightGrid[] | undefined;

  constructor(private readonly database: Knex) {}

  /** Reads the grids of some versions; until it is done, the ones before answer. */
  async load(versions: readonly number[]): Promise<void> {
    this.#grids = await readHeightGrids(this.database, versions);
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
}
