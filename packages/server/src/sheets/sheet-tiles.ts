import { Worker } from "node:worker_threads";
import { LRUCache } from "lru-cache";
import type { SheetsMessage, SheetsTask } from "./sheets.worker.ts";

/** Tiles kept in memory, in bytes of JSON. */
const KEPT = 64 * 1024 * 1024;

/** Cuts tiles in a worker thread, so that lookups never wait for one, and keeps those asked lately. */
export class SheetTiles {
  readonly #kept = new LRUCache<string, string>({ maxSize: KEPT, sizeCalculation: (json) => json.length + 1 });
  readonly #waiting = new Map<number, { resolve: (json: string) => void; reject: (error: Error) => void }>();
  readonly #underWay = new Map<string, Promise<string>>();
  #worker: Worker | undefined;
  #asked = 0;

  constructor(private readonly databaseUrl: string) {}

  /** Reads the map features of some versions; until it is done, the ones before answer. */
  async load(versions: number[]): Promise<void> {
    const worker = new Worker(new URL("./sheets.worker.js", import.meta.url), {
      workerData: { databaseUrl: this.databaseUrl, versions } satisfies SheetsTask,
    });
    await new Promise<void>((resolve, reject) => {
      worker.once("message", () => resolve());
      worker.once("error", reject);
      worker.once("exit", () => reject(new Error("the sheets' worker ended before it was ready")));
    });
    worker.on("message", (message: SheetsMessage) => {
      if ("id" in message) this.#settle(message.id, (waiting) => waiting.resolve(message.json));
    });
    worker.on("error", () => undefined);
    worker.once("exit", () => {
      if (this.#worker !== worker) return;
      this.#worker = undefined;
      for (const id of [...this.#waiting.keys()])
        this.#settle(id, ({ reject }) => reject(new Error("the sheets' worker ended")));
    });
    const before = this.#worker;
    this.#worker = worker;
    this.#kept.clear();
    worker.unref();
    await before?.terminate();
  }

  /** The features of a tile as JSON; undefined while no map is held. */
  async tile(z: number, x: number, y: number): Promise<string | undefined> {
    const name = `${z}/${x}/${y}`;
    const kept = this.#kept.get(name);
    if (kept !== undefined) return kept;
    const worker = this.#worker;
    if (!worker) return undefined;
    let cutting = this.#underWay.get(name);
    if (!cutting) {
      const id = ++this.#asked;
      cutting = new Promise<string>((resolve, reject) => this.#waiting.set(id, { resolve, reject })).finally(() =>
        this.#underWay.delete(name),
      );
      this.#underWay.set(name, cutting);
      worker.postMessage({ id, z, x, y });
    }
    const json = await cutting;
    if (this.#worker === worker) this.#kept.set(name, json);
    return json;
  }

  async stop(): Promise<void> {
    await this.#worker?.terminate();
  }

  #settle(
    id: number,
    how: (waiting: { resolve: (json: string) => void; reject: (error: Error) => void }) => void,
  ): void {
    const waiting = this.#waiting.get(id);
    this.#waiting.delete(id);
    if (waiting) how(waiting);
  }
}
