/** Numbers that look random and are the same for the same seed (mulberry32). */
export class Random {
  #state: number;

  constructor(seed: number) {
    this.#state = seed >>> 0;
  }

  /** From nought up to, not including, one. */
  next(): number {
    this.#state = (this.#state + 0x6d2b79f5) >>> 0;
    let mixed = this.#state;
    mixed = Math.imul(mixed ^ (mixed >>> 15), mixed | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  }

  between(least: number, most: number): number {
    return least + (most - least) * this.next();
  }

  of<T>(some: readonly T[]): T {
    return some[Math.floor(this.next() * some.length)];
  }
}
