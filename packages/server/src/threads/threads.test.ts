import { EventEmitter, once } from "node:events";
import { MessageChannel } from "node:worker_threads";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { GoneAway } from "../http/gone.ts";
import { MainThread } from "./main-thread.ts";
import type { AnswerTask, ToThread } from "./messages.ts";
import { type ForThreads, Threads } from "./threads.ts";

/** A thread that is none: it has its end of a channel here, in the same thread. */
class Pretended extends EventEmitter {
  readonly #channel = new MessageChannel();
  readonly main = new MainThread(this.#channel.port2, () => undefined);

  constructor() {
    super();
    this.#channel.port1.on("message", (message) => this.emit("message", message));
    this.main.tell({ ready: { port: 4871 } });
  }

  postMessage(message: ToThread): void {
    if ("end" in message) this.fail(undefined);
    else this.#channel.port1.postMessage(message);
  }

  async terminate(): Promise<void> {
    this.fail(undefined);
  }

  /** Ends it, by an error if one is given. */
  fail(error: Error | undefined): void {
    this.#channel.port1.close();
    if (error) this.emit("error", error);
    this.emit("exit", error ? 1 : 0);
  }
}

const task = { number: 2, port: 4871, ports: 1 } as AnswerTask;
let started: Pretended[];
let threads: Threads;
const asked: AbortSignal[] = [];
const warn = vi.fn();

beforeEach(async () => {
  started = [];
  asked.length = 0;
  warn.mockClear();
  const tiles = {
    tile: (_z: number, _x: number, _y: number, gone: AbortSignal) =>
      new Promise<string>((resolve, reject) => {
        asked.push(gone);
        if (asked.length > 1) resolve("a tile");
        gone.addEventListener("abort", () => reject(new GoneAway()));
      }),
  };
  threads = new Threads({ tiles, warn, write: {}, signedIn: () => undefined } as unknown as ForThreads, () => {
    started.push(new Pretended());
    return started.at(-1) as never;
  });
  await threads.start(task);
});
afterEach(() => threads.end(true));

it("a tile of a client that has gone is made no more, and the next one is", async () => {
  const { main } = started[0];
  const client = new AbortController();
  const tile = main.tile(1, 0, 0, client.signal);
  await vi.waitFor(() => expect(asked).toHaveLength(1), 5000);
  expect(asked[0].aborted).toBe(false);
  client.abort();
  await expect(tile).rejects.toBeInstanceOf(GoneAway);
  if (!asked[0].aborted) await once(asked[0], "abort");
  expect(await main.tile(1, 0, 0)).toBe("a tile");
});

it("what a thread waited for is made no more when it ends", async () => {
  void started[0].main.tile(1, 0, 0);
  await vi.waitFor(() => expect(asked).toHaveLength(1), 5000);
  started[0].fail(new Error("broken"));
  expect(asked[0].aborted).toBe(true);
});

it("a thread that ends is started again on its port, and the log says by what error it ended", async () => {
  started[0].fail(new Error("broken"));
  await vi.waitFor(() => expect(started).toHaveLength(2), 5000);
  const [details] = warn.mock.calls[0];
  expect(details).toMatchObject({ thread: 2, error: expect.stringContaining("broken") });
  expect(threads.ports).toEqual([4871]);
});
