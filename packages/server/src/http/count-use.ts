import type { ServerResponse } from "node:http";
import { OUTCOMES } from "@bibliotope/core/place";
import type { KeyCall, UseOutcome } from "@bibliotope/wire";
import type { StoredKey } from "../keys/keys.repository.ts";
import type { UseCounter } from "../keys/use-counter.ts";
import type { Metrics } from "../metrics/metrics.ts";
import type { Reply } from "./send-reply.ts";

const COUNTED: ReadonlySet<unknown> = new Set<UseOutcome>(OUTCOMES);

/** Where lookups are counted: by key for those who own it, and for those who run this process. */
export interface Counters {
  counter: UseCounter;
  metrics?: Metrics;
}

/**
 * Counts an answer to a key once it is sent: what was requested, how it ended, how long it took.
 * @param replied what is known of the answer when it is sent
 */
export function countUse(
  response: ServerResponse,
  { counter, metrics }: Counters,
  key: StoredKey,
  kind: KeyCall,
  replied: () => Pick<Reply, "outcome" | "typed"> | undefined,
): void {
  const began = performance.now();
  response.once("finish", () => {
    const { outcome, typed } = replied() ?? {};
    const [how, milliseconds] = [outcomeOf(response.statusCode, outcome), performance.now() - began];
    counter.count(key.id, kind, how, milliseconds);
    metrics?.answered({ call: kind, outcome: how, kind: key.kind, milliseconds });
    if (typed !== undefined) counter.chosen(key.id, typed);
  });
}

/** How an answer ended; one that has no outcome, such as a picture, was found. What is not known is never counted so. */
function outcomeOf(status: number, outcome: unknown): UseOutcome {
  if (status === 429) return "limited";
  if (status === 401 || status === 403) return "refused";
  if (status === 404 || status === 410) return "none";
  if (status >= 500) return "failed";
  if (status >= 400) return "malformed";
  if (outcome === undefined) return "matched";
  return COUNTED.has(outcome) ? (outcome as UseOutcome) : "failed";
}
