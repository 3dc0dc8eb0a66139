import type { Engine } from "@bibliotope/core/search";
import { LRUCache } from "lru-cache";
import type { LiveIndex } from "../publication/live-index.ts";
import type { Incoming } from "./incoming.ts";
import type { Reply } from "./send-reply.ts";

/** Bytes of answers that are kept. */
const KEPT = 32 * 1024 * 1024;
/** Bytes of an answer beside the body. */
const BESIDE = 400;

/**
 * Answers kept for the same question: everybody types the first letters of an address. They are of one index and
 * one state of what was corrected by hand; with the next, all are forgotten.
 */
export class KeptReplies {
  readonly #kept = new LRUCache<string, Reply>({
    maxSize: KEPT,
    sizeCalculation: ({ body }, name) => body.length + name.length * 2 + BESIDE,
  });
  #of: Engine | undefined;
  /** How many questions were made that may be kept, and how many of them were. */
  readonly counts = { requests: 0, kept: 0 };

  constructor(
    private readonly index: Pick<LiveIndex, "engine">,
    private readonly keeps = true,
  ) {}

  find(incoming: Incoming): Reply | undefined {
    const { engine } = this.index;
    if (engine !== this.#of) {
      this.#kept.clear();
      this.#of = engine;
    }
    incoming.keepAs = this.keeps && mayBeKept(incoming) ? nameOf(incoming) : undefined;
    if (incoming.keepAs === undefined) return undefined;
    this.counts.requests++;
    const found = this.#kept.get(incoming.keepAs);
    if (!found) return undefined;
    this.counts.kept++;
    return { ...found, took: 0 };
  }

  keep({ keepAs, engineAsked }: Incoming, reply: Reply): void {
    // of the index that answered, which may have been swapped meanwhile
    if (keepAs !== undefined && engineAsked && engineAsked === this.#of) this.#kept.set(keepAs, reply);
  }
}

/** Only answers that depend on nothing but the index and what is in the name. */
function mayBeKept(incoming: Incoming): boolean {
  const { isGet, call, key, url, request } = incoming;
  if (!isGet || !call.keeps || request.headers["bibliotope-situation"] !== undefined) return false;
  // grids of heights come and go without the index
  if (url.includes("height=") && incoming.query.has("height")) return false;
  // however it is written: other keys are refused one, which is never kept
  return key.kind === "try" ? !incoming.query.has("situation") : !url.includes("situation");
}

/** All that an answer depends on, the index apart. */
function nameOf({ request, url, key: { countries } }: Incoming): string {
  const { accept = "", "accept-language": languages = "" } = request.headers;
  return `${countries.join()}\n${accept}\n${languages}\n${url.replace(TOKEN, "")}`;
}

const TOKEN = /(?<=[?&])access_token=[^&]*&?/;
