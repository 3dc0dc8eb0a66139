import { signInAsking } from "@bibliotope/wire";
import express, { type Request, type Router } from "express";
import { ipKeyGenerator } from "express-rate-limit";
import type { Knex } from "knex";
import { readAsking } from "../http/asking.ts";
import { BODY_LIMIT, HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import type { NoteSecurity } from "../http/security-log.ts";
import { keepSession } from "../http/session.ts";
import { MINUTES } from "../users/guesses.ts";
import { signIn, signInByPassword } from "../users/users.repository.ts";

/**
 * `/sign-in?token=…` uses a one-time link up, `POST /sign-in` takes name and password; both make a session.
 * @param used called after a link was used
 */
export function signInRoutes(database: Knex, used: () => void, note: NoteSecurity): Router {
  const router = exactRouter();
  router.get("/sign-in", async (request, response) => {
    const { token } = request.query;
    const session = typeof token === "string" ? await signIn(database, token, begunBy(request)) : undefined;
    response.set("Cache-Control", "no-store").set("Referrer-Policy", "no-referrer");
    const address = request.ip ?? "";
    note({ event: "signed in by link", ended: session ? "done" : "link used or old", address });
    if (!session) return void response.redirect(303, "/?link=used");
    keepSession(request, response, session);
    used();
    response.redirect(303, "/");
  });
  router.post("/sign-in", express.json({ limit: BODY_LIMIT, strict: false }), async (request, response) => {
    if (!["same-origin", undefined].includes(request.get("Sec-Fetch-Site")))
      throw new HttpProblem("not-allowed", "Sign in from the workbench itself.");
    const asked = readAsking(request, signInAsking);
    const told = (ended: string) =>
      note({ event: "signed in by password", ended, name: asked.name, address: request.ip ?? "" });
    const tried = await signInByPassword(database, asked, begunBy(request));
    told(typeof tried === "string" ? tried : "done");
    if (tried === "too many")
      throw new HttpProblem(
        "too-many",
        `Too many wrong passwords. Wait ${MINUTES} minutes, or use a sign-in link: npm start prints one.`,
        undefined,
        { "Retry-After": String(MINUTES * 60) },
      );
    if (tried === "wrong")
      throw new HttpProblem("not-signed-in", "Name and password do not fit. Look at both, and try again.");
    response.set("Cache-Control", "no-store");
    keepSession(request, response, tried.secret);
    response.status(204).end();
  });
  return router;
}

/** Addresses of IPv6 are counted by their network: a guest has as many of them as they like. */
const begunBy = (request: Request) => ({
  agent: request.get("User-Agent") ?? "",
  address: ipKeyGenerator(request.ip ?? ""),
});
