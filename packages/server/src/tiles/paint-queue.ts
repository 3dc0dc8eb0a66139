import { Busy } from "../http/busy.ts";

/** What may wait to be painted: pieces of the map, and pixels of pictures (some ten seconds of work). */
const MOST = { tiles: 1000, pixels: 60_000_000 };
/** Pixels of pictures that are painted in a second, at least: only to say when to ask again. */
const PIXELS_A_SECOND = 5_000_000;

/** Something to be painted. */
export interface Order {
  /** Pixels of a picture; none for a piece of the map. */
  pixels: number;
}

/**
 * What waits for the painter: pieces of the map before pictures, since a map without them shows nothing, and one
 * picture takes as long as a hundred of them. Both in the order in which they were requested.
 */
export class PaintQueue<T extends Order> {
  readonly #tiles = new Set<T>();
  readonly #stills = new Set<T>();
  #pixels = 0;

  /** @throws Busy */
  add(order: T): void {
    if (order.pixels ? this.#pixels + order.pixels > MOST.pixels : this.#tiles.size >= MOST.tiles)
      throw new Busy(Math.max(1, Math.ceil(this.#pixels / PIXELS_A_SECOND)));
    this.#put(order);
  }

  /** Takes back what was begun and not finished: it goes before all others of the kind, however many there are. */
  addAgain(orders: Iterable<T>): void {
    const waiting = [...this.#stills, ...this.#tiles];
    this.#tiles.clear();
    this.#stills.clear();
    this.#pixels = 0;
    for (const order of [...orders, ...waiting]) this.#put(order);
  }

  #put(order: T): void {
    this.#pixels += order.pixels;
    (order.pixels ? this.#stills : this.#tiles).add(order);
  }

  /** Takes out the next piece of the map, or the next picture. */
  next(kind: "tile" | "still"): T | undefined {
    const [order] = kind === "tile" ? this.#tiles : this.#stills;
    if (order) this.drop(order);
    return order;
  }

  /** Takes out what nobody wants any more. @returns whether it was still waiting */
  drop(order: T): boolean {
    const isThere = (order.pixels ? this.#stills : this.#tiles).delete(order);
    if (isThere) this.#pixels -= order.pixels;
    return isThere;
  }
}
