import { type CookieOptions, Router } from "express";
import type { Knex } from "knex";
import { sessionCookie } from "../http/session.ts";
import { SESSION_DAYS, signIn } from "../users/users.repository.ts";

const DAY = 24 * 60 * 60 * 1000;
const COOKIE: CookieOptions = { httpOnly: true, sameSite: "strict", maxAge: SESSION_DAYS * DAY, path: "/" };

/** `/sign-in?token=…`: uses a one-time link up and makes a session. @param used called after a link was used */
export function signInRoute(database: Knex, used: () => void): Router {
  return Router().get("/sign-in", async (request, response) => {
    const { token } = request.query;
    const session = typeof token === "string" ? await signIn(database, token) : undefined;
    response.set("Cache-Control", "no-store").set("Referrer-Policy", "no-referrer");
    if (!session) return void response.redirect(303, "/?link=used");
    response.cookie(sessionCookie(request), session, COOKIE);
    used();
    response.redirect(303, "/");
  });
}
