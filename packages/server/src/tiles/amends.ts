import { type Correction, joinCorrections, type Segment } from "@bibliotope/core/index";
import type { MapFeature, TileCutter } from "@bibliotope/core/map";
import type { Name } from "@bibliotope/core/place";
import { pairOf, pointsOf, streetFeatures } from "./derive-features.ts";

/** What is corrected by hand, as far as a map shows it. Records are named by their refs; positions are [lon, lat]. */
export interface TileAmends {
  /** Streets and blocks with what they are called and all their houses now, and those that were placed by hand. */
  streets: { ref: string; kind: string; names: Name[]; houses: Pair[]; placed: Pair[] }[];
  places: { ref: string; names: Name[]; at: Pair }[];
  gone: string[];
}

type Pair = [lon: number, lat: number];

/**
 * Works out what corrections change on a map.
 * @param before the segment that they are laid over
 * @param now the segments that answer with them
 */
export function amendsOf(before: Segment, now: readonly Segment[], corrections: readonly Correction[]): TileAmends {
  const amends: TileAmends = { streets: [], places: [], gone: [] };
  const placed = new Map<number, Pair[]>();
  for (const { identity, street, at, isRemoved } of joinCorrections(corrections)) {
    const existing = before.find(street ?? identity);
    if (!existing) continue;
    if (before.isStreet(existing.thing)) {
      const own = placed.get(existing.thing) ?? [];
      const isHouse = street !== undefined || existing.address !== undefined;
      placed.set(existing.thing, isHouse && at && !isRemoved ? [...own, pairOf(at)] : own);
      continue;
    }
    const ref = before.thingRef(existing.thing);
    const [segment, thing] = find(now, identity) ?? [];
    if (segment && thing !== undefined)
      amends.places.push({ ref, names: segment.namesOf(thing), at: pairOf(segment.positionOf(thing)) });
    else amends.gone.push(ref);
  }
  for (const [street, itsPlaced] of placed) {
    const ref = before.thingRef(street);
    const [segment, thing] = find(now, before.sections.thingIdentity[street]) ?? [];
    if (!segment || thing === undefined) {
      amends.gone.push(ref);
      continue;
    }
    const [from, to] = segment.addressesOf(thing);
    const houses = Array.from({ length: to - from }, (_, i) => pairOf(segment.addressPosition(from + i)));
    amends.streets.push({ ref, kind: segment.kindOf(thing), names: segment.namesOf(thing), houses, placed: itsPlaced });
  }
  return amends;
}

function find(segments: readonly Segment[], identity: number): [segment: Segment, thing: number] | undefined {
  for (const segment of segments) {
    const existing = segment.find(identity);
    if (existing && !segment.isHidden(existing.thing)) return [segment, existing.thing];
  }
  return undefined;
}

/**
 * Shows on a map what was corrected by hand, in place of what was shown by hand before. Streets of data without a
 * map are drawn anew through their houses; on a map that was imported, lines and buildings stay where they are.
 */
export function amend(cutter: TileCutter, { streets, places, gone }: TileAmends): void {
  const refs = new Set([...streets, ...places].map(({ ref }) => ref).concat(gone));
  const byName = new Map<string, MapFeature[]>();
  for (const feature of cutter.having(refs)) byName.set(feature.id!, [...(byName.get(feature.id!) ?? []), feature]);
  const isBuilding = ({ properties }: MapFeature) => properties.layer === "building";
  const instead = [...byName.values()].flat().filter(isBuilding);
  for (const { ref, kind, names, houses, placed } of streets) {
    const before = (byName.get(ref) ?? []).filter((feature) => !isBuilding(feature));
    if (before.some(({ properties }) => properties.layer === "point"))
      instead.push(...streetFeatures({ id: ref, kind, names }, houses));
    else {
      instead.push(...before.map((feature) => named(feature, names)));
      if (placed.length) instead.push(pointsOf(ref, placed));
    }
  }
  for (const { ref, names, at } of places)
    for (const feature of byName.get(ref) ?? []) {
      const isPoint = feature.geometry.type === "Point";
      instead.push({
        ...named(feature, names),
        ...(isPoint ? { geometry: { type: "Point", coordinates: at } } : {}),
      });
    }
  cutter.replace(refs, instead);
}

const named = (feature: MapFeature, names: Name[]): MapFeature =>
  feature.properties.names ? { ...feature, properties: { ...feature.properties, names } } : feature;
