import { type Ring, signedArea } from "@bibliotope/core/geo";
import type { MapFeature } from "@bibliotope/core/map";
import type { Name } from "@bibliotope/core/place";
import { countryNames } from "../world/country-names.ts";
import { type Country, world } from "../world/outlines.ts";

/** Square degrees, as a globe has them, from which a country's name is broad, and from which it is seen from afar. */
const BROAD = 250;
const MIDDLING = 20;
/** Scripts that the map's own fonts have glyphs of. */
const LETTERED: ReadonlySet<string | undefined> = new Set(["Latn", "Grek"]);
/** Rank of coarse land, and of boundaries between countries. */
const COARSE = 2;
const BETWEEN_COUNTRIES = 3;

/** The world's lands with the borders and names of the countries, as a map has them that brings none of its own. */
export function worldFeatures(): MapFeature[] {
  const { land, borders, countries } = world();
  return [
    {
      type: "Feature",
      geometry: { type: "MultiPolygon", coordinates: land },
      properties: { layer: "land", rank: COARSE },
    },
    {
      type: "Feature",
      geometry: { type: "MultiLineString", coordinates: borders },
      properties: { layer: "boundary", rank: BETWEEN_COUNTRIES },
    },
    ...countries.flatMap(nameOf),
  ];
}

function nameOf({ code, polygons }: Country): MapFeature[] {
  const names = namesOf(code);
  const [largest] = polygons.toSorted((a, b) => sizeOf(b[0]) - sizeOf(a[0]));
  if (!names.length || !largest) return [];
  const size = sizeOf(largest[0]);
  return [
    {
      type: "Feature",
      geometry: { type: "Point", coordinates: middleOf(largest) },
      properties: { layer: "name", rank: size > BROAD ? 2 : size > MIDDLING ? 3 : 4, what: "country", names },
    },
  ];
}

/** In the language most spoken there, where the map can letter it, and in English. */
function namesOf(code: string): Name[] {
  const { language, script } = new Intl.Locale(`und-${code}`).maximize();
  const langs = LETTERED.has(script) ? [language, "en"] : ["en"];
  return countryNames(code, langs);
}

/** Square degrees of the equator. */
function sizeOf(ring: Ring): number {
  const south = Math.min(...ring.map(([, lat]) => lat));
  const north = Math.max(...ring.map(([, lat]) => lat));
  return (Math.abs(signedArea(ring)) / 2) * Math.cos((((south + north) / 2) * Math.PI) / 180);
}

/** Parallels on which a polygon is looked through for the broadest stretch. */
const PARALLELS = 24;

/** The middle of a polygon's broadest stretch along a parallel, those in the middle liked better. */
function middleOf(polygon: readonly Ring[]): [number, number] {
  const lats = polygon[0].map(([, lat]) => lat);
  const [south, north] = [Math.min(...lats), Math.max(...lats)];
  let best: [number, number] = [polygon[0][0][0], polygon[0][0][1]];
  let broadest = 0;
  for (let i = 1; i < PARALLELS; i++) {
    const share = i / PARALLELS;
    const lat = south + (north - south) * share;
    const crossed = polygon.flatMap((ring) => crossings(ring, lat)).sort((a, b) => a - b);
    for (let at = 0; at + 1 < crossed.length; at += 2) {
      const [west, east] = [crossed[at], crossed[at + 1]];
      const breadth = (east - west) * Math.cos((lat * Math.PI) / 180) * (1 - Math.abs(share - 0.5));
      if (breadth <= broadest) continue;
      broadest = breadth;
      best = [(west + east) / 2, lat];
    }
  }
  return best;
}

/** Longitudes at which a ring crosses a parallel. */
function crossings(ring: Ring, lat: number): number[] {
  return ring.slice(1).flatMap(([bx, by], i) => {
    const [ax, ay] = ring[i];
    return ay > lat !== by > lat ? [((bx - ax) * (lat - ay)) / (by - ay) + ax] : [];
  });
}
