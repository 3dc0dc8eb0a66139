import { Busy } from "../http/busy.ts";

/** Does dear work some at a time; what would have to wait behind too many others is refused at once. */
export class InTurn {
  #running = 0;
  readonly #waiting: (() => void)[] = [];

  /** @param atOnce how many run @param most how many may wait @param retryAfter seconds, said to those who may not */
  constructor(
    private readonly atOnce: number,
    private readonly most: number,
    private readonly retryAfter = 2,
  ) {}

  /** @throws Busy where too many wait */
  async run<T>(work: () => Promise<T>): Promise<T> {
    if (this.#running >= this.atOnce) {
      if (this.#waiting.length >= this.most) throw new Busy(this.retryAfter);
      // whoever ends hands its turn on
      await new Promise<void>((resolve) => this.#waiting.push(resolve));
    } else this.#running++;
    try {
      return await work();
    } finally {
      const next = this.#waiting.shift();
      if (next) next();
      else this.#running--;
    }
  }
}
