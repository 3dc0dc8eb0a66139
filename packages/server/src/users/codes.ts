import type { BegunCodes } from "@bibliotope/wire";
import type { Knex } from "knex";
import { Secret, TOTP } from "otpauth";
import type { Sealing } from "../services/sealing.ts";
import { signInThread } from "./sign-in-thread.ts";
import type { User } from "./user.ts";

const ISSUER = "Bibliotope";
/** Steps of half a minute before and after this one whose codes are taken: clocks differ. */
const WINDOW = 1;
const SECRET_BYTES = 20;

const sealName = (user: Pick<User, "id">) => `codes of ${user.id}`;

/** What an app shows codes by (RFC 6238: SHA-1, six digits, half a minute, which every app takes). */
const totpOf = (secret: string, label: string) =>
  new TOTP({ issuer: ISSUER, label, secret: Secret.fromBase32(secret) });

/** Makes a secret for an app; codes are requested once one of it was confirmed. What was requested until now stays. */
export async function beginCodes(database: Knex, sealing: Sealing, user: User): Promise<BegunCodes | "on already"> {
  const secret = new Secret({ size: SECRET_BYTES }).base32;
  const begun = await database("users")
    .where({ id: user.id, codes_since: null })
    .update({ codes_secret: sealing.seal(sealName(user), secret), codes_step: null });
  if (!begun) return "on already";
  const uri = totpOf(secret, user.name).toString();
  return { secret, uri, picture: await signInThread.run("drawCode", uri) };
}

/** Codes are requested from now on, when one fits. */
export async function confirmCodes(database: Knex, sealing: Sealing, user: User, code: string): Promise<boolean> {
  if (!(await takeCode(database, sealing, user, code))) return false;
  await database("users").where({ id: user.id }).update({ codes_since: database.fn.now() });
  return true;
}

export async function dropCodes(database: Knex, user: Pick<User, "id">): Promise<void> {
  await database("users").where({ id: user.id }).update({ codes_secret: null, codes_since: null, codes_step: null });
}

/** Uses a code up. @returns false for one that does not fit now, or was used */
export async function takeCode(
  database: Knex,
  sealing: Sealing,
  user: Pick<User, "id">,
  code: string,
): Promise<boolean> {
  const stored = await database("users").where({ id: user.id }).first("codes_secret");
  const secret = stored?.codes_secret && sealing.open(sealName(user), stored.codes_secret);
  if (!secret) return false;
  const totp = totpOf(secret, "");
  const timestamp = Date.now();
  const off = totp.validate({ token: code, window: WINDOW, timestamp });
  if (off === null) return false;
  const step = totp.counter({ timestamp }) + off;
  const taken = await database("users")
    .where({ id: user.id })
    .where((free) => free.whereNull("codes_step").orWhere("codes_step", "<", step))
    .update({ codes_step: step });
  return taken > 0;
}
