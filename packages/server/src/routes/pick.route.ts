import { readFileSync } from "node:fs";
import { join } from "node:path";
import { isRightToLeft } from "@bibliotope/core/map";
import { type PickRequest, PLAIN_ORIGIN, pickRequest } from "@bibliotope/wire";
import type { Request, Response, Router } from "express";
import { escapeHtml } from "../http/pages.ts";
import { HttpProblem } from "../http/problem.ts";
import { type PublicPlace, originOf as whereFound } from "../http/public-place.ts";
import { queryOf, read } from "../http/read-request.ts";
import { exactRouter } from "../http/router.ts";
import { allowsOrigin, type KeyRing } from "../keys/key-ring.ts";
import { hasEnded, type StoredKey } from "../keys/keys.repository.ts";

/** How the page begins before anybody requested it in a language. */
const PLAIN_HEAD = '<html lang="en" dir="ltr" data-night="">';
const LOOPBACK = /^https?:\/\/(?:localhost|127\.0\.0\.1|\[::1\])(?::\d+)?$/;

/**
 * `/pick`: search, map and mark as a page of its own, for a window, a frame or a web view. It hands back to an origin that
 * its key names, and to no other; only that origin may show it in a frame.
 */
export function pickRoute(ring: KeyRing, kitFolder: string, place: PublicPlace): Router {
  const page = readFileSync(join(kitFolder, "pick.html"), "utf8");
  return exactRouter().get("/pick", (request, response) => {
    const params = readPick(request);
    const target = checkTarget(params, keyOf(ring, params), whereFound(request, place));
    const { lang = "en", night = "", label } = params;
    const filled: Readonly<Record<string, string>> = { title: label ?? "Bibliotope", params: JSON.stringify(params) };
    const dir = isRightToLeft(lang) ? "rtl" : "ltr";
    const own = page.replace(PLAIN_HEAD, `<html lang="${lang}" dir="${dir}" data-night="${night}">`);
    openTo(response, params.origin === undefined ? undefined : target);
    response
      .set("Cache-Control", "no-store")
      .type("html")
      .send(own.replace(/\{(title|params)\}/g, (_, name: string) => escapeHtml(filled[name])));
  });
}

/** Schemes that open nothing but run or read something. */
const REFUSED = /^(?:javascript|vbscript|data|blob|file|about|view-source):/i;

/** The origin of an address, of a scheme of the program's own too; undefined for what is none. */
function originOf(address: string): string | undefined {
  if (!URL.canParse(address) || REFUSED.test(address.trim())) return undefined;
  const { protocol, host, username, password } = new URL(address);
  const origin = `${protocol}//${host}`;
  return !username && !password && PLAIN_ORIGIN.test(origin) ? origin : undefined;
}

/** @throws HttpProblem with the first thing that is wrong, for whoever wrote the address */
function readPick(request: Request): PickRequest {
  try {
    return read(Object.fromEntries(queryOf(request.originalUrl)), pickRequest);
  } catch (error) {
    if (!(error instanceof HttpProblem) || !error.issues?.length) throw error;
    const [{ parameter, message }] = error.issues;
    throw new HttpProblem("malformed", `The URL of the picker is wrong: ${parameter}: ${message}.`, error.issues);
  }
}

function keyOf(ring: KeyRing, { key: given }: PickRequest): StoredKey {
  const key = ring.find(given);
  if (!key || hasEnded(key)) throw new HttpProblem("no-key", "The picker's key is unknown, revoked or expired.");
  if (key.kind === "srv" || key.kind === "app")
    throw new HttpProblem("not-allowed", "The picker needs a web key or a key for web views. Revoke this one.");
  return key;
}

/** The origin that it hands back to; a bridge stays within the program. @throws HttpProblem for one that the key does not name */
function checkTarget({ origin, redirect }: PickRequest, key: StoredKey, own: string): string | undefined {
  const target = origin ?? (redirect === undefined ? undefined : originOf(redirect));
  if (redirect !== undefined && target === undefined)
    throw new HttpProblem("malformed", "The URL of the picker is wrong: redirect is not a URL it can go to.");
  if (target === undefined || target === own) return target;
  const isAllowed = key.kind === "try" ? LOOPBACK.test(target) : allowsOrigin(key, target);
  if (isAllowed) return target;
  throw new HttpProblem(
    "not-allowed",
    `The key “${key.name}” does not allow ${target}. Add that origin to the key in the workbench.`,
  );
}

/** Lets an origin show the page in a frame, and a window that was opened for it speak to the one that opened it. */
function openTo(response: Response, origin: string | undefined): void {
  response.removeHeader("X-Frame-Options");
  response.setHeader("Cross-Origin-Opener-Policy", "unsafe-none");
  const policy = String(response.getHeader("Content-Security-Policy"));
  response.setHeader(
    "Content-Security-Policy",
    origin ? policy.replace("frame-ancestors 'none'", `frame-ancestors ${origin}`) : policy,
  );
}
