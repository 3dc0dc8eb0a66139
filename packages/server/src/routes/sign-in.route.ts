import { signInAsking } from "@bibliotope/wire";
import express, { type Request, type Router } from "express";
import { ipKeyGenerator, rateLimit } from "express-rate-limit";
import type { Knex } from "knex";
import { readAsking } from "../http/asking.ts";
import { BODY_LIMIT, HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import { keepSession } from "../http/session.ts";
import { signIn, signInByPassword } from "../users/users.repository.ts";

/** Wrong passwords for one name from one place before they are slowed down, and minutes for which they count. */
const [MOST_WRONG, WRONG_MINUTES] = [5, 5];

/**
 * `/sign-in?token=…` uses a one-time link up, `POST /sign-in` takes name and password; both make a session.
 * @param used called after a link was used
 */
export function signInRoutes(database: Knex, used: () => void): Router {
  const router = exactRouter();
  router.get("/sign-in", async (request, response) => {
    const { token } = request.query;
    const session = typeof token === "string" ? await signIn(database, token) : undefined;
    response.set("Cache-Control", "no-store").set("Referrer-Policy", "no-referrer");
    if (!session) return void response.redirect(303, "/?link=used");
    keepSession(request, response, session);
    used();
    response.redirect(303, "/");
  });
  router.post("/sign-in", express.json({ limit: BODY_LIMIT, strict: false }), slowDown(), async (request, response) => {
    if (!["same-origin", undefined].includes(request.get("Sec-Fetch-Site")))
      throw new HttpProblem("not-allowed", "Sign in from the workbench itself.");
    const { name, password } = readAsking(request, signInAsking);
    const session = await signInByPassword(database, name, password);
    if (!session) throw new HttpProblem("not-signed-in", "Name and password do not fit. Look at both, and try again.");
    response.set("Cache-Control", "no-store");
    keepSession(request, response, session);
    response.status(204).end();
  });
  return router;
}

/** Guessing is made slow: after some wrong passwords for a name nothing of that name is looked at for a while. */
function slowDown() {
  return rateLimit({
    windowMs: WRONG_MINUTES * 60_000,
    limit: MOST_WRONG,
    standardHeaders: "draft-8",
    legacyHeaders: false,
    skipSuccessfulRequests: true,
    keyGenerator: (request: Request) =>
      `${ipKeyGenerator(request.ip ?? "")} ${String(request.body?.name ?? "")
        .trim()
        .toLowerCase()
        .slice(0, 200)}`,
    handler: (_request, _response, next) =>
      next(
        new HttpProblem(
          "too-many",
          `Too many wrong passwords for this name. Wait ${WRONG_MINUTES} minutes, or use the sign-in link that npm start printed.`,
        ),
      ),
  });
}
