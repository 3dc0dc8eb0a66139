import type { Knex } from "knex";
import { type Amount, countProcesses, giveBack, lease } from "./permits.repository.ts";

/** Whether a lookup may go on, and what is left after it. */
export interface Standing {
  isGranted: boolean;
  /** As far as this process knows. */
  left: number;
  /** Seconds until the window ends. */
  endsIn: number;
}

/** Milliseconds: an empty amount is looked at again, since permits may have been given back. */
const LOOK_AGAIN = 250;
/** Milliseconds after which permits that nobody uses are given back. */
const IDLE = 1000;
/** Milliseconds that a lookup waits for the database before it goes on without. */
const PATIENCE = 1000;
/** Times of `tend` after which the processes are counted anew. */
const COUNT_EVERY = 5;

/** What this process holds of one amount of one key. */
interface Lease {
  key: number;
  amount: Amount;
  turn: number;
  /** Permits that are ours and not used. */
  unused: number;
  /** What is left beside them, as of the last look. */
  left: number;
  /** Moments of performance.now(). */
  endsAt: number;
  lookedAt: number;
  usedAt: number;
  /** Lookups that wait for more. */
  waiting: number;
  /** The asking for more that goes on. */
  asking: Promise<void> | undefined;
}

/**
 * Limits of keys, exact over all server processes: each leases permits from PostgreSQL in blocks, so that most lookups
 * wait for nothing. While the database is away each process grants its share of the limit.
 */
export class Permits {
  readonly #leases = new Map<string, Lease>();
  #processes = 1;
  #tended = 0;

  constructor(private readonly database: Knex) {}

  /** Uses up one permit of an amount, if there is one. */
  take(key: number, amount: Amount): Standing | Promise<Standing> {
    const held = this.#leaseOf(key, amount);
    return this.#use(held) ?? this.#wait(held);
  }

  /** Gives back what is not used, and counts the processes; called every second. */
  async tend(): Promise<void> {
    const now = performance.now();
    if (this.#tended++ % COUNT_EVERY === 0) this.#processes = await countProcesses(this.database);
    for (const [name, held] of this.#leases) {
      if (held.endsAt <= now && !held.waiting) this.#leases.delete(name);
      else if (held.unused && held.turn && now - held.usedAt > IDLE) await this.#giveBack(held);
    }
  }

  /** Gives everything back, before the process ends. */
  async stop(): Promise<void> {
    for (const held of this.#leases.values()) if (held.unused && held.turn) await this.#giveBack(held);
  }

  #leaseOf(key: number, amount: Amount): Lease {
    const name = `${key} ${amount.name}`;
    let held = this.#leases.get(name);
    if (!held) {
      const nothing = { turn: 0, unused: 0, left: amount.most, endsAt: 0, lookedAt: 0, usedAt: 0, waiting: 0 };
      held = { key, amount, ...nothing, asking: undefined };
      this.#leases.set(name, held);
    }
    held.amount = amount;
    return held;
  }

  /** The standing, where it needs no asking. */
  #use(held: Lease): Standing | undefined {
    const now = performance.now();
    if (now >= held.endsAt) return undefined;
    const endsIn = (held.endsAt - now) / 1000;
    if (held.unused > 0) {
      held.unused--;
      held.usedAt = now;
      return { isGranted: true, left: held.unused + held.left, endsIn };
    }
    if (held.left === 0 && now - held.lookedAt < LOOK_AGAIN) return { isGranted: false, left: 0, endsIn };
    return undefined;
  }

  async #wait(held: Lease): Promise<Standing> {
    held.waiting++;
    try {
      for (;;) {
        held.asking ??= this.#ask(held).finally(() => {
          held.asking = undefined;
        });
        await held.asking;
        const standing = this.#use(held);
        if (standing) return standing;
      }
    } finally {
      held.waiting--;
    }
  }

  async #ask(held: Lease): Promise<void> {
    const asked = lease(this.database, held.key, held.amount, held.waiting);
    const leased = await within(PATIENCE, asked).catch(() => undefined);
    const now = performance.now();
    held.lookedAt = now;
    held.usedAt = now;
    if (leased) {
      // what was granted while the database was away counts for the window before
      held.unused = leased.granted;
      held.turn = leased.turn;
      held.left = leased.left;
      held.endsAt = now + leased.endsIn * 1000;
    } else this.#goOnAlone(held, now);
  }

  /** Without the database: our share of what is left of the window, or of a new one. */
  #goOnAlone(held: Lease, now: number): void {
    const isOver = now >= held.endsAt;
    const left = isOver ? held.amount.most : held.left;
    held.unused = Math.floor(left / this.#processes);
    held.left = 0;
    held.turn = 0;
    if (isOver) held.endsAt = now + held.amount.seconds * 1000;
  }

  async #giveBack(held: Lease): Promise<void> {
    const { key, amount, turn, unused } = held;
    held.unused = 0;
    held.left += unused;
    await giveBack(this.database, key, amount.name, { turn, unused });
  }
}

function within<T>(milliseconds: number, wanted: Promise<T>): Promise<T> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error("the database takes too long")), milliseconds);
    wanted.then(resolve, reject).finally(() => clearTimeout(timer));
  });
}
