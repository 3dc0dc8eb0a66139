import { Worker } from "node:worker_threads";
import type { FileStart } from "@bibliotope/wire";
import { Busy } from "../http/busy.ts";
import { TableError } from "./bytes.ts";
import type { FileLook } from "./look.ts";
import type { LookMessage } from "./look.worker.ts";

/** What looking at one file may take: megabytes, and milliseconds. */
const MOST = { memory: 512, time: 20_000 };
/** Files that are looked at beside one another, and that may wait. */
const [AT_ONCE, MOST_WAITING] = [2, 20];

/**
 * Looks at files that were handed in, each in a thread of its own with little memory and little time: whatever a file
 * holds, the process that answers goes on.
 */
export class Looks {
  #running = 0;
  readonly #waiting: (() => void)[] = [];

  /** @param file of the thread, and what it may take */
  constructor(
    private readonly file = new URL("./look.worker.js", import.meta.url),
    private readonly most = MOST,
  ) {}

  /** @throws TableError that says why it cannot be read, Busy when many are looked at already */
  async look(task: FileLook): Promise<FileStart> {
    if (this.#running < AT_ONCE) this.#running++;
    else if (this.#waiting.length >= MOST_WAITING) throw new Busy(this.most.time / 1000);
    // whoever ends hands its place on
    else await new Promise<void>((resolve) => this.#waiting.push(resolve));
    try {
      return await this.#inThread(task);
    } finally {
      const next = this.#waiting.shift();
      if (next) next();
      else this.#running--;
    }
  }

  #inThread(task: FileLook): Promise<FileStart> {
    const { memory, time } = this.most;
    const worker = new Worker(this.file, {
      workerData: task,
      resourceLimits: { maxOldGenerationSizeMb: memory, maxYoungGenerationSizeMb: memory / 8 },
    });
    return new Promise<FileStart>((resolve, reject) => {
      const timer = setTimeout(() => {
        reject(new TableError(`Reading the file took longer than ${time / 1000} s. ${SIMPLER}`));
        void worker.terminate();
      }, time);
      worker.on("message", (message: LookMessage) =>
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
