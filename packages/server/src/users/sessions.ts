import type { Knex } from "knex";
import { isDatabaseAway } from "../database/connect.ts";
import { hashOf } from "../keys/secrets.ts";
import { sessionUser, type User } from "./users.repository.ts";

/** Sessions seen lately. With the database away, those that were known go on until they expire. */
export class Sessions {
  readonly #seen = new Map<string, { user: User; expires: Date }>();

  constructor(private readonly database: Knex) {}

  async find(token: string): Promise<User | undefined> {
    const hash = hashOf(token);
    try {
      const session = await sessionUser(this.database, token);
      if (session) this.#seen.set(hash, session);
      else this.#seen.delete(hash);
    } catch (error) {
      if (!isDatabaseAway(error)) throw error;
    }
    const session = this.#seen.get(hash);
    return session && session.expires > new Date() ? session.user : undefined;
  }
}

/** The token that a page must send with every change; another site cannot know it. */
export function csrfOf(sessionSecret: string): string {
  return hashOf(`csrf ${sessionSecret}`);
}
