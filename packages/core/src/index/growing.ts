type Numbers = Uint8Array | Uint16Array | Uint32Array | Int32Array;

/** A typed array that grows as numbers are added: eight times smaller than a plain array of numbers, and bounded. */
export class Growing<T extends Numbers> {
  #array: T;
  length = 0;

  constructor(private readonly Kind: new (length: number) => T) {
    this.#array = new Kind(1024);
  }

  push(value: number): void {
    if (this.length === this.#array.length) {
      const larger = new this.Kind(this.#array.length * 2);
      larger.set(this.#array);
      this.#array = larger;
    }
    this.#array[this.length++] = value;
  }

  get(index: number): number {
    return this.#array[index];
  }

  /** The numbers so far, without the room to grow. */
  finish(): T {
    return this.#array.slice(0, this.length) as T;
  }
}
