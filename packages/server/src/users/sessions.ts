import type { Knex } from "knex";
import { isDatabaseAway } from "../database/connect.ts";
import { hashOf } from "../keys/secrets.ts";
import { readSession, type Session } from "./users.repository.ts";

/** Sessions seen lately. With the database away, those that were known go on until they expire. */
export class Sessions {
  readonly #seen = new Map<string, Session>();

  constructor(private readonly database: Knex) {}

  async find(secret: string): Promise<Session | undefined> {
    const hash = hashOf(secret);
    try {
      const session = await readSession(this.database, secret);
      if (session) this.#seen.set(hash, session);
      else this.#seen.delete(hash);
    } catch (error) {
      if (!isDatabaseAway(error)) throw error;
    }
    const session = this.#seen.get(hash);
    return session && session.expires > new Date() ? session : undefined;
  }
}

/** The token that a page must send with every change; another site cannot know it. */
export function csrfOf({ family }: Pick<Session, "family">): string {
  return hashOf(`csrf ${family}`);
}
