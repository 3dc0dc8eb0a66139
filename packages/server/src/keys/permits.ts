import type { Knex } from "knex";
import { type Amount, countProcesses, giveBack, lease } from "./permits.repository.ts";

/** Whether a lookup may go on, and what is left after it. */
export interface RateState {
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
  /** What is left beside them, as of the last poll. */
  left: number;
  /** Moments of performance.now(). */
  endsAt: number;
  lookedAt: number;
  usedAt: number;
  /** Lookups that wait for more. */
  waiting: number;
  /** The lease that is under way. */
  pending: Promise<void> | undefined;
}

/**
 * Limits of keys, exact over all server processes: each leases permits from PostgreSQL in blocks, so that most lookups
 * wait for nothing. While the database is away each process grants its share of the limit.
 */
export class Permits {
  readonly #leases = new Map<string, Lease>();
  #processes = 1;
  #tended = 0;

  constructor(
    private readonly database: Knex,
    private readonly count: (database: Knex) => Promise<number> = countProcesses,
  ) {}

  /** Uses up one permit of an amount, if there is one. */
  take(key: number, amount: Amount): RateState | Promise<RateState> {
    const lease = this.#leaseOf(key, amount);
    return this.#use(lease) ?? this.#wait(lease);
  }

  /** Gives back what is not used, and counts the processes; called every second. */
  async tend(): Promise<void> {
    const now = performance.now();
    if (this.#tended++ % COUNT_EVERY === 0) this.#processes = await this.count(this.database);
    for (const [name, lease] of this.#leases) {
      if (lease.endsAt <= now && !lease.waiting) this.#leases.delete(name);
      else if (lease.unused && lease.turn && now - lease.usedAt > IDLE) await this.#giveBack(lease);
    }
  }

  /** Gives everything back, before the process ends. */
  async stop(): Promise<void> {
    for (const lease of this.#leases.values()) if (lease.unused && lease.turn) await this.#giveBack(lease);
  }

  #leaseOf(key: number, amount: Amount): Lease {
    const name = `${key} ${amount.name}`;
    let lease = this.#leases.get(name);
    if (!lease) {
      const nothing = { turn: 0, unused: 0, left: amount.most, endsAt: 0, lookedAt: 0, usedAt: 0, waiting: 0 };
      lease = { key, amount, ...nothing, pending: undefined };
      this.#leases.set(name, lease);
    }
    lease.amount = amount;
    return lease;
  }

  /** The standing, where it needs no lease. */
  #use(lease: Lease): RateState | undefined {
    const now = performance.now();
    if (now >= lease.endsAt) return undefined;
    const endsIn = (lease.endsAt - now) / 1000;
    if (lease.unused > 0) {
      lease.unused--;
      lease.usedAt = now;
      return { isGranted: true, left: lease.unused + lease.left, endsIn };
    }
    if (lease.left === 0 && now - lease.lookedAt < LOOK_AGAIN) return { isGranted: false, left: 0, endsIn };
    return undefined;
  }

  async #wait(lease: Lease): Promise<RateState> {
    lease.waiting++;
    try {
      for (;;) {
        lease.pending ??= this.#ask(lease).finally(() => {
          lease.pending = undefined;
        });
        await lease.pending;
        const standing = this.#use(lease);
        if (standing) return standing;
      }
    } finally {
      lease.waiting--;
    }
  }

  async #ask(existing: Lease): Promise<void> {
    const leasing = lease(this.database, existing.key, existing.amount, {
      wanted: existing.waiting,
      processes: this.#processes,
    });
    const leased = await within(PATIENCE, leasing).catch(() => undefined);
    const now = performance.now();
    existing.lookedAt = now;
    existing.usedAt = now;
    if (leased) {
      // what was granted while the database was away counts for the window before
      existing.unused = leased.granted;
      existing.turn = leased.turn;
      existing.left = leased.left;
      existing.endsAt = now + leased.endsIn * 1000;
    } else this.#goOnAlone(existing, now);
  }

  /** Without the database: our share of what is left of the window, or of a new one. */
  #goOnAlone(lease: Lease, now: number): void {
    const isOver = now >= lease.endsAt;
    const left = isOver ? lease.amount.most : lease.left;
    lease.unused = Math.floor(left / this.#processes);
    lease.left = 0;
    lease.turn = 0;
    if (isOver) lease.endsAt = now + lease.amount.seconds * 1000;
  }

  async #giveBack(lease: Lease): Promise<void> {
    const { key, amount, turn, unused } = lease;
    lease.unused = 0;
    lease.left += unused;
    await giveBack(this.database, key, amount.name, { turn, unused });
  }
}

function within<T>(milliseconds: number, wanted: Promise<T>): Promise<T> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error("the database takes too long")), milliseconds);
    wanted.then(resolve, reject).finally(() => clearTimeout(timer));
  });
}
