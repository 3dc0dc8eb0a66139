import { passkeySignInRequest, signInRequest } from "@bibliotope/wire";
import express, { type Request, type Router } from "express";
import { ipKeyGenerator } from "express-rate-limit";
import type { Knex } from "knex";
import { BODY_LIMIT, HttpProblem } from "../http/problem.ts";
import { type PublicPlace, passkeyPlaceOf } from "../http/public-place.ts";
import { readRequest } from "../http/read-request.ts";
import { exactRouter } from "../http/router.ts";
import type { NoteSecurity } from "../http/security-log.ts";
import { keepSession } from "../http/session.ts";
import type { Sealing } from "../services/sealing.ts";
import { MINUTES } from "../users/guesses.ts";
import { passkeyOptions } from "../users/passkeys.ts";
import { signIn, signInByPasskey, signInByPassword } from "../users/users.repository.ts";

interface Needs {
  database: Knex;
  sealing: Sealing;
  place: PublicPlace;
  /** Called after a link was used. */
  signedIn: () => void;
  noteSecurity: NoteSecurity;
}

/**
 * `/sign-in?token=…` uses a one-time link up, `POST /sign-in` takes name and password, `POST /sign-in/passkey` a passkey; each
 * makes a session.
 */
export function signInRoutes({ database, sealing, place, signedIn, noteSecurity: note }: Needs): Router {
  const router = exactRouter();
  const json = express.json({ limit: BODY_LIMIT, strict: false });
  router.get("/sign-in", async (request, response) => {
    const { token } = request.query;
    const session = typeof token === "string" ? await signIn(database, token, begunBy(request)) : undefined;
    response.set("Cache-Control", "no-store").set("Referrer-Policy", "no-referrer");
    const address = request.ip ?? "";
    note({ event: "signed in by link", ended: session ? "done" : "link used or old", address });
    if (!session) return void response.redirect(303, `${place.path}/?link=used`);
    keepSession(request, response, session);
    signedIn();
    response.redirect(303, `${place.path}/`);
  });
  router.post("/sign-in", json, async (request, response) => {
    fromOwnPages(request);
    const params = readRequest(request, signInRequest);
    const tried = await signInByPassword(database, sealing, params, begunBy(request));
    const ended = typeof tried === "string" ? tried : "done";
    note({ event: "signed in by password", ended, name: params.name, address: request.ip ?? "" });
    if (typeof tried === "string") throw REFUSED[tried]();
    response.set("Cache-Control", "no-store");
    keepSession(request, response, tried.secret);
    response.status(204).end();
  });
  router.post("/sign-in/passkey/options", json, async (request, response) => {
    fromOwnPages(request);
    const options = await passkeyOptions(sealing, passkeyPlaceOf(request, place));
    response.set("Cache-Control", "no-store").json({ options });
  });
  router.post("/sign-in/passkey", json, async (request, response) => {
    fromOwnPages(request);
    const { used } = readRequest(request, passkeySignInRequest);
    const at = passkeyPlaceOf(request, place);
    const secret = await signInByPasskey(database, sealing, at, used, begunBy(request));
    note({ event: "signed in by passkey", ended: secret ? "done" : "wrong", address: request.ip ?? "" });
    if (!secret) throw new HttpProblem("not-signed-in", "This passkey is unknown. Sign in with name and password.");
    response.set("Cache-Control", "no-store");
    keepSession(request, response, secret);
    response.status(204).end();
  });
  return router;
}

const codeIs = (message: string, detail: string) =>
  new HttpProblem("not-signed-in", detail, [{ parameter: "code", message }]);

const REFUSED = {
  "too many": () =>
    new HttpProblem(
      "too-many",
      `Too many wrong passwords. Wait ${MINUTES} minutes, or use a sign-in link; npm start prints one.`,
      undefined,
      { "Retry-After": String(MINUTES * 60) },
    ),
  wrong: () => new HttpProblem("not-signed-in", "The name or password is wrong."),
  "needs code": () => codeIs("is needed", "Enter the code shown in your authenticator app."),
  "wrong code": () =>
    codeIs("is not valid", "This code is not valid now or was already used. Use the next one in the app."),
} as const;

function fromOwnPages(request: Request): void {
  if (["same-origin", undefined].includes(request.get("Sec-Fetch-Site"))) return;
  throw new HttpProblem("not-allowed", "Sign in from the workbench itself.");
}

/** Addresses of IPv6 are counted by their network: a guest has as many of them as they like. */
const begunBy = (request: Request) => ({ agent: request.get("User-Agent") ?? "", address: addressOf(request) });

/** Where a request is counted as coming from. */
export const addressOf = (request: Request): string => ipKeyGenerator(request.ip ?? "");
