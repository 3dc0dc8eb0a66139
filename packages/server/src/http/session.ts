import type { Request, RequestHandler } from "express";
import { csrfOf, type Sessions } from "../users/sessions.ts";
import { HttpProblem } from "./problem.ts";

/** Cookies are shared by all ports of a host: the name carries the port, so that two installations do not sign each other out. */
export function sessionCookie(request: Request): string {
  return `bibliotope_${request.socket.localPort}`;
}

export function sessionSecret(request: Request): string | undefined {
  const token = request.cookies?.[sessionCookie(request)];
  return typeof token === "string" ? token : undefined;
}

/** Lets a signed-in user through; changes must also carry the session's CSRF token and come from our own pages. */
export function requireSession(sessions: Sessions): RequestHandler {
  return async (request, response, next) => {
    const token = sessionSecret(request);
    const user = token && (await sessions.find(token));
    if (!token || !user) throw new HttpProblem("not-signed-in", "Open the sign-in link that npm start printed.");
    if (request.method !== "GET" && request.method !== "HEAD") checkOwnPage(request, token);
    response.locals.user = user;
    response.locals.csrf = csrfOf(token);
    response.set("Cache-Control", "no-store");
    next();
  };
}

function checkOwnPage(request: Request, token: string): void {
  const site = request.get("Sec-Fetch-Site");
  if (request.get("X-CSRF-Token") === csrfOf(token) && (site === undefined || site === "same-origin")) return;
  throw new HttpProblem("not-allowed", "A change must come from the workbench itself. Reload the page and try again.");
}
