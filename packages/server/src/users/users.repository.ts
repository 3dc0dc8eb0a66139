import type { Knex } from "knex";
import { hashOf, newSecret } from "../keys/secrets.ts";

export interface User {
  id: number;
  name: string;
}

const LINK_HOURS = 24;
export const SESSION_DAYS = 30;

/** The first user, made when there is none: whoever can read the terminal of this machine. */
export async function firstUser(database: Knex): Promise<User> {
  const held = await database("users").orderBy("id").first("id", "name");
  if (held) return held;
  const [made] = await database("users").insert({ name: "The reading network" }).returning(["id", "name"]);
  return made;
}

/** A new sign-in token; it works once, within a day. */
export async function makeSignInToken(database: Knex, user: User): Promise<string> {
  const token = newSecret();
  await database("sign_in_links").where("expires_at", "<", database.fn.now()).delete();
  await database("sign_in_links").insert({
    token_hash: hashOf(token),
    user_id: user.id,
    expires_at: database.raw("now() + ? * interval '1 hour'", [LINK_HOURS]),
  });
  return token;
}

/** Uses a sign-in token up. @returns a new session's token, or undefined when the link was used or is too old */
export async function signIn(database: Knex, token: string): Promise<string | undefined> {
  return database.transaction(async (transaction) => {
    const [used] = await transaction("sign_in_links")
      .where({ token_hash: hashOf(token), used_at: null })
      .where("expires_at", ">", transaction.fn.now())
      .update({ used_at: transaction.fn.now() })
      .returning("user_id");
    if (!used) return undefined;
    const session = newSecret();
    await transaction("sessions").where("expires_at", "<", transaction.fn.now()).delete();
    await transaction("sessions").insert({
      token_hash: hashOf(session),
      user_id: used.user_id,
      expires_at: transaction.raw("now() + ? * interval '1 day'", [SESSION_DAYS]),
    });
    return session;
  });
}

export async function endSession(database: Knex, token: string): Promise<void> {
  await database("sessions")
    .where({ token_hash: hashOf(token) })
    .delete();
}

/** The user of a session, and when it ends. */
export async function sessionUser(database: Knex, token: string): Promise<{ user: User; expires: Date } | undefined> {
  const row = await database("sessions")
    .join("users", "users.id", "sessions.user_id")
    .where({ token_hash: hashOf(token) })
    .where("expires_at", ">", database.fn.now())
    .first("users.id", "users.name", "expires_at");
  return row && { user: { id: row.id, name: row.name }, expires: row.expires_at };
}
