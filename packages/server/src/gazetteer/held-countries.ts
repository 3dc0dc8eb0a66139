import type { Engine } from "@bibliotope/core/search";

/** A country of an index. */
export interface HeldCountry {
  /** Its number among the things of the segment. */
  area: number;
  code: string;
}

/** The countries of the open index. */
export function heldCountries({ segment }: Pick<Engine, "segment">): HeldCountry[] {
  const held: HeldCountry[] = [];
  for (let area = 0; area < segment.meta.counts.areas; area++) {
    const code = segment.kindOf(area) === "country" ? segment.areaCode(area) : undefined;
    if (code !== undefined) held.push({ area, code });
  }
  return held;
}
