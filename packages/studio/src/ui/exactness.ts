import type { Exactness } from "@bibliotope/core/place";

/** How exact a position is, in words. */
export const EXACTNESS_WORDS: Readonly<Record<Exactness, string>> = {
  surveyed: "surveyed",
  between: "interpolated between houses",
  along: "on the street",
  centre: "centre of the area",
};
