/** Lookups that are answered before the connections get their turn again: some milliseconds. */
const A_TURN = 4;
/** Milliseconds that a lookup may wait; one that would wait longer is refused before anything is done for it. */
const LONGEST = 150;
/** Milliseconds that a lookup takes, until that is known, and how quickly what is known follows what is measured. */
const [FIRST_GUESS, FOLLOWS] = [0.5, 0.05];
/** What is measured counts for no more than this: a pause of the process is not the time of a lookup. */
const MOST_EACH = 5;

interface Waiting {
  run: () => void;
  isGone: () => boolean;
}

/**
 * Lookups in the order in which they came, answered some at a time, so that between them the process hears who else comes
 * and who has left. What it could not answer soon is refused at once; whoever has gone away is passed over.
 */
export class WaitingLine {
  readonly #line: Waiting[] = [];
  #first = 0;
  /** Milliseconds from one lookup to the next, of late: with all that the process does between them. */
  #each = FIRST_GUESS;
  /** Lookups answered in this turn of the event loop. */
  #inTurn = 0;
  #isTurnWatched = false;
  #planned = 0;
  /** When the lookup before this one began, since when the process has had lookups to answer. */
  #began: number | undefined;

  /** @param now the time in milliseconds */
  constructor(private readonly now = () => performance.now()) {}

  /** How many wait. */
  get length(): number {
    return this.#line.length - this.#first;
  }

  /**
   * Does something at once, or in the turn.
   * @param isGone whether nobody waits for it any more
   * @returns false when it would have to wait too long; it is not done then
   */
  enter(run: () => void, isGone: () => boolean): boolean {
    if (!this.length && this.#inTurn < A_TURN) {
      this.#run(run);
      return true;
    }
    if (this.length * this.#each > LONGEST) return false;
    this.#line.push({ run, isGone });
    this.#plan();
    return true;
  }

  /** Each is an immediate of its own, so that what a lookup leaves for later is done before the next one begins. */
  #plan(): void {
    for (; this.#planned < Math.min(A_TURN, this.length); this.#planned++) setImmediate(() => this.#next());
  }

  #next(): void {
    this.#planned--;
    while (this.length) {
      const { run, isGone } = this.#line[this.#first++];
      if (isGone()) continue;
      this.#run(run);
      break;
    }
    if (this.#first > 1000) {
      this.#line.splice(0, this.#first);
      this.#first = 0;
    }
    // planned anew only when the last of this turn is done: the next ones come after the connections
    if (this.#planned === 0) this.#plan();
  }

  #run(run: () => void): void {
    const now = this.now();
    if (this.#began !== undefined) this.#each += FOLLOWS * (Math.min(now - this.#began, MOST_EACH) - this.#each);
    this.#began = now;
    this.#inTurn++;
    this.#watchTurn();
    run();
  }

  /** Begins to count anew once this turn is over. */
  #watchTurn(): void {
    if (this.#isTurnWatched) return;
    this.#isTurnWatched = true;
    setImmediate(() => {
      this.#isTurnWatched = false;
      this.#inTurn = 0;
      if (!this.length) this.#began = undefined;
    });
  }
}
