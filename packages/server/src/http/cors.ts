import type { IncomingMessage, ServerResponse } from "node:http";
import { VARIES_ANYWAY } from "./send-reply.ts";

const EXPOSED = "ETag, X-Request-Id, RateLimit, RateLimit-Policy, Retry-After, Server-Timing";

/**
 * Lets pages of any origin read what this service answers, errors too; whether a key may be used there is for the key's
 * own check. Answers preflights itself.
 * @returns whether it was one
 */
export function openToPages({ headers, method }: IncomingMessage, response: ServerResponse): boolean {
  response.setHeader("Access-Control-Allow-Origin", headers.origin ?? "*");
  response.setHeader("Vary", VARIES_ANYWAY.join(", "));
  response.setHeader("Access-Control-Expose-Headers", EXPOSED);
  response.setHeader("Cross-Origin-Resource-Policy", "cross-origin");
  response.setHeader("X-Content-Type-Options", "nosniff");
  if (method !== "OPTIONS") return false;
  response
    .setHeader("Access-Control-Allow-Methods", "GET, POST")
    .setHeader("Access-Control-Allow-Headers", "Authorization, Content-Type, Bibliotope-Situation")
    .setHeader("Access-Control-Max-Age", "86400");
  response.statusCode = 204;
  response.end();
  return true;
}
