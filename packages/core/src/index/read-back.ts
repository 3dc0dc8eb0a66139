import { NONE, SCALE } from "./layout.ts";
import type { AddressInput, AreaInput, PlaceInput, PostcodeInput, StreetInput } from "./records.ts";
import type { Segment } from "./segment.ts";

/** What all things carry, as a builder takes it. */
function thingInput(segment: Segment, thing: number) {
  const { thingIdentity, thingImportance } = segment.sections;
  return {
    identity: thingIdentity[thing],
    at: segment.positionOf(thing),
    importance: thingImportance[thing] / 65_535,
  };
}

const parentOf = ({ sections }: Segment, thing: number) => {
  const parent = sections.thingParent[thing];
  return parent === NONE ? null : sections.thingIdentity[parent];
};

/** An area as it went into the segment. */
export function areaInput(segment: Segment, area: number): AreaInput {
  return {
    ...thingInput(segment, area),
    kind: segment.kindOf(area) as AreaInput["kind"],
    parent: parentOf(segment, area),
    names: segment.namesOf(area),
    code: segment.areaCode(area),
    rings: segment.areaRings(area),
  };
}

/** A postcode as it went into the segment. */
export function postcodeInput(segment: Segment, postcode: number): PostcodeInput {
  return {
    ...thingInput(segment, postcode),
    code: segment.namesOf(postcode)[0].name,
    area: parentOf(segment, postcode)!,
  };
}

/** A street or block as it went into the segment. */
export function streetInput(segment: Segment, street: number): StreetInput {
  return {
    ...thingInput(segment, street),
    kind: segment.kindOf(street) as StreetInput["kind"],
    area: parentOf(segment, street)!,
    names: segment.namesOf(street),
  };
}

/** The addresses of a street or block as they went into the segment. */
export function addressInputs(segment: Segment, street: number): AddressInput[] {
  const { addressIdentity, thingIdentity, addressLat, addressLon } = segment.sections;
  const [from, to] = segment.addressesOf(street);
  return Array.from({ length: to - from }, (_, i): AddressInput => {
    const address = from + i;
    const own = segment.numberOf(address);
    const { suffix, name, unit } = segment.detailOf(address);
    const postcode = segment.postcodeOf(street, address);
    return {
      identity: addressIdentity[address],
      street: thingIdentity[street],
      number: own?.number ?? null,
      suffix: own?.suffix ?? suffix ?? "",
      name,
      unit,
      postcode: postcode === NONE ? null : thingIdentity[postcode],
      at: { lat: addressLat[address] / SCALE, lon: addressLon[address] / SCALE },
    };
  });
}

/** A place as it went into the segment. */
export function placeInput(segment: Segment, place: number): PlaceInput {
  const address = segment.addressOfPlace(place);
  return {
    ...thingInput(segment, place),
    area: parentOf(segment, place)!,
    names: segment.namesOf(place),
    facts: segment.factsOf(place),
    address: address === NONE ? null : segment.sections.addressIdentity[address],
  };
}
