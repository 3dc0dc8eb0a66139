import type { PartName } from "./kinds.ts";

/**
 * What a lookup of an address came to. `matched`: one record explains what was written, and nothing contradicts it.
 * `differs`: one record is the likeliest, and something that was written is not so in it. `ambiguous`: several fit as
 * well. `none`: nothing is likely to be meant.
 */
export const OUTCOMES = ["matched", "differs", "ambiguous", "none"] as const;
export type Outcome = (typeof OUTCOMES)[number];

/**
 * How something written is not so in a record: there is a number near it (`nearby`); nothing like it is stored there
 * (`absent`); it is the name of something else (`other`), or of nothing (`unknown`).
 */
export const DIFFERENCE_HOWS = ["nearby", "absent", "other", "unknown"] as const;
export type DifferenceHow = (typeof DIFFERENCE_HOWS)[number];

/** Something written that is not so in a record. */
export interface Difference {
  part: PartName;
  /** As it was typed. */
  written: string;
  /** What the record has instead; left out when it has nothing. */
  held?: string;
  how: DifferenceHow;
}

/** True for a difference that is only an unknown unit of a house: it never changes an outcome. */
export const isOnlyUnit = ({ part }: Pick<Difference, "part">): boolean => part === "unit";

/** Differences in one cell of a table: `house 12b, held 12; postcode HT9 29, held HT4 29`. */
export function differencesText(differences: readonly Difference[] | undefined): string | undefined {
  if (!differences?.length) return undefined;
  return differences
    .map(
      ({ part, written, held: existing }) =>
        `${part} ${written}, ${existing === undefined ? "not held" : `held ${existing}`}`,
    )
    .join("; ");
}
