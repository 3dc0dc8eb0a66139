/** Milliseconds between two questions: no more than four a second. */
const GAP = 250;

/** Asks about something that moves: at a sane rate, the last one always, and only the answer to the last one counts. */
export class Follower<T> {
  #next: { what: T; isLast: boolean } | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #requestedAt = Number.NEGATIVE_INFINITY;
  #underWay: AbortController | undefined;

  /** @param ask is given a signal that aborts when a later request is made; what it throws then is dropped */
  constructor(private readonly ask: (what: T, isLast: boolean, signal: AbortSignal) => Promise<void>) {}

  /** It is here now. @param isLast true when it has come to rest */
  move(what: T, isLast: boolean): void {
    this.#next = { what, isLast };
    this.#timer ??= setTimeout(() => this.#go(), Math.max(0, this.#requestedAt + GAP - performance.now()));
  }

  /** Forgets what was to be asked, and drops what is being answered. */
  stop(): void {
    clearTimeout(this.#timer);
    this.#timer = undefined;
    this.#next = undefined;
    this.#underWay?.abort();
  }

  #go(): void {
    this.#timer = undefined;
    if (!this.#next) return;
    const { what, isLast } = this.#next;
    this.#next = undefined;
    this.#requestedAt = performance.now();
    this.#underWay?.abort();
    const controller = new AbortController();
    this.#underWay = controller;
    this.ask(what, isLast, controller.signal).catch((error) => {
      if (!controller.signal.aborted) throw error;
    });
  }
}
