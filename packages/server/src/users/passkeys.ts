import { randomBytes } from "node:crypto";
import type { PasskeyCredential, PasskeySummary } from "@bibliotope/wire";
import type { AuthenticationResponseJSON, RegistrationResponseJSON } from "@simplewebauthn/server";
import type { Knex } from "knex";
import type { Sealing } from "../services/sealing.ts";
import { signInThread } from "./sign-in-thread.ts";
import type { User } from "./user.ts";

/** Where browsers make and use passkeys: its host is what they are for. */
export interface PasskeyPlace {
  origin: string;
  host: string;
}

/** Milliseconds for which a challenge may be answered. */
const WITHIN = 5 * 60_000;
/** Passkeys that somebody may have. */
const MOST = 20;

/** What a browser is requested a new passkey with. */
export async function newPasskeyOptions(database: Knex, sealing: Sealing, user: User, place: PasskeyPlace) {
  const stored = await database("passkeys").where({ user_id: user.id }).select("id", "transports");
  if (stored.length >= MOST) return undefined;
  return signInThread.run("generateRegistrationOptions", {
    rpName: "Bibliotope",
    rpID: place.host,
    userName: user.name,
    userID: new TextEncoder().encode(`person ${user.id}`),
    challenge: challengeOf(sealing, `new ${user.id}`),
    attestationType: "none",
    excludeCredentials: stored,
    authenticatorSelection: { residentKey: "required", userVerification: "required" },
  });
}

/** Keeps a passkey that a browser made. @returns false for one that was not made here, now, by this person, or is stored already */
export async function keepPasskey(
  database: Knex,
  sealing: Sealing,
  user: User,
  place: PasskeyPlace,
  { name, made }: { name: string; made: PasskeyCredential },
): Promise<boolean> {
  const challenge = challengeIn(made);
  const { verified, registrationInfo } = await signInThread
    .run("verifyRegistrationResponse", {
      response: made as unknown as RegistrationResponseJSON,
      expectedChallenge: challenge,
      expectedOrigin: place.origin,
      expectedRPID: place.host,
      requireUserVerification: true,
    })
    .catch(refused);
  if (!verified || !registrationInfo) return false;
  if (!(await useUp(database, sealing, `new ${user.id}`, challenge))) return false;
  const { id, publicKey, counter, transports = [] } = registrationInfo.credential;
  const row = { id, user_id: user.id, name, public_key: Buffer.from(publicKey), counter, transports };
  const kept = await database("passkeys").insert(row).onConflict("id").ignore().returning("id");
  return kept.length > 0;
}

/** What a browser is requested any passkey of this place with. */
export const passkeyOptions = (sealing: Sealing, place: PasskeyPlace) =>
  signInThread.run("generateAuthenticationOptions", {
    rpID: place.host,
    challenge: challengeOf(sealing, "sign in"),
    userVerification: "required",
  });

/** @returns the number of whoever has the passkey that was used; undefined for one that does not fit */
export async function usePasskey(
  database: Knex,
  sealing: Sealing,
  place: PasskeyPlace,
  used: PasskeyCredential,
): Promise<number | undefined> {
  const stored = await database("passkeys").where({ id: used.id }).first();
  if (!stored) return undefined;
  const challenge = challengeIn(used);
  const { verified, authenticationInfo } = await signInThread
    .run("verifyAuthenticationResponse", {
      response: used as unknown as AuthenticationResponseJSON,
      expectedChallenge: challenge,
      expectedOrigin: place.origin,
      expectedRPID: place.host,
      requireUserVerification: true,
      credential: {
        id: stored.id,
        publicKey: new Uint8Array(stored.public_key),
        counter: Number(stored.counter),
        transports: stored.transports,
      },
    })
    .catch(() => ({ verified: false, authenticationInfo: undefined }));
  if (!verified || !authenticationInfo) return undefined;
  if (!(await useUp(database, sealing, "sign in", challenge))) return undefined;
  await database("passkeys")
    .where({ id: stored.id })
    .update({ counter: authenticationInfo.newCounter, used_at: database.fn.now() });
  return stored.user_id;
}

export async function listPasskeys(database: Knex, user: Pick<User, "id">): Promise<PasskeySummary[]> {
  const rows = await database("passkeys").where({ user_id: user.id }).orderBy("made_at");
  return rows.map(({ id, name, made_at, used_at }) => ({
    id,
    name,
    madeAt: made_at.toISOString(),
    usedAt: used_at?.toISOString() ?? null,
  }));
}

/** @returns how many went */
export const dropPasskey = (database: Knex, user: Pick<User, "id">, id: string): Promise<number> =>
  database("passkeys").where({ user_id: user.id, id }).delete();

/** What cannot be verified throws an error of the library's: it is about bytes from outside, not about our code. */
const refused = (): { verified: boolean; registrationInfo: undefined } => ({
  verified: false,
  registrationInfo: undefined,
});

/**
 * A challenge that every process knows again without having kept it: when it was made, something random, and a signature
 * of both for one purpose.
 */
function challengeOf(sealing: Sealing, purpose: string): Uint8Array<ArrayBuffer> {
  const stamp = Buffer.alloc(8);
  stamp.writeBigUInt64BE(BigInt(Date.now()));
  const body = Buffer.concat([stamp, randomBytes(16)]);
  return new Uint8Array(Buffer.concat([body, sealing.sign(`challenge ${purpose}`, body)]));
}

/** The challenge that a browser states; "" where that cannot be read. Whether it was is for `useUp` to say. */
function challengeIn({ response }: PasskeyCredential): string {
  try {
    const { challenge } = JSON.parse(Buffer.from(String(response.clientDataJSON), "base64url").toString());
    return String(challenge);
  } catch {
    return "";
  }
}

/** True for a challenge that was made here, lately, for a purpose, and that nobody answered until now. */
async function useUp(database: Knex, sealing: Sealing, purpose: string, challenge: string): Promise<boolean> {
  const bytes = Buffer.from(challenge, "base64url");
  const [body, signature] = [bytes.subarray(0, 24), bytes.subarray(24)];
  if (!sealing.isSigned(`challenge ${purpose}`, body, signature)) return false;
  const age = Date.now() - Number(body.readBigUInt64BE());
  if (age > WITHIN) return false;
  await database("used_challenges")
    .where("at", "<", database.raw("now() - ? * interval '2 milliseconds'", [WITHIN]))
    .delete();
  const noted = await database("used_challenges")
    .insert({ challenge: bytes.toString("base64url") })
    .onConflict()
    .ignore()
    .returning("challenge");
  return noted.length > 0;
}
