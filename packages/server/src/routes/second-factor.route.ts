import type { SecondFactorAnswer } from "@bibliotope/wire";
import type { Knex } from "knex";
import type { Own, OwnHandlers } from "../http/own.ts";
import { HttpProblem } from "../http/problem.ts";
import { type PublicPlace, passkeyPlaceOf } from "../http/public-place.ts";
import type { Sealing } from "../services/sealing.ts";
import * as codes from "../users/codes.ts";
import * as passkeys from "../users/passkeys.ts";
import type { User } from "../users/user.ts";
import { endOtherSessions, saysAgain } from "../users/users.repository.ts";
import { notThePassword } from "./people.route.ts";
import { addressOf } from "./sign-in.route.ts";

interface Needs {
  database: Knex;
  sealing: Sealing;
  place: PublicPlace;
}

/** One's own second factor: codes of an authenticator app, and passkeys. */
export function secondFactorHandlers({ database, sealing, place }: Needs) {
  return {
    secondFactor,
    beginCodes,
    confirmCodes,
    dropCodes,
    askPasskey,
    keepPasskey,
    dropPasskey,
  } satisfies Partial<OwnHandlers>;

  async function secondFactor({ user }: Own<"secondFactor">) {
    return state(user);
  }

  async function beginCodes(own: Own<"beginCodes">) {
    await again(own);
    const begun = await codes.beginCodes(database, sealing, own.user);
    if (begun === "on already")
      throw new HttpProblem("conflict", "One-time codes are already on. Turn them off first to use another app.");
    return begun;
  }

  async function confirmCodes({ params, user, session }: Own<"confirmCodes">) {
    if (!(await codes.confirmCodes(database, sealing, user, params.code)))
      throw new HttpProblem("malformed", "This code is not valid now. Use the next one in the app.", [
        { parameter: "code", message: "is not valid" },
      ]);
    await endOtherSessions(database, user, session.family);
    return state(user);
  }

  async function dropCodes(own: Own<"dropCodes">) {
    await again(own);
    await codes.dropCodes(database, own.user);
    return state(own.user);
  }

  async function askPasskey(own: Own<"askPasskey">) {
    await again(own);
    const at = passkeyPlaceOf(own.request, place);
    const options = await passkeys.newPasskeyOptions(database, sealing, own.user, at);
    if (!options) throw new HttpProblem("conflict", "You have twenty passkeys. Remove one first.");
    return { options: { ...options } };
  }

  async function keepPasskey({ params, user, request }: Own<"keepPasskey">) {
    if (!(await passkeys.keepPasskey(database, sealing, user, passkeyPlaceOf(request, place), params)))
      throw new HttpProblem("malformed", "This passkey cannot be used. Try another one.", [
        { parameter: "made", message: "does not match the request" },
      ]);
    return state(user);
  }

  async function dropPasskey(own: Own<"dropPasskey">) {
    await again(own);
    if (!(await passkeys.dropPasskey(database, own.user, own.parts.id)))
      throw new HttpProblem("not-found", "You have no such passkey.");
    return state(own.user);
  }

  /** Somebody with a password repeats it before they change how they sign in. */
  async function again({ params, user, request }: Own<"beginCodes" | "dropCodes" | "askPasskey" | "dropPasskey">) {
    if (!(await saysAgain(database, user, params.before, addressOf(request)))) throw notThePassword();
  }

  async function state(user: User): Promise<SecondFactorAnswer> {
    const stored = await database("users").where({ id: user.id }).first("codes_since");
    return {
      codesSince: stored?.codes_since?.toISOString() ?? null,
      passkeys: await passkeys.listPasskeys(database, user),
    };
  }
}
