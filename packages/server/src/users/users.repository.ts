import type {
  ChangePersonRequest,
  MakePersonRequest,
  PasskeyCredential,
  PersonSummary,
  SessionSummary,
  SignInRequest,
} from "@bibliotope/wire";
import type { Knex } from "knex";
import type { Rows } from "../database/tables.ts";
import { hashOf, newSecret } from "../keys/secrets.ts";
import type { Sealing } from "../services/sealing.ts";
import { dropCodes, takeCode } from "./codes.ts";
import { noteRight, noteTry } from "./guesses.ts";
import { nameKey } from "./name-key.ts";
import { type PasskeyPlace, usePasskey } from "./passkeys.ts";
import { hashPassword, isPassword } from "./passwords.ts";
import { eraseData } from "./person-data.ts";
import type { User } from "./user.ts";

/** A session as it is stored: whose it is, and when it ends. */
export interface Session {
  user: User;
  expires: Date;
  /** What stays the same while the secret is made anew. */
  family: string;
  /** The secret is old enough to be made anew. */
  isOld: boolean;
}

const LINK_HOURS = 24;
export const SESSION_DAYS = 30;
/** Hours after which a session's secret is made anew, and seconds for which the one before still works. */
const [ROTATE_HOURS, GRACE_SECONDS] = [24, 60];
/** Days without a request after which a session ends; and hours after which it is noted again that it is used. */
const [IDLE_DAYS, NOTED_HOURS] = [14, 1];

/** What a session was begun with, for the person to know it by. */
export interface Begun {
  agent: string;
  address: string;
}

const FIRST = "The reading network";

/** The first user, made when there is none: whoever can read the terminal of this machine. */
export async function firstUser(database: Knex): Promise<User> {
  const stored = await database("users").orderBy("id").first();
  if (stored) return userOf(stored);
  const [made] = await database("users")
    .insert({ name: FIRST, name_key: nameKey(FIRST), role: "manage" })
    .returning("*");
  return userOf(made);
}

/** A new sign-in token; it works once, within a day. */
export async function makeSignInToken(database: Knex, user: Pick<User, "id">): Promise<string> {
  const token = newSecret();
  await database("sign_in_links").where("expires_at", "<", database.fn.now()).delete();
  await database("sign_in_links").insert({
    token_hash: hashOf(token),
    user_id: user.id,
    expires_at: database.raw("now() + ? * interval '1 hour'", [LINK_HOURS]),
  });
  return token;
}

/** Uses a sign-in token up. @returns a new session's secret, or undefined when the link was used or is too old */
export async function signIn(database: Knex, token: string, begun: Begun): Promise<string | undefined> {
  return database.transaction(async (transaction) => {
    const [used] = await transaction("sign_in_links")
      .where({ token_hash: hashOf(token), used_at: null })
      .where("expires_at", ">", transaction.fn.now())
      .update({ used_at: transaction.fn.now() })
      .returning("user_id");
    return used && makeSession(transaction, used.user_id, begun);
  });
}

/**
 * Signs in by name and password.
 * @param begun where it is tried from, and by what
 * @returns a new session's secret; "wrong" when they do not fit, "needs code" and "wrong code" when they fit and a code of an app is
 * requested, "too many" when more was tried than is looked at
 * @throws Busy where too many passwords wait to be looked at
 */
export async function signInByPassword(
  database: Knex,
  sealing: Sealing,
  { name, password, code }: SignInRequest,
  { agent, address }: Begun,
): Promise<{ secret: string } | "wrong" | "too many" | "needs code" | "wrong code"> {
  const key = nameKey(name);
  const { isTooMany } = await noteTry(database, key, address);
  if (isTooMany) return "too many";
  const stored = await database("users").where({ name_key: key }).first("id", "password_hash", "codes_since");
  if (!(await isPassword(stored?.password_hash, password)) || !stored) return "wrong";
  if (stored.codes_since && code === undefined) return "needs code";
  if (stored.codes_since && !(await takeCode(database, sealing, stored, code ?? ""))) return "wrong code";
  await noteRight(database, stored.id, key, address);
  return { secret: await makeSession(database, stored.id, { agent, address }) };
}

/** Signs in by a passkey. @returns a new session's secret, or undefined when it does not fit */
export async function signInByPasskey(
  database: Knex,
  sealing: Sealing,
  place: PasskeyPlace,
  used: PasskeyCredential,
  begun: Begun,
): Promise<string | undefined> {
  const user = await usePasskey(database, sealing, place, used);
  return user === undefined ? undefined : makeSession(database, user, begun);
}

/** Whether somebody who is signed in repeats their password; true for one who has none. Wrong ones count as at the door. */
export async function saysAgain(
  database: Knex,
  user: User,
  password: string | undefined,
  address: string,
): Promise<boolean> {
  const stored = await database("users").where({ id: user.id }).first("password_hash", "name_key");
  if (!stored?.password_hash) return true;
  const { id, isTooMany } = await noteTry(database, stored.name_key, address);
  if (isTooMany || !(await isPassword(stored.password_hash, password ?? ""))) return false;
  await database("sign_in_tries").where({ id }).delete();
  return true;
}

async function makeSession(database: Knex, user_id: number, { agent, address }: Begun): Promise<string> {
  const secret = newSecret();
  await database("sessions").where("expires_at", "<", database.fn.now()).delete();
  await database("users").where({ id: user_id }).update({ signed_in_at: database.fn.now() });
  await database("sessions").insert({
    token_hash: hashOf(secret),
    family: newSecret(),
    user_id,
    agent: agent.slice(0, 300),
    address,
    expires_at: database.raw("now() + ? * interval '1 day'", [SESSION_DAYS]),
  });
  return secret;
}

/** Makes a session's secret anew; the one before works a moment longer, for requests that are under way. */
export async function rotateSession(database: Knex, secret: string): Promise<string | undefined> {
  const next = newSecret();
  const changed = await database("sessions")
    .where({ token_hash: hashOf(secret) })
    .update({ token_hash: hashOf(next), previous_hash: hashOf(secret), rotated_at: database.fn.now() });
  return changed ? next : undefined;
}

export async function endSession(database: Knex, secret: string): Promise<void> {
  await ofSecret(database, secret).delete();
}

/** The session of a secret, if it is still good. */
export async function readSession(database: Knex, secret: string): Promise<Session | undefined> {
  const row = await ofSecret(database, secret)
    .join("users", "users.id", "sessions.user_id")
    .where("expires_at", ">", database.fn.now())
    .whereRaw("seen_at > now() - ? * interval '1 day'", [IDLE_DAYS])
    .first("users.*", "expires_at", "family", "token_hash", {
      is_old: database.raw("rotated_at < now() - ? * interval '1 hour'", [ROTATE_HOURS]),
      is_to_note: database.raw("seen_at < now() - ? * interval '1 hour'", [NOTED_HOURS]),
    });
  if (!row) return undefined;
  if (row.is_to_note)
    await database("sessions").where({ token_hash: row.token_hash }).update({ seen_at: database.fn.now() });
  const isCurrent = row.token_hash === hashOf(secret);
  return {
    user: userOf(row),
    expires: row.expires_at,
    family: row.family ?? row.token_hash,
    isOld: isCurrent && row.is_old,
  };
}

/** A person's sessions, the newest first. @param family of the one that asks */
export async function listSessions(database: Knex, user: Pick<User, "id">, family: string): Promise<SessionSummary[]> {
  const rows = await database("sessions")
    .where({ user_id: user.id })
    .where("expires_at", ">", database.fn.now())
    .whereRaw("seen_at > now() - ? * interval '1 day'", [IDLE_DAYS])
    .orderBy("made_at", "desc")
    .select("made_at", "seen_at", "agent", "address", "family");
  return rows.map((row) => ({
    madeAt: row.made_at.toISOString(),
    seenAt: row.seen_at.toISOString(),
    agent: row.agent,
    address: row.address,
    isThis: row.family === family,
  }));
}

/** Ends a person's other sessions. @returns how many */
export const endOtherSessions = (database: Knex, user: Pick<User, "id">, family: string): Promise<number> =>
  database("sessions").where({ user_id: user.id }).whereNot({ family }).delete();

const ofSecret = (database: Knex, secret: string) =>
  database("sessions").where((query) =>
    query
      .where({ token_hash: hashOf(secret) })
      .orWhere((before) =>
        before
          .where({ previous_hash: hashOf(secret) })
          .whereRaw("rotated_at > now() - ? * interval '1 second'", [GRACE_SECONDS]),
      ),
  );

export async function listPeople(database: Knex): Promise<PersonSummary[]> {
  const withPasskeys = new Set(await database("passkeys").distinct("user_id").pluck("user_id"));
  return (await database("users").orderBy("id")).map((row) => ({
    ...userOf(row),
    hasSecondFactor: row.codes_since !== null || withPasskeys.has(row.id),
    signedInAt: row.signed_in_at?.toISOString() ?? null,
  }));
}

/** @returns undefined when somebody has that name already */
export async function makePerson(
  database: Knex,
  { name, role, password }: MakePersonRequest,
): Promise<number | undefined> {
  const [made] = await database("users")
    .insert({ name, name_key: nameKey(name), role, password_hash: await hashPassword(password) })
    .onConflict("name_key")
    .ignore()
    .returning("id");
  return made?.id;
}

/** Changes somebody; a new password ends their sessions. */
export async function changePerson(
  database: Knex,
  id: number,
  { name, role, password, dropSecondFactor }: ChangePersonRequest,
): Promise<"changed" | "missing" | "taken" | "last"> {
  const password_hash = password === undefined ? undefined : await hashPassword(password);
  return database.transaction(async (transaction) => {
    if (role && role !== "manage" && (await isLastManager(transaction, id))) return "last";
    const taken =
      name &&
      (await transaction("users")
        .where({ name_key: nameKey(name) })
        .whereNot({ id })
        .first());
    if (taken) return "taken";
    const values = {
      ...(name ? { name, name_key: nameKey(name) } : {}),
      ...(role ? { role } : {}),
      ...(password_hash ? { password_hash } : {}),
    };
    const found = Object.keys(values).length
      ? await transaction("users").where({ id }).update(values)
      : await transaction("users").where({ id }).first();
    if (!found) return "missing";
    if (dropSecondFactor) {
      await dropCodes(transaction, { id });
      await transaction("passkeys").where({ user_id: id }).delete();
    }
    if (password_hash || dropSecondFactor) await transaction("sessions").where({ user_id: id }).delete();
    return "changed";
  });
}

/** Changes one's own password; one's other sessions end. @returns false when the one before was wrong */
export async function changePassword(
  database: Knex,
  user: User,
  family: string,
  { before, password }: { before?: string | undefined; password: string },
  address: string,
): Promise<boolean> {
  if (!(await saysAgain(database, user, before, address))) return false;
  await database("users")
    .where({ id: user.id })
    .update({ password_hash: await hashPassword(password) });
  await database("sessions").where({ user_id: user.id }).whereNot({ family }).delete();
  return true;
}

/** Takes somebody out with everything that is known of them; what they made for others stays. */
export async function removePerson(database: Knex, id: number): Promise<"removed" | "missing" | "last"> {
  return database.transaction(async (transaction) => {
    if (await isLastManager(transaction, id)) return "last";
    await eraseData(transaction, id);
    return (await transaction("users").where({ id }).delete()) ? "removed" : "missing";
  });
}

/** Without somebody who manages, nobody could let anybody in. */
async function isLastManager(database: Knex, id: number): Promise<boolean> {
  const managers = await database("users").where({ role: "manage" }).forUpdate().select("id");
  return managers.length === 1 && managers[0].id === id;
}

const userOf = ({
  id,
  name,
  role,
  password_hash,
}: Pick<Rows["users"], "id" | "name" | "role" | "password_hash">): User => ({
  id,
  name,
  role,
  hasPassword: password_hash !== null,
});
