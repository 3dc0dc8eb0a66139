/** A binary heap of cells, the cheapest first; equal costs by cell, so that the order is always the same. */
export class Heap {
  readonly #cells: number[] = [];
  readonly #costs: number[] = [];

  push(cell: number, cost: number): void {
    let i = this.#cells.push(cell) - 1;
    this.#costs.push(cost);
    while (i > 0) {
      const parent = (i - 1) >> 1;
      if (!this.#before(i, parent)) break;
      this.#swap(i, parent);
      i = parent;
    }
  }

  pop(): { cell: number; cost: number } | undefined {
    if (!this.#cells.length) return undefined;
    const top = { cell: this.#cells[0], cost: this.#costs[0] };
    this.#swap(0, this.#cells.length - 1);
    this.#cells.pop();
    this.#costs.pop();
    for (let i = 0; ; ) {
      let least = i;
      for (const child of [2 * i + 1, 2 * i + 2])
        if (child < this.#cells.length && this.#before(child, least)) least = child;
      if (least === i) return top;
      this.#swap(i, least);
      i = least;
    }
  }

  #before(a: number, b: number): boolean {
    return this.#costs[a] < this.#costs[b] || (this.#costs[a] === this.#costs[b] && this.#cells[a] < this.#cells[b]);
  }

  #swap(a: number, b: number): void {
    [this.#cells[a], this.#cells[b]] = [this.#cells[b], this.#cells[a]];
    [this.#costs[a], this.#costs[b]] = [this.#costs[b], this.#costs[a]];
  }
}
