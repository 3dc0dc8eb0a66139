import { Worker } from "node:worker_threads";
import type { Work, WorkResult, WorkTask } from "./do-work.ts";
import type { InTurn } from "./in-turn.ts";

interface Waiting {
  resolve: (result: never) => void;
  reject: (error: Error) => void;
}

/** The thread, and what was handed to it and is not done yet. */
interface Thread {
  worker: Worker;
  waiting: Map<number, Waiting>;
}

/** A piece of work took longer than it may; its thread was ended. */
export class OutOfTime extends Error {}

/** What the work may take: milliseconds for one piece, megabytes for the thread; as much as it takes when not given. */
interface Most {
  time?: number;
  memory?: number;
}

/** A thread that does one kind of work. It starts when it is first needed, and again if it ended. */
export class WorkThread<W extends Work> {
  #thread: Thread | undefined;
  #count = 0;

  /** @param file of the thread, which calls `doWork` @param turns how much is handed over at once, and how much may wait */
  constructor(
    private readonly file: URL,
    private readonly turns: InTurn,
    private readonly most: Most = {},
  ) {}

  /**
   * Does a piece of work.
   * @throws Error with the words of what was thrown there
   * @throws OutOfTime where it took too long: what was handed over beside it fails too
   * @throws Busy where too many wait
   */
  run<C extends keyof W & string>(call: C, options: Parameters<W[C]>[0]): Promise<Awaited<ReturnType<W[C]>>> {
    return this.turns.run(() => this.#handOver(call, options));
  }

  #handOver<C extends keyof W & string>(call: C, options: Parameters<W[C]>[0]): Promise<Awaited<ReturnType<W[C]>>> {
    this.#thread ??= this.#start();
    const { worker, waiting } = this.#thread;
    const id = ++this.#count;
    const { time } = this.most;
    return new Promise<Awaited<ReturnType<W[C]>>>((resolve, reject) => {
      const timer = time && setTimeout(() => this.#end(worker, new OutOfTime(`${call} took over ${time} ms`)), time);
      const ended = () => clearTimeout(timer);
      waiting.set(id, {
        resolve: (result) => {
          ended();
          resolve(result);
        },
        reject: (error) => {
          ended();
          reject(error);
        },
      });
      // while somebody waits for it the process goes on
      worker.ref();
      worker.postMessage({ id, call, options } satisfies WorkTask);
    });
  }

  #start(): Thread {
    const { memory } = this.most;
    const worker = new Worker(this.file, memory ? { resourceLimits: { maxOldGenerationSizeMb: memory } } : {});
    const waiting: Thread["waiting"] = new Map();
    worker.on("message", (answer: WorkResult) => {
      const waited = waiting.get(answer.id);
      waiting.delete(answer.id);
      if (waiting.size === 0) worker.unref();
      if ("failed" in answer) waited?.reject(new Error(answer.failed));
      else waited?.resolve(answer.result as never);
    });
    worker.on("error", (error: Error) => this.#end(worker, error));
    worker.on("exit", () => this.#end(worker, new Error("a thread ended early")));
    this.#thread = { worker, waiting };
    return this.#thread;
  }

  /** Fails what waits for a thread, and ends it. */
  #end(worker: Worker, error: Error): void {
    if (this.#thread?.worker !== worker) return;
    const { waiting } = this.#thread;
    this.#thread = undefined;
    for (const { reject } of waiting.values()) reject(error);
    waiting.clear();
    void worker.terminate();
  }
}
