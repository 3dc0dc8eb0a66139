import { randomBytes } from "node:crypto";
import type { RequestHandler, Response } from "express";
import helmet from "helmet";

/**
 * A strict content security policy; a new nonce for every answer, for the styles that dialogs inject.
 * @param pictureOrigins where maps may fetch pictures from, as it is now
 */
export const pagePolicy = (pictureOrigins: () => readonly string[]): RequestHandler[] => [
  (_request, response, next) => {
    response.locals.nonce = randomBytes(16).toString("base64");
    next();
  },
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'", (_request, response) => `'nonce-${(response as Response).locals.nonce}'`],
        fontSrc: ["'self'"],
        imgSrc: ["'self'", "data:", "blob:"],
        connectSrc: ["'self'", () => pictureOrigins().join(" ")],
        workerSrc: ["'self'", "blob:"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
        baseUri: ["'none'"],
      },
    },
    // served on loopback without TLS; a proxy in front adds it
    strictTransportSecurity: false,
    crossOriginEmbedderPolicy: false,
  }),
];

const ENTITIES: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;", "'": "&#39;" };

/** Text as text within HTML, whatever it holds. */
export function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, (unit) => ENTITIES[unit]);
}
