import { randomBytes } from "node:crypto";
import type { RequestHandler, Response } from "express";
import helmet from "helmet";

const YEAR = 365 * 24 * 3600;

/**
 * A strict content security policy; a new nonce for every answer, for the styles that dialogs inject.
 * @param pictureOrigins where maps may fetch pictures from, as it is now
 * @param isOverTls whether people come over TLS alone: browsers are told to use nothing else
 */
export const pagePolicy = (pictureOrigins: () => readonly string[], isOverTls: boolean): RequestHandler[] => [
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
    // of this host alone: what else is in the domain is not for us to say
    strictTransportSecurity: isOverTls ? { maxAge: YEAR, includeSubDomains: false } : false,
    crossOriginEmbedderPolicy: false,
  }),
];

const ENTITIES: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;", "'": "&#39;" };

/** Text as text within HTML, whatever it holds. */
export function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, (unit) => ENTITIES[unit]);
}

/**
 * A page of words, for a person who came to nothing or asks what a problem is.
 * @param path under which people find the server, without a slash at its end
 */
export function wordsPage(title: string, paragraphs: readonly string[], path: string): string {
  const words = paragraphs.map((text) => `<p>${escapeHtml(text)}</p>`).join("");
  return `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(title)}</title>
<link rel="stylesheet" href="${escapeHtml(path)}/kit/v1/place.css">
<main><h1>${escapeHtml(title)}</h1>${words}<p><a href="${escapeHtml(path)}/">Go to the workbench</a></p></main>
</html>`;
}
