import { boxContains, fromUtm, fromWebMercator, type Position, readUtmZone } from "../geo/index.ts";
import { countryBox } from "../place/index.ts";
import { parseNumber } from "./numbers.ts";
import type { Projection } from "./parts.ts";

/** What metres are taken for, or what is to be decided by a person. */
export interface FoundProjection {
  projection?: Projection;
  /** In words, for the person who decides. */
  why: string;
}

/** Rows that are looked at, and the share of them that must lie in the country. */
const LOOKED_AT = 200;
const MOST = 0.95;

/**
 * Finds what projection metres are of, by where the first rows then lie; it is never guessed: where none fits, or several do, that
 * is said. Zones of UTM are tried that reach the country, and those next to them, since many countries use one for all.
 * @param pairs east and north, as they are written
 * @param country ISO 3166-1 alpha-2 code of what the rows are of
 */
export function findProjection(
  pairs: readonly (readonly [east: string, north: string])[],
  country: string | undefined,
): FoundProjection {
  const box = country ? countryBox(country) : undefined;
  if (!box) return { why: "metres: say of which zone or projection" };
  const metres = pairs
    .slice(0, LOOKED_AT)
    .map(([east, north]) => [parseNumber(east), parseNumber(north)] as const)
    .filter(([east, north]) => Number.isFinite(east) && Number.isFinite(north));
  if (!metres.length) return { why: "holds no metres" };
  const shareIn = (project: (east: number, north: number) => Position | undefined) =>
    metres.filter(([east, north]) => {
      const at = project(east, north);
      return at !== undefined && boxContains(box, at);
    }).length / metres.length;
  const [west, south, east, north] = box;
  const zoneOf = (lon: number) => Math.floor((lon + 180) / 6) + 1;
  const zones: string[] = [];
  for (let zone = Math.max(1, zoneOf(west) - 1); zone <= Math.min(60, zoneOf(east) + 1); zone++)
    for (const half of [...(north > 0 ? ["N"] : []), ...(south < 0 ? ["S"] : [])]) {
      const read = readUtmZone(`${zone}${half}`)!;
      if (shareIn((x, y) => fromUtm(x, y, read)) >= MOST) zones.push(`${zone}${half}`);
    }
  // many a national grid has numbers that would lie in its country by Web Mercator as well: that is for a person to say
  const isWeb = shareIn(fromWebMercator) >= MOST;
  if (zones.length === 1 && !isWeb)
    return {
      projection: { system: "utm", zone: zones[0] },
      why: `metres of UTM ${zones[0]}: they then lie in ${country}`,
    };
  const fitting = [...zones.map((zone) => `UTM ${zone}`), ...(isWeb ? ["Web Mercator"] : [])];
  return {
    why: fitting.length
      ? `metres, which would lie in ${country} by ${fitting.join(", ")}: say which`
      : `metres that lie in ${country} by nothing known here: say of which zone or projection`,
  };
}
