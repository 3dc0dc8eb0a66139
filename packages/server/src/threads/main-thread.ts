import type { MessagePort } from "node:worker_threads";
import type { HeightGrid } from "@bibliotope/core/geo";
import { Segment } from "@bibliotope/core/index";
import { Busy } from "../http/busy.ts";
import { GoneAway, unlessGone } from "../http/gone.ts";
import type { TileMaker } from "../tiles/map-tiles.ts";
import type { Still } from "../tiles/still.ts";
import type { FromThread, ToThread, Wanted } from "./messages.ts";

interface Waiting {
  resolve: (result: never) => void;
  reject: (error: Error) => void;
}

/** What a thread has from the main one: the segment in memory, heights, and the map. */
export class MainThread implements TileMaker {
  readonly #waiting = new Map<number, Waiting>();
  #count = 0;

  /** @param other hears what is no answer to what was asked */
  constructor(
    private readonly port: MessagePort,
    other: (message: Exclude<ToThread, { id: number }>) => void,
  ) {
    port.on("message", (message: ToThread) => ("id" in message ? this.#hear(message) : other(message)));
  }

  tell(message: FromThread): void {
    this.port.postMessage(message);
  }

  /** The segment of some versions, over the memory of the main thread. @throws Error when others are published by now */
  async segment(versions: readonly number[]): Promise<Segment> {
    return new Segment(await this.#ask<SharedArrayBuffer>({ kind: "segment", versions }));
  }

  heights(): Promise<HeightGrid[]> {
    return this.#ask({ kind: "heights" });
  }

  tile(z: number, x: number, y: number, gone?: AbortSignal): Promise<string | undefined> {
    return this.#ask({ kind: "tile", tile: { z, x, y } }, gone);
  }

  still(still: Still, gone?: AbortSignal): Promise<Uint8Array | undefined> {
    return this.#ask({ kind: "still", still }, gone);
  }

  async #ask<T>(wanted: Wanted, gone?: AbortSignal): Promise<T> {
    const id = ++this.#count;
    const asked = new Promise<T>((resolve, reject) => this.#waiting.set(id, { resolve, reject }));
    // nobody may wait for it any more when it fails
    asked.catch(() => undefined);
    this.tell({ wanted, id });
    try {
      return await unlessGone(asked, gone);
    } catch (error) {
      if (error instanceof GoneAway && this.#waiting.delete(id)) this.tell({ unwanted: id });
      throw error;
    }
  }

  #hear(message: Extract<ToThread, { id: number }>): void {
    const waiting = this.#waiting.get(message.id);
    this.#waiting.delete(message.id);
    if (!("failed" in message)) waiting?.resolve(message.result as never);
    else waiting?.reject(message.busy === undefined ? new Error(message.failed) : new Busy(message.busy));
  }
}
