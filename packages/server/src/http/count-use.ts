import { OUTCOMES } from "@bibliotope/core/place";
import { KEY_CALLS, type KeyCall, type UseOutcome } from "@bibliotope/wire";
import type { Request, Response } from "express";
import type { HeldKey } from "../keys/keys.repository.ts";
import type { UseCounter } from "../keys/use-counter.ts";

const CALLS: ReadonlySet<string> = new Set(KEY_CALLS);
const HELD: ReadonlySet<unknown> = new Set<UseOutcome>(OUTCOMES);

/** Counts an answer to a key once it is sent: what was asked, how it ended, how long it took. */
export function countUse(request: Request, response: Response, counter: UseCounter, key: HeldKey): void {
  const call = request.path.split("/")[1];
  if (!CALLS.has(call)) return;
  const began = performance.now();
  response.once("finish", () => {
    counter.count(key.id, call as KeyCall, outcomeOf(response), performance.now() - began);
    if (response.locals.typed !== undefined) counter.chosen(key.id, response.locals.typed);
  });
}

/** How an answer ended; one that has no outcome, such as a picture, was found. What is not known is never counted so. */
function outcomeOf({ statusCode, locals }: Response): UseOutcome {
  if (statusCode === 429) return "limited";
  if (statusCode === 401 || statusCode === 403) return "refused";
  if (statusCode === 404 || statusCode === 410) return "none";
  if (statusCode >= 500) return "failed";
  if (statusCode >= 400) return "malformed";
  if (locals.outcome === undefined) return "matched";
  return HELD.has(locals.outcome) ? locals.outcome : "failed";
}
