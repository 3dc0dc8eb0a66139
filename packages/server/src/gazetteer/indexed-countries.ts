import type { Engine } from "@bibliotope/core/search";

/** A country of an index. */
export interface IndexedCountry {
  /** Its number among the things of the segment. */
  area: number;
  code: string;
}

/** The countries of the open index. */
export function indexedCountries({ segment }: Pick<Engine, "segment">): IndexedCountry[] {
  const countries: IndexedCountry[] = [];
  for (let area = 0; area < segment.meta.counts.areas; area++) {
    const code = segment.kindOf(area) === "country" ? segment.areaCode(area) : undefined;
    if (code !== undefined) countries.push({ area, code });
  }
  return countries;
}
