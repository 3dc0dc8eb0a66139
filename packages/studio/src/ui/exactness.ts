import type { Exactness } from "@bibliotope/core/place";

/** How exact a position is, in words. */
export const EXACTNESS_WORDS: Readonly<Record<Exactness, string>> = {
  surveyed: "surveyed",
  between: "between two houses",
  along: "along the street",
  centre: "its centre",
};
