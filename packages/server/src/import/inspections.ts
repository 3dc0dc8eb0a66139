import { Worker } from "node:worker_threads";
import type { FileStart } from "@bibliotope/wire";
import { InTurn } from "../jobs/in-turn.ts";
import { TableError } from "./bytes.ts";
import type { FileToInspect } from "./inspect.ts";
import type { InspectionMessage } from "./inspect.worker.ts";

/** What looking at one file may take: megabytes, and milliseconds. */
const MOST = { memory: 512, time: 20_000 };
/** Files that are looked at beside one another, and that may wait. */
const [AT_ONCE, MOST_WAITING] = [2, 20];
/** For so many milliseconds a thread waits for the next file: who has changed how a file is read looks at it again. */
const READY = 300_000;

/**
 * Looks at files that were handed in, each in a thread of its own with little memory and little time: whatever a file
 * holds, the process that answers goes on.
 */
export class Inspections {
  readonly #turns: InTurn;
  /** A thread that has loaded what it needs, which takes longer than most files. */
  #ready: Worker | undefined;

  /** @param file of the thread, and what it may take */
  constructor(
    private readonly file = new URL("./inspect.worker.js", import.meta.url),
    private readonly most = MOST,
  ) {
    this.#turns = new InTurn(AT_ONCE, MOST_WAITING, most.time / 1000);
  }

  /** @throws TableError with the reason why it cannot be read, Busy when many are inspected already */
  inspect(task: FileToInspect): Promise<FileStart> {
    return this.#turns.run(() => this.#inThread(task)).finally(() => this.#makeReady());
  }

  #start(): Worker {
    const { memory } = this.most;
    return new Worker(this.file, {
      resourceLimits: { maxOldGenerationSizeMb: memory, maxYoungGenerationSizeMb: memory / 8 },
    });
  }

  /** Starts a thread for the next file; one that fails or waits too long is forgotten, and a new one started when it is needed. */
  #makeReady(): void {
    if (this.#ready) return;
    const worker = this.#start();
    const forget = () => {
      if (this.#ready === worker) this.#ready = undefined;
    };
    const end = () => {
      if (this.#ready !== worker) return;
      forget();
      void worker.terminate();
    };
    worker.once("error", forget).once("exit", forget).unref();
    setTimeout(end, READY).unref();
    this.#ready = worker;
  }

  #inThread(task: FileToInspect): Promise<FileStart> {
    const { memory, time } = this.most;
    const worker = this.#ready ?? this.#start();
    this.#ready = undefined;
    worker.ref();
    worker.postMessage(task);
    return new Promise<FileStart>((resolve, reject) => {
      const timer = setTimeout(() => {
        reject(new TableError(`Reading the file took longer than ${time / 1000} s. ${SIMPLER}`));
        void worker.terminate();
      }, time);
      worker.on("message", (message: InspectionMessage) =>
        "seen" in message ? resolve(message.seen) : reject(new TableError(message.refused)),
      );
      worker.on("error", (error: NodeJS.ErrnoException) =>
        reject(
          error.code === "ERR_WORKER_OUT_OF_MEMORY"
            ? new TableError(`Reading the file took more than ${memory} MB of memory. ${SIMPLER}`)
            : error,
        ),
      );
      worker.on("exit", (code) => {
        clearTimeout(timer);
        reject(new Error(`looking at a file ended early, with code ${code}`));
      });
    });
  }
}

const SIMPLER = "Leave out columns you do not need, or upload it as CSV.";
