import type { KeyCall, UseOutcome } from "@bibliotope/wire";
import type { Knex } from "knex";
import { onceMore } from "../once-more.ts";
import { addUses, bucketOf, type Choices, type Use } from "./uses.repository.ts";

const HOUR = 3_600_000;

/** Counts lookups in memory; they are written down together, so that none of them waits. */
export class UseCounter {
  #uses = new Map<string, Use>();
  #choices = new Map<string, Choices>();

  constructor(
    private readonly database: Knex,
    private readonly counts = true,
  ) {}

  count(key_id: number, call: KeyCall, outcome: UseOutcome, milliseconds: number): void {
    if (!this.counts) return;
    const hour = Math.floor(Date.now() / HOUR);
    const bucket = bucketOf(milliseconds);
    const name = `${hour} ${key_id} ${call} ${outcome} ${bucket}`;
    const existing = this.#uses.get(name);
    if (existing) existing.count++;
    else this.#uses.set(name, { hour: new Date(hour * HOUR), key_id, call, outcome, bucket, count: 1 });
  }

  /** A line was chosen from a list after so many characters. */
  chosen(key_id: number, letters: number): void {
    const hour = Math.floor(Date.now() / HOUR);
    const name = `${hour} ${key_id} ${letters}`;
    const existing = this.#choices.get(name);
    if (existing) existing.count++;
    else this.#choices.set(name, { hour: new Date(hour * HOUR), key_id, letters, count: 1 });
  }

  /**
   * Writes down all that was counted until now; what cannot be written is kept for the next time. Ends after a write that
   * was under way, too: what that writes can be read then.
   */
  readonly write = onceMore(async () => {
    const [uses, choices] = [this.#uses, this.#choices];
    if (!uses.size && !choices.size) return;
    this.#uses = new Map();
    this.#choices = new Map();
    try {
      await addUses(this.database, [...uses.values()], [...choices.values()]);
    } catch (error) {
      restore(this.#uses, uses);
      restore(this.#choices, choices);
      throw error;
    }
  });
}

function restore<T extends { count: number }>(to: Map<string, T>, from: ReadonlyMap<string, T>): void {
  for (const [name, row] of from) {
    const existing = to.get(name);
    if (existing) existing.count += row.count;
    else to.set(name, row);
  }
}
