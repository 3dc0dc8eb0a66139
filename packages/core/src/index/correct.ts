import type { Position } from "../geo/index.ts";
import type { HouseNumber } from "../place/index.ts";
import { Overlay } from "./overlay.ts";
import { addressInputs, placeInput, streetInput } from "./read-back.ts";
import type { Segment } from "./segment.ts";

/** What is changed of one record by hand, over all versions of the data. */
export interface Correction {
  /** Of the record; a new one for an address that is added. */
  identity: number;
  /** The record is not there any more. */
  isRemoved?: boolean;
  at?: Position;
  /** Of an address. */
  house?: HouseNumber;
  /** Of a street or a place; the local name. */
  name?: string;
  /** Identity of the street on which an address is added. */
  street?: number;
}

/** Corrections of the same record as one, the later over the earlier. */
export function joinCorrections(corrections: readonly Correction[]): Correction[] {
  const joined = new Map<number, Correction>();
  for (const one of corrections) {
    const given = Object.fromEntries(Object.entries(one).filter(([, value]) => value !== undefined));
    joined.set(one.identity, { ...joined.get(one.identity), ...(given as Correction) });
  }
  return [...joined.values()];
}

/**
 * Lays corrections over a segment.
 * @returns the overlay, and the identities of those that have nothing here to hold on to
 */
export function correct(segment: Segment, corrections: readonly Correction[]): { overlay: Overlay; missing: number[] } {
  const overlay = new Overlay(segment);
  const missing = joinCorrections(corrections)
    .filter((one) => !correctOne(segment, overlay, one))
    .map(({ identity }) => identity);
  return { overlay, missing };
}

function correctOne(segment: Segment, overlay: Overlay, { identity, isRemoved, ...to }: Correction): boolean {
  const existing = segment.find(identity);
  if (isRemoved) return to.street !== undefined || overlay.remove(identity);
  if (!existing) return to.street !== undefined && addAddress(segment, overlay, identity, { ...to, street: to.street });
  if (existing.address !== undefined) {
    const address = addressInputs(segment, existing.thing).find((one) => one.identity === identity)!;
    const { number = address.number, suffix = address.suffix } = to.house ?? {};
    overlay.addAddress({ ...address, number, suffix, at: to.at ?? address.at });
    return true;
  }
  if (segment.isStreet(existing.thing)) {
    const street = streetInput(segment, existing.thing);
    overlay.addStreet({ ...street, at: to.at ?? street.at, names: renamed(street.names, to.name) });
    return true;
  }
  if (segment.isArea(existing.thing) || segment.isPostcode(existing.thing)) return false;
  const place = placeInput(segment, existing.thing);
  overlay.addPlace({ ...place, at: to.at ?? place.at, names: renamed(place.names, to.name) });
  return true;
}

function addAddress(
  segment: Segment,
  overlay: Overlay,
  identity: number,
  { street, house, at }: Omit<Correction, "identity"> & { street: number },
): boolean {
  const existing = segment.find(street);
  if (!existing || existing.address !== undefined || !segment.isStreet(existing.thing) || !house || !at) return false;
  const [neighbour] = addressInputs(segment, existing.thing);
  overlay.addAddress({ identity, street, ...house, postcode: neighbour?.postcode ?? null, at });
  return true;
}

/** Names with another local one. */
export const renamed = <T extends { name: string; abbr?: string; written?: string }>(
  [first, ...others]: T[],
  name: string | undefined,
): T[] =>
  name === undefined || name === first.name
    ? [first, ...others]
    : [{ ...first, name, abbr: undefined, written: undefined }, ...others];
