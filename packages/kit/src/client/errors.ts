import type { Problem } from "@bibliotope/wire";
import { say } from "../words/say.ts";

/** Why a lookup gave no answer. */
export type LookupTrouble = "offline" | "slow" | "refused" | "limit" | "malformed" | "missing" | "broken";

/** A lookup that was not answered. Never looks like an empty list. */
export class LookupError extends Error {
  override name = "LookupError";

  constructor(
    readonly trouble: LookupTrouble,
    /** What to tell the person who fills the form. */
    message: string,
    /** What the service said, for the developer. */
    readonly problem?: Problem,
    /** Whether a retry may help. */
    readonly again = false,
    /** Milliseconds after which the service wants to be tried again, where it said so. */
    readonly after?: number,
  ) {
    super(message);
  }
}

const wordsOf = (trouble: LookupTrouble): string =>
  ({
    offline: say("The address search cannot be reached. Check the connection, or type the address by hand."),
    slow: say("The address search takes too long. Try again, or type the address by hand."),
    refused: say("Address search is not allowed on this page."),
    limit: say("Too many searches just now. Wait a moment, or type the address by hand."),
    malformed: say("The address search could not read this. Type the address by hand."),
    missing: say("This address is no longer there. Choose another."),
    broken: say("The address search does not work at the moment. Type the address by hand."),
  })[trouble];

const reported = new Set<string>();

/** Warns once in the console about a key: whoever fills in the form can do nothing about it. */
function tellDeveloper(problem: Problem | undefined): void {
  const detail = problem?.detail;
  if (!detail || reported.has(detail)) return;
  reported.add(detail);
  console.warn(`Bibliotope: ${detail}`);
}

/** The error for an answer that is not 2xx. */
export function errorOf(status: number, problem: Problem | undefined, after?: number): LookupError {
  if (status === 401 || status === 403) tellDeveloper(problem);
  if (status === 401 || status === 403)
    // what is to be done about a key is for the developer: it is in the problem
    return new LookupError("refused", wordsOf("refused"), problem);
  if (status === 429) return new LookupError("limit", wordsOf("limit"), problem, true, after);
  if (status === 404 || status === 410) return new LookupError("missing", wordsOf("missing"), problem);
  if (status >= 500) return new LookupError("broken", wordsOf("broken"), problem, true, after);
  return new LookupError("malformed", wordsOf("malformed"), problem);
}

export function unreachable(trouble: "offline" | "slow"): LookupError {
  return new LookupError(trouble, wordsOf(trouble), undefined, true);
}
