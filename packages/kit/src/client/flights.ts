/** Answers that are kept at most. */
const MOST = 100;

interface Flight {
  answer: Promise<unknown>;
  controller: AbortController;
  waiting: number;
}

/** Equal requests share one flight; for a moment its answer is kept, for those that come right after. */
export class Flights {
  readonly #flying = new Map<string, Flight>();
  readonly #kept = new Map<string, { answer: unknown; until: number }>();

  /** @param keep milliseconds for which an answer is kept */
  constructor(private readonly keep: number) {}

  /**
   * @param key equal for equal requests
   * @param fly asks; its signal aborts when nobody waits any more
   * @param signal of the one who asks: with it, only their own waiting ends
   */
  ask<T>(key: string, fly: (signal: AbortSignal) => Promise<T>, signal?: AbortSignal): Promise<T> {
    if (signal?.aborted) return Promise.reject(signal.reason);
    const kept = this.#kept.get(key);
    if (kept && kept.until > Date.now()) return Promise.resolve(kept.answer as T);
    const flight = this.#flying.get(key) ?? this.#begin(key, fly);
    flight.waiting++;
    if (!signal) return flight.answer as Promise<T>;
    return new Promise<T>((resolve, reject) => {
      const leave = () => {
        if (--flight.waiting === 0) {
          this.#forget(key, flight);
          flight.controller.abort(signal.reason);
        }
        reject(signal.reason);
      };
      signal.addEventListener("abort", leave, { once: true });
      (flight.answer as Promise<T>).then(resolve, reject).finally(() => signal.removeEventListener("abort", leave));
    });
  }

  #begin<T>(key: string, fly: (signal: AbortSignal) => Promise<T>): Flight {
    const controller = new AbortController();
    const flight: Flight = { controller, waiting: 0, answer: fly(controller.signal) };
    this.#flying.set(key, flight);
    flight.answer.then(
      (answer) => {
        this.#forget(key, flight);
        this.#keep(key, answer);
      },
      () => this.#forget(key, flight),
    );
    return flight;
  }

  #forget(key: string, flight: Flight): void {
    if (this.#flying.get(key) === flight) this.#flying.delete(key);
  }

  #keep(key: string, answer: unknown): void {
    if (!this.keep) return;
    this.#kept.delete(key);
    this.#kept.set(key, { answer, until: Date.now() + this.keep });
    const [oldest] = this.#kept.keys();
    if (this.#kept.size > MOST) this.#kept.delete(oldest);
  }
}
