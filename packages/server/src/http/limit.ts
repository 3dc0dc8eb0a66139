import { KEY_CALLS, PAGE_CALLS } from "@bibliotope/wire";
import type { NextFunction, Request, RequestHandler, Response } from "express";
import type { HeldKey } from "../keys/keys.repository.ts";
import type { Amount } from "../keys/permits.repository.ts";
import type { Permits, Standing } from "../keys/permits.ts";
import { HttpProblem } from "./problem.ts";

/** What counts against a key's amounts: lookups and pictures, not the pieces of a map and the form that is shown. */
const COUNTED: ReadonlySet<string> = new Set(KEY_CALLS.filter((call) => !PAGE_CALLS.includes(call)));
/** Pictures that a key may ask for in a minute, since each of them is drawn. */
const PICTURES = 600;

const WORDS: Readonly<Record<Amount["name"], string>> = {
  minute: "lookups a minute",
  day: "lookups a day",
  pictures: "pictures a minute",
};

/**
 * Lets a key ask as much as it may, says in `RateLimit` what is left (draft-ietf-httpapi-ratelimit-headers), and
 * answers 429 with `Retry-After` beyond.
 */
export function limitByKey(permits: Permits): RequestHandler {
  return async (request, response, next) => {
    const amounts = COUNTED.has(request.path.split("/")[1]) ? amountsOf(response.locals.key, request) : [];
    const standings: Standing[] = [];
    for (const amount of amounts) {
      const taken = permits.take(response.locals.key.id, amount);
      // most are granted at once: waiting for a promise would let other requests go first
      const standing = "isGranted" in taken ? taken : await taken;
      standings.push(standing);
      if (!standing.isGranted) return refuse(response, next, amounts, standings);
    }
    if (amounts.length) response.set(headersOf(amounts, standings));
    next();
  };
}

function amountsOf({ perMinute, perDay }: HeldKey, request: Request): Amount[] {
  return [
    ...(perMinute ? [{ name: "minute" as const, most: perMinute, seconds: 60 }] : []),
    ...(perDay ? [{ name: "day" as const, most: perDay, seconds: 86_400 }] : []),
    ...(request.path.startsWith("/still") ? [{ name: "pictures" as const, most: PICTURES, seconds: 60 }] : []),
  ];
}

function headersOf(amounts: readonly Amount[], standings: readonly Standing[]): Record<string, string> {
  return {
    "RateLimit-Policy": amounts.map(({ name, most, seconds }) => `"${name}";q=${most};w=${seconds}`).join(", "),
    RateLimit: standings
      .map(({ left, endsIn }, i) => `"${amounts[i].name}";r=${left};t=${Math.ceil(endsIn)}`)
      .join(", "),
  };
}

function refuse(response: Response, next: NextFunction, amounts: Amount[], standings: Standing[]): void {
  const { name, most } = amounts[standings.length - 1];
  const wait = Math.max(1, Math.ceil(standings.at(-1)!.endsIn));
  response.set(headersOf(amounts, standings));
  next(
    new HttpProblem(
      "too-many",
      `The key “${response.locals.key.name}” may ask for ${most.toLocaleString("en")} ${WORDS[name]}. Ask again in ${timeOf(wait)}.`,
      undefined,
      { "Retry-After": String(wait) },
    ),
  );
}

function timeOf(seconds: number): string {
  if (seconds < 120) return `${seconds} s`;
  return seconds < 7200 ? `${Math.ceil(seconds / 60)} minutes` : `${Math.ceil(seconds / 3600)} hours`;
}
