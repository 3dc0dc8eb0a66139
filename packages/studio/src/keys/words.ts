import {
  KEY_CALL_WORDS,
  type KeyKind,
  type KeySummary,
  PAGE_CALLS,
  PROGRAM_KINDS,
  PROGRAM_LIMIT,
  type UseOutcome,
  type UsesAnswer,
} from "@bibliotope/wire";
import type { ChartColour } from "../ui/Chart.tsx";

/** What the kinds of key are for. */
export const KIND_WORDS: Readonly<Record<KeyKind, { name: string; use: string }>> = {
  web: {
    name: "pages",
    use: "Used in pages, where anyone can read it. It works only on the origins it lists.",
  },
  view: {
    name: "web views",
    use: "Shipped with an app that shows pages in a web view. It works on the origins it lists, including custom schemes.",
  },
  srv: { name: "servers", use: "Stays on a server and is refused in browsers." },
  app: { name: "programs", use: "Shipped with a native app. Anyone who has the app can read it." },
  try: { name: "tests", use: "For rehearsals and tests. It can simulate situations and is counted separately." },
};

/** Kinds of key that work only from the origins that they name. */
export const namesOrigins = (kind: KeyKind) => kind === "web" || kind === "view";

/** What a key is kept to, in words; nothing for one that may do everything. */
export function keptTo({ kind, origins, calls, countries, perMinute, perDay }: KeySummary): string[] {
  const minute = perMinute ?? (PROGRAM_KINDS.has(kind) ? PROGRAM_LIMIT : null);
  return [
    ...(namesOrigins(kind) ? [origins.length ? origins.join(", ") : "no origins yet"] : []),
    ...(calls.length ? [calls.map((call) => KEY_CALL_WORDS[call]).join(", ")] : []),
    ...(countries.length ? [countries.join(", ")] : []),
    ...(minute ? [`${minute.toLocaleString("en")} per minute`] : []),
    ...(perDay ? [`${perDay.toLocaleString("en")} per day`] : []),
  ];
}

/** Whether a key works, in words. */
export function keyStatus(
  { endsAt, usedAt }: KeySummary,
  now = Date.now(),
): "ended" | "ends" | "never used" | "in use" {
  if (endsAt && Date.parse(endsAt) <= now) return "ended";
  if (endsAt) return "ends";
  return usedAt ? "in use" : "never used";
}

/** How lookups end, in words and in the theme's colours; the usual ones first. */
export const OUTCOME_WORDS: Readonly<Record<UseOutcome, { name: string; colour: ChartColour }>> = {
  matched: { name: "found", colour: "verdigris" },
  differs: { name: "partial", colour: "moss" },
  ambiguous: { name: "several", colour: "indigo" },
  none: { name: "none", colour: "ochre" },
  malformed: { name: "invalid", colour: "plum" },
  refused: { name: "refused", colour: "slate" },
  limited: { name: "over limit", colour: "quiet" },
  failed: { name: "failed", colour: "madder" },
};

/** Every moment of the time that is looked at, those without any lookup too. */
export function momentsOf({ step, from, to }: Pick<UsesAnswer, "step" | "from" | "to">): string[] {
  const width = step === "hour" ? 3_600_000 : 86_400_000;
  const moments: string[] = [];
  for (let at = Date.parse(from); at <= Date.parse(to); at += width) moments.push(new Date(at).toISOString());
  return moments;
}

export interface UseSum {
  lookups: number;
  /** Shares of those that were answered, 0 to 1. */
  none: number;
  several: number;
  /** Characters typed for one choice; undefined with no choice. */
  letters: number | undefined;
}

/** Lookups alone, without the pieces of maps and forms. */
export const lookupsOf = (uses: UsesAnswer["uses"]) => uses.filter(({ call }) => !PAGE_CALLS.includes(call));

export function sumOf({ uses: all, choices }: Pick<UsesAnswer, "uses" | "choices">): UseSum {
  const uses = lookupsOf(all);
  const count = (...outcomes: UseOutcome[]) =>
    uses.reduce((sum, use) => sum + (outcomes.length && !outcomes.includes(use.outcome) ? 0 : use.count), 0);
  const answered = count("matched", "differs", "ambiguous", "none") || 1;
  return {
    lookups: count(),
    none: count("none") / answered,
    several: count("ambiguous") / answered,
    letters: choices.count ? choices.letters / choices.count : undefined,
  };
}
