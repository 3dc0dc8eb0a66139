import type { Server, ServerResponse } from "node:http";
import { setTimeout as wait } from "node:timers/promises";

/** How long each step of an end may take, in milliseconds. */
export interface DrainTimes {
  /** While `/readyz` answers 503 and all else is answered: a load balancer sees it before connections are refused. */
  unready: number;
  /** Until answers that are under way are cut. */
  most: number;
}

const USUAL: DrainTimes = { unready: 300, most: 20_000 };
/** Milliseconds between two looks whether all answers are sent. */
const LOOK_EVERY = 20;

/**
 * The orderly end of a server: first it is not ready, then it takes no new connections, then it waits for
 * the answers under way.
 */
export class Drain {
  readonly #ending = new AbortController();
  readonly #underWay = new Set<ServerResponse>();

  /** Ends when the server begins to: answers without an end of their own end with it. */
  get ending(): AbortSignal {
    return this.#ending.signal;
  }

  /** How many answers are under way. */
  get underWay(): number {
    return this.#underWay.size;
  }

  /** Comes before all other handlers. */
  watch(response: ServerResponse): void {
    this.#underWay.add(response);
    response.once("close", () => this.#underWay.delete(response));
    if (this.ending.aborted) response.setHeader("Connection", "close");
  }

  /** @returns how many answers had to be cut */
  async end(server: Server, { unready, most }: DrainTimes = USUAL): Promise<number> {
    this.#ending.abort();
    for (const response of this.#underWay) if (!response.headersSent) response.setHeader("Connection", "close");
    await wait(unready);
    server.close();
    for (const end = Date.now() + most; this.#underWay.size && Date.now() < end; ) await wait(LOOK_EVERY);
    const cut = this.#underWay.size;
    server.closeAllConnections();
    return cut;
  }
}
