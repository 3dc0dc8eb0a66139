import { Worker } from "node:worker_threads";
import type { TileName } from "@bibliotope/core/sheet";
import { LRUCache } from "lru-cache";
import type { SheetAmends } from "./amends.ts";
import type { SheetsAmended, SheetsAsked, SheetsMessage, SheetsTask } from "./sheets.worker.ts";
import type { Still } from "./still.ts";

/** Tiles and stills kept in memory, in bytes. */
const KEPT = 64 * 1024 * 1024;

/** A tile's JSON, or a still's PNG. */
type Made = string | Uint8Array;

const nothingKept = () => new LRUCache<string, Made>({ maxSize: KEPT, sizeCalculation: (made) => made.length + 1 });

/** Something made ready beside what is there. */
export interface Prepared {
  putIn(): Promise<void>;
  /** Shows what is corrected by hand, in place of what was corrected before. */
  amend(amends: SheetAmends): void;
  letGo(): Promise<void>;
}

interface Waiting {
  asked: SheetsAsked;
  resolve: (made: Made) => void;
  reject: (error: Error) => void;
}

/** Cuts tiles and paints stills in a worker thread, so that lookups never wait for one, and keeps those asked lately. */
export class SheetTiles {
  #kept = nothingKept();
  readonly #waiting = new Map<number, Waiting>();
  readonly #underWay = new Map<string, Promise<Made>>();
  #worker: Worker | undefined;
  #asked = 0;

  constructor(private readonly databaseUrl: string) {}

  /**
   * Reads the map features of some versions. Until they are put in, the ones before answer.
   * @returns what puts them in, or lets them go
   */
  async prepare(versions: number[]): Promise<Prepared> {
    const worker = new Worker(new URL("./sheets.worker.js", import.meta.url), {
      workerData: { databaseUrl: this.databaseUrl, versions } satisfies SheetsTask,
    });
    await new Promise<void>((resolve, reject) => {
      worker.once("message", () => resolve());
      worker.once("error", reject);
      worker.once("exit", () => reject(new Error("the sheets' worker ended before it was ready")));
    });
    worker.on("message", (message: SheetsMessage) => {
      if ("made" in message) this.#settle(message.id, ({ resolve }) => resolve(message.made));
      else if ("failed" in message) this.#settle(message.id, ({ reject }) => reject(new Error(message.failed)));
    });
    worker.on("error", () => undefined);
    worker.once("exit", () => {
      if (this.#worker !== worker) return;
      this.#worker = undefined;
      for (const id of [...this.#waiting.keys()])
        this.#settle(id, ({ reject }) => reject(new Error("the sheets' worker ended")));
    });
    worker.unref();
    return {
      putIn: async () => {
        const before = this.#worker;
        this.#worker = worker;
        this.#kept = nothingKept();
        // what the one before has not answered
        for (const { asked } of this.#waiting.values()) worker.postMessage(asked);
        await before?.terminate();
      },
      amend: (amends) => {
        worker.postMessage({ amends } satisfies SheetsAmended);
        if (this.#worker !== worker) return;
        this.#kept = nothingKept();
        // what is under way is how it was before
        this.#underWay.clear();
      },
      letGo: async () => {
        await worker.terminate();
      },
    };
  }

  /** The features of a tile as JSON; undefined while no map is held. */
  async tile(z: number, x: number, y: number): Promise<string | undefined> {
    return (await this.#make(`${z}/${x}/${y}`, { tile: { z, x, y } })) as string | undefined;
  }

  /** A picture as PNG; undefined while no map is held. */
  async still(still: Still): Promise<Uint8Array | undefined> {
    return (await this.#make(JSON.stringify(still), { still })) as Uint8Array | undefined;
  }

  /** @param name equal for equal things; each is made once at a time */
  async #make(name: string, asked: { tile: TileName } | { still: Still }): Promise<Made | undefined> {
    const kept = this.#kept;
    const before = kept.get(name);
    if (before !== undefined) return before;
    if (!this.#worker) return undefined;
    let making = this.#underWay.get(name);
    if (!making) {
      const message: SheetsAsked = { id: ++this.#asked, ...asked };
      making = new Promise<Made>((resolve, reject) =>
        this.#waiting.set(message.id, { asked: message, resolve, reject }),
      ).finally(() => {
        if (this.#underWay.get(name) === making) this.#underWay.delete(name);
      });
      this.#underWay.set(name, making);
      this.#worker.postMessage(message);
    }
    const made = await making;
    // those kept now are others when the map has changed meanwhile
    kept.set(name, made);
    return made;
  }

  async stop(): Promise<void> {
    await this.#worker?.terminate();
  }

  #settle(id: number, how: (waiting: Waiting) => void): void {
    const waiting = this.#waiting.get(id);
    this.#waiting.delete(id);
    if (waiting) how(waiting);
  }
}
