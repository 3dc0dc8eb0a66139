import type { CookieOptions, Request, RequestHandler, Response } from "express";
import { csrfOf, type Sessions } from "../users/sessions.ts";
import { SESSION_DAYS, type Session } from "../users/users.repository.ts";
import { HttpProblem } from "./problem.ts";

const DAY = 24 * 60 * 60 * 1000;
const COOKIE: CookieOptions = { httpOnly: true, sameSite: "strict", maxAge: SESSION_DAYS * DAY, path: "/" };

/** Name of the setting for serving over TLS alone; see `isSafe`. */
export const SAFE = "comes over TLS only";

const isOverTls = ({ app, secure }: Request) => app.enabled(SAFE) || secure;

/** Name of the setting that has the port of the public URL, where there is one. */
export const PUBLIC_PORT = "port of the public URL";

/**
 * Cookies are shared by all ports of a host: the name carries the port, so that two installations do not sign each other out. It
 * is the public port where that is known: servers behind one balancer, each on a port of its own, take the same cookie.
 * Over TLS its name keeps other hosts of the domain from setting it (`__Host-`, RFC 6265bis).
 */
function sessionCookie(request: Request): string {
  const port = request.app.get(PUBLIC_PORT) ?? request.socket.localPort;
  return `${isOverTls(request) ? "__Host-" : ""}bibliotope_${port}`;
}

/** Hands a session's secret to the browser; over a safe connection only, where there is one. */
export function keepSession(request: Request, response: Response, secret: string): void {
  response.cookie(sessionCookie(request), secret, { ...COOKIE, secure: isOverTls(request) });
}

export function dropSession(request: Request, response: Response): void {
  const { maxAge: _, ...cookie } = COOKIE;
  response.clearCookie(sessionCookie(request), { ...cookie, secure: isOverTls(request) });
}

export function sessionSecret(request: Request): string | undefined {
  const secret = request.cookies?.[sessionCookie(request)];
  return typeof secret === "string" ? secret : undefined;
}

/** Lets a signed-in user through; changes must also carry the session's CSRF token and come from our own pages. */
export function requireSession(sessions: Sessions): RequestHandler {
  return async (request, response, next) => {
    const secret = sessionSecret(request);
    const session = secret && (await sessions.find(secret));
    if (!secret || !session)
      throw new HttpProblem(
        "not-signed-in",
        "Sign in with name and password, or open the sign-in link that npm start printed.",
      );
    if (request.method !== "GET" && request.method !== "HEAD") checkOwnPage(request, session);
    response.locals.session = session;
    response.locals.user = session.user;
    response.set("Cache-Control", "no-store");
    next();
  };
}

function checkOwnPage(request: Request, session: Session): void {
  const site = request.get("Sec-Fetch-Site");
  if (request.get("X-CSRF-Token") === csrfOf(session) && (site === undefined || site === "same-origin")) return;
  throw new HttpProblem("not-allowed", "A change must come from the workbench itself. Reload the page and try again.");
}
