import type { Position } from "@bibliotope/core/geo";

/** Milliseconds between two questions: no more than four a second. */
const GAP = 250;

/** Asks about a position that moves: at a sane rate, the last one always, and only the answer to the last one counts. */
export class Follower {
  #next: { at: Position; isLast: boolean } | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #asked = Number.NEGATIVE_INFINITY;
  #underWay: AbortController | undefined;

  /** @param ask is given a signal that aborts when a later question is asked; what it throws then is dropped */
  constructor(private readonly ask: (at: Position, isLast: boolean, signal: AbortSignal) => Promise<void>) {}

  /** The position is now here. @param isLast true when it has come to rest */
  move(at: Position, isLast: boolean): void {
    this.#next = { at, isLast };
    this.#timer ??= setTimeout(() => this.#go(), Math.max(0, this.#asked + GAP - performance.now()));
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
    const { at, isLast } = this.#next;
    this.#next = undefined;
    this.#asked = performance.now();
    this.#underWay?.abort();
    const controller = new AbortController();
    this.#underWay = controller;
    this.ask(at, isLast, controller.signal).catch((error) => {
      if (!controller.signal.aborted) throw error;
    });
  }
}
