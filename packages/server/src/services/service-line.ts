import type { ServiceOutcome, ServiceValues } from "@bibliotope/core/service";
import CircuitBreaker from "opossum";
import { CallFailed } from "./call-failed.ts";

/** What one call of a service came to. */
export interface ServiceCallResult {
  outcome: ServiceOutcome;
  values: ServiceValues;
  took: number;
}

/** How often one may ask at once where it is not said, and milliseconds for which a service is left alone. */
const [AT_ONCE, ALONE_FOR] = [20, 30_000];
/** Failures of so many calls in the last minute, in percent, after which it is left alone; no fewer calls than these. */
const [TOO_MANY, AT_LEAST, WITHIN] = [50, 5, 60_000];
/** Times that are kept for the median. */
const TIMES = 200;

/** Thrown where as many requests of a service are under way as may be. */
export class LineFull extends Error {}

/** The calls of one service: how many at once, how they ended, and when it is left alone. */
export class ServiceLine {
  readonly #breaker: CircuitBreaker<[() => Promise<ServiceCallResult>], ServiceCallResult>;
  #answered = 0;
  #failed = 0;
  #failingSince: Date | undefined;
  #lastWords = "";
  #aloneUntil: Date | undefined;
  readonly #times: number[] = [];

  constructor(atOnce = AT_ONCE) {
    this.#breaker = new CircuitBreaker((ask: () => Promise<ServiceCallResult>) => ask(), {
      timeout: false,
      capacity: atOnce,
      errorThresholdPercentage: TOO_MANY,
      volumeThreshold: AT_LEAST,
      rollingCountTimeout: WITHIN,
      resetTimeout: ALONE_FOR,
      // a service that refuses or has nothing is there; one that is called too often at once has not failed
      errorFilter: (error: unknown) => !(error instanceof CallFailed && isAway(error.outcome)),
    });
    this.#breaker.on("open", () => {
      this.#aloneUntil = new Date(Date.now() + ALONE_FOR);
    });
    this.#breaker.on("close", () => {
      this.#aloneUntil = undefined;
    });
  }

  /** @throws CallFailed as the call does, or while it is left alone @throws LineFull */
  async ask(call: () => Promise<ServiceCallResult>): Promise<ServiceCallResult> {
    try {
      const result = await this.#breaker.fire(call);
      this.#answered++;
      this.#failingSince = undefined;
      this.#times.push(result.took);
      if (this.#times.length > TIMES) this.#times.shift();
      return result;
    } catch (error) {
      const { code } = error as { code?: string };
      if (code === "ESEMLOCKED") throw new LineFull();
      if (code === "EOPENBREAKER") throw new CallFailed("down", `It is paused for a while. ${this.#lastWords}`);
      if (error instanceof CallFailed) {
        this.#failed++;
        this.#failingSince ??= new Date();
        this.#lastWords = error.message;
      }
      throw error;
    }
  }

  get state() {
    const { opened } = this.#breaker;
    const how = opened ? "alone" : this.#failingSince ? "failing" : this.#answered ? "answering" : "unasked";
    const at = opened ? this.#aloneUntil : this.#failingSince;
    const sorted = this.#times.toSorted((a, b) => a - b);
    return {
      how: how as "alone" | "failing" | "answering" | "unasked",
      ...(at ? { at: at.toISOString() } : {}),
      words: how === "answering" || how === "unasked" ? "" : this.#lastWords,
      answered: this.#answered,
      failed: this.#failed,
      median: sorted.length ? Math.round(sorted[sorted.length >> 1]) : null,
    };
  }

  close(): void {
    this.#breaker.shutdown();
  }
}

const isAway = (outcome: ServiceOutcome) => outcome === "down" || outcome === "slow" || outcome === "malformed";
