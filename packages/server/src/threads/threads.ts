import { setTimeout as wait } from "node:timers/promises";
import { Worker } from "node:worker_threads";
import type { Heights } from "../heights/heights.ts";
import { Busy } from "../http/busy.ts";
import { GoneAway } from "../http/gone.ts";
import type { MetricValues } from "../metrics/metrics.ts";
import type { LiveIndex } from "../publication/live-index.ts";
import type { TileMaker } from "../tiles/map-tiles.ts";
import type { AnswerTask, FromThread, ToThread, Wanted } from "./messages.ts";

/** Milliseconds before a thread that ended is replaced: the first time, and at most. */
const [FIRST_PAUSE, LONGEST_PAUSE] = [250, 30_000];
/** Milliseconds that a thread may take to tell its metrics, and to end. */
const [METRICS_WITHIN, END_WITHIN] = [2000, 25_000];

/** What threads have of the main one. */
export interface ForThreads {
  index: LiveIndex;
  tiles: TileMaker;
  heights: Heights;
  /** Writes a line of a thread's log. */
  write: Record<"log" | "securityLog", (line: string) => void>;
  warn: (details: object, words: string) => void;
  signedIn: () => void;
}

interface Running {
  worker: Worker;
  port: number;
  /** What it waits for, by number. */
  wanted: Map<number, AbortController>;
  /** Who waits for its metrics. */
  metrics: Map<number, (metrics: MetricValues) => void>;
  isGone: boolean;
  /** The error that it ended by, if it did. */
  error?: string;
}

/** The threads beside the main one that answer requests. One that ends is replaced. */
export class Threads {
  readonly #running = new Map<number, Running>();
  #isEnding = false;
  #count = 0;

  constructor(
    private readonly parts: ForThreads,
    private readonly startThread = (task: AnswerTask) =>
      new Worker(new URL("./answer.worker.js", import.meta.url), { workerData: task }),
  ) {}

  /** The ports of the threads, in their order. */
  get ports(): number[] {
    return [...this.#running.values()].map(({ port }) => port);
  }

  /** Starts one. @returns the port on which it answers @throws Error with the reason why it does not */
  async start(task: AnswerTask): Promise<number> {
    const worker = this.startThread(task);
    const running: Running = { worker, port: task.port, wanted: new Map(), metrics: new Map(), isGone: false };
    await new Promise<void>((resolve, reject) => {
      worker.on("message", (message: FromThread) => {
        if ("ready" in message) {
          running.port = message.ready.port;
          resolve();
        } else if ("failed" in message) reject(new Error(message.failed));
        else this.#hear(running, message);
      });
      worker.on("error", (error) => {
        running.error = error.stack ?? error.message;
        reject(error);
      });
      worker.once("exit", (code) => {
        running.isGone = true;
        for (const gone of running.wanted.values()) gone.abort();
        reject(new Error(`thread ${task.number} ended early, with code ${code}`));
      });
    });
    this.#running.set(task.number, running);
    // it answers where it answered before
    const again = { ...task, port: running.port, ports: Math.min(task.ports, 1) };
    if (running.isGone) void this.#replace(again, running);
    else worker.once("exit", () => void this.#replace(again, running));
    return running.port;
  }

  /** Ends all: answers under way first. @param isKept see `Answering.end` */
  async end(isKept: boolean): Promise<void> {
    this.#isEnding = true;
    const ends = [...this.#running.values()].map(async (running) => {
      if (running.isGone) return;
      const gone = new Promise<void>((resolve) => running.worker.once("exit", () => resolve()));
      tell(running, { end: { isKept } });
      await Promise.race([gone, wait(END_WITHIN, undefined, { ref: false })]);
      await running.worker.terminate();
    });
    await Promise.all(ends);
  }

  /** What each of them has measured. One that does not answer soon is left out. */
  async metrics(): Promise<MetricValues[]> {
    const asked = [...this.#running.values()].map(async (running) => {
      const id = ++this.#count;
      const answered = new Promise<MetricValues>((resolve) => running.metrics.set(id, resolve));
      tell(running, { metrics: id });
      const metrics = await Promise.race([answered, wait(METRICS_WITHIN, undefined, { ref: false })]);
      running.metrics.delete(id);
      return metrics ?? [];
    });
    return Promise.all(asked);
  }

  async #replace(task: AnswerTask, { error }: Pick<Running, "error">): Promise<void> {
    let why = error;
    for (let pause = FIRST_PAUSE; !this.#isEnding; pause = Math.min(pause * 2, LONGEST_PAUSE)) {
      const details = { thread: task.number, pause, error: why };
      this.parts.warn(details, "a thread that answers has ended; it is started again");
      await wait(pause, undefined, { ref: false });
      if (this.#isEnding) return;
      try {
        await this.start(task);
        return;
      } catch (failed) {
        why = failed instanceof Error ? failed.message : String(failed);
      }
    }
  }

  #hear(running: Running, message: FromThread): void {
    if ("line" in message) this.parts.write[message.to](message.line);
    else if ("unwanted" in message) running.wanted.get(message.unwanted)?.abort();
    else if ("metrics" in message) running.metrics.get(message.of)?.(message.metrics);
    else if ("signedIn" in message) this.parts.signedIn();
    else if ("wanted" in message) void this.#answer(running, message.id, message.wanted);
  }

  async #answer(running: Running, id: number, wanted: Wanted): Promise<void> {
    const gone = new AbortController();
    running.wanted.set(id, gone);
    try {
      const result = await this.#make(wanted, gone.signal);
      tell(running, { id, result });
    } catch (error) {
      if (error instanceof GoneAway) return;
      const failed = error instanceof Error ? error.message : String(error);
      tell(running, { id, failed, ...(error instanceof Busy ? { busy: error.seconds } : {}) });
    } finally {
      running.wanted.delete(id);
    }
  }

  async #make(wanted: Wanted, gone: AbortSignal): Promise<unknown> {
    const { index, tiles, heights } = this.parts;
    if (wanted.kind === "tile") return tiles.tile(wanted.tile.z, wanted.tile.x, wanted.tile.y, gone);
    if (wanted.kind === "still") return tiles.still(wanted.still, gone);
    if (wanted.kind === "heights") {
      // what was begun to be opened is open then, with all that is beside it
      await index.refresh();
      return heights.grids;
    }
    const isOpen = () => index.shared && JSON.stringify(index.versions) === JSON.stringify(wanted.versions);
    if (!isOpen()) await index.refresh();
    // the thread's next poll finds what is published now
    if (!isOpen()) throw new Error("something else was published in the meantime");
    return index.shared;
  }
}

function tell(running: Running, message: ToThread): void {
  if (!running.isGone) running.worker.postMessage(message);
}
