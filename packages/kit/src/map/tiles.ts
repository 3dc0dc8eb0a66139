import type { Label, TileName } from "@bibliotope/core/map";
import { type Painted, type PaintJob, paintJob, type TileLook } from "./paint-job.ts";
import TileWorker from "./tile.worker.ts?worker&inline";

/** A painted tile. */
export interface Tile extends TileName {
  bitmap?: ImageBitmap;
  labels: Label[];
  /** `performance.now()` of the arrival, or of the failing. */
  since?: number;
  failed?: boolean;
  /** True from the first failing until it comes. */
  missing?: boolean;
  /** Why the map is there in place of a picture, and how often in turn. */
  lost?: string;
  losses?: number;
}

interface LoadedTile extends Tile {
  job: number;
  used: number;
}

const KEPT = 160;

/** Tiles of one map: requested once, painted off the main thread, kept while they are near. */
export class Tiles {
  /** Milliseconds until a tile that failed is requested again. */
  static readonly AGAIN = 4000;
  readonly #tiles = new Map<string, LoadedTile>();
  /** Jobs under way, with the tile they are for. */
  readonly #jobs = new Map<number, { key: string; job: PaintJob }>();
  #worker: Worker | undefined;
  /** Tiles painted on the page itself, one after another. */
  #onPage = Promise.resolve();
  #count = 0;
  #clock = 0;

  constructor(
    private readonly urlOf: (z: number, x: number, y: number) => string,
    private readonly arrived: () => void,
    private readonly appearance: TileLook,
  ) {
    this.#worker = makeWorker(
      (painted) => this.#take(painted),
      () => this.#goOnWithout(),
    );
  }

  /** A tile, painted or on the way. */
  get({ z, x, y }: TileName, ratio: number): Tile {
    const key = `${z}/${x}/${y}`;
    let tile = this.#tiles.get(key);
    if (!tile || isDue(tile)) {
      // what is in for a picture stays until that comes
      const { bitmap, labels = [], lost, losses, missing } = tile ?? ({} as Partial<LoadedTile>);
      tile = { z, x, y, labels, job: ++this.#count, used: 0, missing, bitmap, lost, losses };
      this.#tiles.set(key, tile);
      const job = { id: tile.job, url: this.urlOf(z, x, y), z, x, y, ...this.appearance, ratio };
      this.#jobs.set(tile.job, { key, job });
      this.#paint(job);
    }
    tile.used = ++this.#clock;
    return tile;
  }

  /** A tile if it is painted already. */
  peek({ z, x, y }: TileName): Tile | undefined {
    const tile = this.#tiles.get(`${z}/${x}/${y}`);
    return tile?.bitmap && tile;
  }

  /** Lets go of what was not used lately, and of what is on the way but no longer wanted. */
  sweep(wanted: ReadonlySet<string>): void {
    for (const [key, tile] of this.#tiles) {
      if (tile.bitmap || tile.failed || wanted.has(key)) continue;
      this.#worker?.postMessage({ forget: tile.job });
      this.#drop(key, tile);
    }
    if (this.#tiles.size <= KEPT) return;
    const oldest = [...this.#tiles].filter(([key]) => !wanted.has(key)).sort((a, b) => a[1].used - b[1].used);
    for (const [key, tile] of oldest.slice(0, this.#tiles.size - KEPT)) this.#drop(key, tile);
  }

  destroy(): void {
    this.#worker?.terminate();
    for (const [key, tile] of this.#tiles) this.#drop(key, tile);
  }

  #paint(job: PaintJob): void {
    if (this.#worker) this.#worker.postMessage({ paint: job });
    else
      this.#onPage = this.#onPage.then(async () => {
        if (this.#jobs.has(job.id)) this.#take(await paintJob(job, undefined, nextTurn));
      });
  }

  /** The page's policy let no worker start: everything asked so far is painted on the page itself. */
  #goOnWithout(): void {
    this.#worker?.terminate();
    this.#worker = undefined;
    for (const { job } of [...this.#jobs.values()]) this.#paint(job);
  }

  #take(painted: Painted): void {
    const key = this.#jobs.get(painted.id)?.key;
    const tile = key === undefined ? undefined : this.#tiles.get(key);
    this.#jobs.delete(painted.id);
    if (!tile || tile.job !== painted.id) return;
    tile.since = performance.now();
    if ("failed" in painted) {
      // what is in for a picture goes on standing there
      Object.assign(tile, { failed: true, missing: !tile.bitmap });
    } else {
      const { bitmap, labels, lost } = painted;
      tile.bitmap?.close();
      Object.assign(tile, { bitmap, labels, lost, losses: lost ? (tile.losses ?? 0) + 1 : 0, missing: false });
    }
    this.arrived();
  }

  #drop(key: string, tile: LoadedTile): void {
    tile.bitmap?.close();
    this.#jobs.delete(tile.job);
    this.#tiles.delete(key);
  }
}

/** Turns after which a picture that does not come is requested no less often. */
const MOST_DOUBLINGS = 5;

/** True for a tile that is to be requested again: one that failed soon, a picture that stays away less and less often. */
function isDue({ failed, lost, losses = 0, since }: Tile): boolean {
  if (since === undefined || !(failed || lost)) return false;
  const wait = failed ? Tiles.AGAIN : Tiles.AGAIN * 2 ** Math.min(losses - 1, MOST_DOUBLINGS);
  return performance.now() - since >= wait;
}

/** Ends when the page had its turn. */
function nextTurn(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve));
}

/**
 * A worker from a blob, since a page of another origin may not start ours. A policy that forbids it throws here in some
 * browsers, and fires an error before the first message in others.
 */
function makeWorker(take: (painted: Painted) => void, refused: () => void): Worker | undefined {
  try {
    const worker = new TileWorker();
    let heard = false;
    worker.addEventListener("message", ({ data }: MessageEvent<Painted>) => {
      heard = true;
      take(data);
    });
    worker.addEventListener("error", () => {
      if (!heard) refused();
    });
    return worker;
  } catch {
    return undefined;
  }
}
