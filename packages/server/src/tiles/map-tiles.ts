import { setTimeout as wait } from "node:timers/promises";
import { Worker } from "node:worker_threads";
import type { TileName } from "@bibliotope/core/map";
import { LRUCache } from "lru-cache";
import { GoneAway, unlessGone } from "../http/gone.ts";
import type { TileAmends } from "./amends.ts";
import { type Order, PaintQueue } from "./paint-queue.ts";
import type { Still } from "./still.ts";
import type { TileJobRequest, TilesAmended, TilesMessage, TilesTask, TilesUnwanted } from "./tiles.worker.ts";

/** Tiles and stills kept in memory, in bytes. */
const KEPT = 64 * 1024 * 1024;
/** Milliseconds before a painter that ended is replaced: the first time, and at most. */
const [FIRST_PAUSE, LONGEST_PAUSE] = [250, 30_000];

/** A tile's JSON, or a still's PNG. */
type Made = string | Uint8Array;

const nothingKept = () => new LRUCache<string, Made>({ maxSize: KEPT, sizeCalculation: (made) => made.length + 1 });

/** What answers for the map: `MapTiles`, or in another thread what asks it. */
export type TileMaker = Pick<MapTiles, "tile" | "still">;

/** Something made ready beside what is there. */
export interface Prepared {
  putIn(): Promise<void>;
  /** Shows what is corrected by hand, in place of what was corrected before. */
  amend(amends: TileAmends): void;
  letGo(): Promise<void>;
}

/** Something that is requested, by one or by several. */
interface Making extends Order {
  name: string;
  request: TileJobRequest;
  made: Promise<Made>;
  resolve: (made: Made) => void;
  reject: (error: Error) => void;
  /** How many wait for it. */
  wanted: number;
}

/** A map: what it is made of, and what is corrected on it by hand. */
interface Shown {
  versions: number[];
  amends: TileAmends | undefined;
}

/** A thread that cuts and paints a map, and what it has in hand: at most one piece of the map and one picture. */
interface Painter {
  worker: Worker;
  shown: Shown;
  inHand: Map<"tile" | "still", Making>;
  isGone: boolean;
}

/**
 * Cuts tiles and paints stills in a worker thread, so that lookups never wait for one, and keeps those asked lately.
 * What nobody waits for any more is not made; a thread that ends is replaced.
 */
export class MapTiles {
  #kept = nothingKept();
  readonly #queue = new PaintQueue<Making>();
  readonly #underWay = new Map<string, Making>();
  #painter: Painter | undefined;
  #count = 0;
  #isStopped = false;

  constructor(
    private readonly databaseUrl: string,
    private readonly log: { warn(details: object, words: string): void },
    private readonly startThread = (task: TilesTask) =>
      new Worker(new URL("./tiles.worker.js", import.meta.url), { workerData: task }),
  ) {}

  /**
   * Reads the map features of some versions. Until they are put in, the ones before answer.
   * @returns what puts them in, or lets them go
   */
  async prepare(versions: number[]): Promise<Prepared> {
    const shown: Shown = { versions, amends: undefined };
    let painter = await this.#start(shown);
    return {
      putIn: async () => {
        if (painter.isGone) painter = await this.#start(shown);
        const before = this.#painter;
        this.#painter = painter;
        this.#kept = nothingKept();
        // what the one before has not answered
        if (before) this.#queue.addAgain(before.inHand.values());
        this.#hand();
        await before?.worker.terminate();
      },
      amend: (amends) => {
        shown.amends = amends;
        painter.worker.postMessage({ amends } satisfies TilesAmended);
        if (this.#painter?.shown !== shown) return;
        // it may have been replaced meanwhile
        if (this.#painter !== painter) this.#painter.worker.postMessage({ amends } satisfies TilesAmended);
        this.#kept = nothingKept();
        // what is under way is how it was before
        this.#underWay.clear();
      },
      letGo: async () => {
        await painter.worker.terminate();
      },
    };
  }

  /**
   * The features of a tile as JSON; undefined while no map is stored.
   * @param gone ends when nobody waits for it any more
   * @throws Busy when too much is waiting, GoneAway when nobody waits for it
   */
  async tile(z: number, x: number, y: number, gone?: AbortSignal): Promise<string | undefined> {
    return (await this.#make(`${z}/${x}/${y}`, { tile: { z, x, y } }, 0, gone)) as string | undefined;
  }

  /** A picture as PNG; undefined while no map is stored. `gone` and errors as of `tile`. */
  async still(still: Still, gone?: AbortSignal): Promise<Uint8Array | undefined> {
    const pixels = still.size.width * still.size.height * still.density ** 2;
    return (await this.#make(JSON.stringify(still), { still }, pixels, gone)) as Uint8Array | undefined;
  }

  async stop(): Promise<void> {
    this.#isStopped = true;
    await this.#painter?.worker.terminate();
  }

  /** @param name equal for equal things; each is made once at a time */
  async #make(
    name: string,
    request: { tile: TileName } | { still: Still },
    pixels: number,
    gone: AbortSignal | undefined,
  ): Promise<Made | undefined> {
    const kept = this.#kept;
    const before = kept.get(name);
    if (before !== undefined) return before;
    if (!this.#painter) return undefined;
    const making = this.#underWay.get(name) ?? this.#order(name, { id: ++this.#count, ...request }, pixels);
    making.wanted++;
    const made = await unlessGone(making.made, gone).catch((error: unknown) => {
      if (error instanceof GoneAway && --making.wanted === 0) this.#giveUp(making);
      throw error;
    });
    // those kept now are others when the map has changed meanwhile
    kept.set(name, made);
    return made;
  }

  #order(name: string, request: TileJobRequest, pixels: number): Making {
    let resolve!: Making["resolve"];
    let reject!: Making["reject"];
    const made = new Promise<Made>((...both) => {
      [resolve, reject] = both;
    });
    // all who waited may have gone
    made.catch(() => undefined);
    const making: Making = { name, request, pixels, made, resolve, reject, wanted: 0 };
    this.#queue.add(making);
    this.#underWay.set(name, making);
    this.#hand();
    return making;
  }

  /** Hands the painter what waits, where it has nothing of that kind in hand. */
  #hand(): void {
    const painter = this.#painter;
    if (!painter) return;
    for (const kind of ["tile", "still"] as const) {
      if (painter.inHand.has(kind)) continue;
      const making = this.#queue.next(kind);
      if (!making) continue;
      painter.inHand.set(kind, making);
      painter.worker.postMessage(making.request);
    }
  }

  #giveUp(making: Making): void {
    this.#forget(making);
    if (!this.#queue.drop(making))
      this.#painter?.worker.postMessage({ unwanted: making.request.id } satisfies TilesUnwanted);
  }

  #forget(making: Making): void {
    if (this.#underWay.get(making.name) === making) this.#underWay.delete(making.name);
  }

  /** @param tries a thread that ends before it is ready is begun once more: it was not its work that failed */
  async #start(shown: Shown, tries = 2): Promise<Painter> {
    const worker = this.startThread({ databaseUrl: this.databaseUrl, versions: shown.versions });
    const isReady = await new Promise<boolean>((resolve, reject) => {
      worker.once("message", () => resolve(true));
      worker.once("error", reject);
      worker.once("exit", () => resolve(false));
    });
    if (!isReady && tries > 1 && !this.#isStopped) return this.#start(shown, tries - 1);
    if (!isReady) throw new Error("the styles' worker ended before it was ready");
    const painter: Painter = { worker, shown, inHand: new Map(), isGone: false };
    if (shown.amends) worker.postMessage({ amends: shown.amends } satisfies TilesAmended);
    worker.on("message", (message: TilesMessage) => this.#hear(painter, message));
    worker.on("error", (error) => this.log.warn({ error: String(error) }, "the map's painter"));
    worker.once("exit", () => this.#lose(painter));
    worker.unref();
    return painter;
  }

  #hear(painter: Painter, message: TilesMessage): void {
    if (!("id" in message)) return;
    for (const [kind, making] of painter.inHand) {
      if (making.request.id !== message.id) continue;
      painter.inHand.delete(kind);
      this.#forget(making);
      if ("made" in message) making.resolve(message.made);
      else making.reject(new Error(message.failed));
    }
    this.#hand();
  }

  /** A painter has ended. What it had in hand may be why, and is not tried again. */
  #lose(painter: Painter): void {
    painter.isGone = true;
    if (this.#painter !== painter || this.#isStopped) return;
    this.#painter = undefined;
    for (const making of painter.inHand.values()) {
      this.#forget(making);
      making.reject(new Error("the map's painter ended"));
    }
    void this.#replace(painter.shown);
  }

  async #replace(shown: Shown): Promise<void> {
    for (let pause = FIRST_PAUSE; ; pause = Math.min(pause * 2, LONGEST_PAUSE)) {
      await wait(pause, undefined, { ref: false });
      const painter = await this.#start(shown).catch(() => undefined);
      // another map may have been put in meanwhile
      if (this.#painter || this.#isStopped) return void painter?.worker.terminate();
      if (!painter || painter.isGone) continue;
      this.log.warn({}, "the map's painter was replaced");
      this.#painter = painter;
      return this.#hand();
    }
  }
}
