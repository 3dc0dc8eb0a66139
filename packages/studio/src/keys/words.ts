import type { KeyCall, KeyKind, KeySummary } from "@bibliotope/wire";

/** What the kinds of key are for. */
export const KIND_WORDS: Readonly<Record<KeyKind, { name: string; use: string }>> = {
  web: {
    name: "pages",
    use: "Stands in pages, where everybody can read it: it works only from the origins that it names.",
  },
  srv: { name: "servers", use: "Stays on a server, and is refused from browsers." },
  app: { name: "programs", use: "Goes out with a program that is not a page; whoever has the program can read it." },
  try: { name: "tests", use: "For rehearsals and tests: it may ask for situations, and is counted apart." },
};

/** Kinds of lookup, in words. */
export const CALL_WORDS: Readonly<Record<KeyCall, string>> = {
  suggest: "suggestions",
  forward: "forward",
  reverse: "reverse",
  records: "records",
  postcodes: "postcodes",
  countries: "countries",
  distance: "distances",
  height: "heights",
  still: "pictures",
  sheets: "map",
  forms: "forms",
};

/** What a key is kept to, in words; nothing for one that may do everything. */
export function keptTo({ kind, origins, calls, countries }: KeySummary): string[] {
  return [
    ...(kind === "web" ? [origins.length ? origins.join(", ") : "no origin yet"] : []),
    ...(calls.length ? [calls.map((call) => CALL_WORDS[call]).join(", ")] : []),
    ...(countries.length ? [countries.join(", ")] : []),
  ];
}

/** Whether a key works, in words. */
export function standing({ endsAt, usedAt }: KeySummary, now = Date.now()): "ended" | "ends" | "never used" | "in use" {
  if (endsAt && Date.parse(endsAt) <= now) return "ended";
  if (endsAt) return "ends";
  return usedAt ? "in use" : "never used";
}
