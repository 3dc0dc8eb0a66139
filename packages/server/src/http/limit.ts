import type { Call } from "@bibliotope/wire";
import type { StoredKey } from "../keys/keys.repository.ts";
import type { Amount } from "../keys/permits.repository.ts";
import type { Permits, RateState } from "../keys/permits.ts";
import { HttpProblem } from "./problem.ts";

/** Pictures that a key may ask for in a minute, since each of them is drawn. */
const PICTURES = 600;

const WORDS: Readonly<Record<Amount["name"], string>> = {
  minute: "lookups per minute",
  day: "lookups per day",
  pictures: "pictures per minute",
};

type Headers = Readonly<Record<string, string>>;

/**
 * Uses up one permit of each amount that a call counts against.
 * @returns what is left, as the headers `RateLimit-Policy` and `RateLimit` say it (draft-ietf-httpapi-ratelimit-headers);
 *   undefined where nothing is counted; a promise where the permits have to be fetched
 * @throws HttpProblem 429 with `Retry-After` where there is none
 */
export function takePermits(permits: Permits, call: Call, key: StoredKey): Headers | undefined | Promise<Headers> {
  const amounts = amountsOf(key, call);
  if (!amounts.length) return undefined;
  const standings: RateState[] = [];
  for (const amount of amounts) {
    const taken = permits.take(key.id, amount);
    // most are granted at once: waiting for a promise would let other requests go first
    if (!("isGranted" in taken)) return takeRest(permits, key, amounts, standings, taken);
    standings.push(taken);
    if (!taken.isGranted) throw refusal(key, amounts, standings);
  }
  return headersOf(amounts, standings);
}

async function takeRest(
  permits: Permits,
  key: StoredKey,
  amounts: readonly Amount[],
  standings: RateState[],
  awaited: Promise<RateState>,
): Promise<Headers> {
  for (let taken: RateState | Promise<RateState> = awaited; ; taken = permits.take(key.id, amounts[standings.length])) {
    const standing = await taken;
    standings.push(standing);
    if (!standing.isGranted) throw refusal(key, amounts, standings);
    if (standings.length === amounts.length) return headersOf(amounts, standings);
  }
}

function amountsOf({ perMinute, perDay }: StoredKey, { key: { counts } }: Call): Amount[] {
  if (counts === "nothing") return [];
  return [
    ...(perMinute ? [{ name: "minute" as const, most: perMinute, seconds: 60 }] : []),
    ...(perDay ? [{ name: "day" as const, most: perDay, seconds: 86_400 }] : []),
    ...(counts === "picture" ? [{ name: "pictures" as const, most: PICTURES, seconds: 60 }] : []),
  ];
}

function headersOf(amounts: readonly Amount[], standings: readonly RateState[]): Record<string, string> {
  return {
    "RateLimit-Policy": amounts.map(({ name, most, seconds }) => `"${name}";q=${most};w=${seconds}`).join(", "),
    RateLimit: standings
      .map(({ left, endsIn }, i) => `"${amounts[i].name}";r=${left};t=${Math.ceil(endsIn)}`)
      .join(", "),
  };
}

function refusal(key: StoredKey, amounts: readonly Amount[], standings: readonly RateState[]): HttpProblem {
  const last = standings.length - 1;
  const { name, most } = amounts[last];
  const wait = Math.max(1, Math.ceil(standings[last].endsIn));
  return new HttpProblem(
    "too-many",
    `The key “${key.name}” allows ${most.toLocaleString("en")} ${WORDS[name]}. Try again in ${timeOf(wait)}.`,
    undefined,
    { ...headersOf(amounts, standings), "Retry-After": String(wait) },
  );
}

function timeOf(seconds: number): string {
  if (seconds < 120) return `${seconds} s`;
  return seconds < 7200 ? `${Math.ceil(seconds / 60)} minutes` : `${Math.ceil(seconds / 3600)} hours`;
}
