import type { RequestHandler } from "express";

const EXPOSED = "ETag, X-Request-Id, RateLimit, RateLimit-Policy, Retry-After, Server-Timing";

/**
 * Lets pages of any origin read what this service answers, errors too; whether a key may be used there is for the key's
 * own check. Answers preflights itself.
 */
export const openToPages: RequestHandler = (request, response, next) => {
  const origin = request.get("Origin");
  response.set("Access-Control-Allow-Origin", origin ?? "*");
  response.vary("Origin");
  response.set("Access-Control-Expose-Headers", EXPOSED);
  response.set("Cross-Origin-Resource-Policy", "cross-origin");
  if (request.method !== "OPTIONS") return next();
  response
    .set("Access-Control-Allow-Methods", "GET, POST")
    .set("Access-Control-Allow-Headers", "Authorization, Content-Type, Bibliotope-Situation")
    .set("Access-Control-Max-Age", "86400")
    .status(204)
    .end();
};
