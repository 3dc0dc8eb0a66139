import type { RequestHandler } from "express";
import { rateLimit } from "express-rate-limit";
import { HttpProblem } from "./problem.ts";

const MINUTE = 60_000;

/**
 * Lets a key ask so many times a minute; says so in `RateLimit` headers, and answers 429 with `Retry-After` beyond.
 * @param what is asked for, in words: "pictures"
 */
export function limitByKey(limit: number, what: string): RequestHandler {
  return rateLimit({
    windowMs: MINUTE,
    limit,
    standardHeaders: "draft-8",
    legacyHeaders: false,
    keyGenerator: (_request, response) => String(response.locals.key?.id),
    handler: (_request, _response, next) =>
      next(
        new HttpProblem(
          "too-many",
          `A key may ask for ${limit} ${what} a minute. Ask again after the time in Retry-After.`,
        ),
      ),
  });
}
