import type { Position, Ring } from "../geo/index.ts";
import type { AreaKind, Facts, Name } from "../place/index.ts";

/** What all things with a name have. Identities are integers from the identity table; positions in degrees. */
export interface ThingInput {
  identity: number;
  /** The local name first. */
  names: Name[];
  at: Position;
  /** 0 to 1; orders what is otherwise equal. */
  importance: number;
}

export interface AreaInput extends ThingInput {
  kind: AreaKind;
  /** Identity of the area around it; null for a country. */
  parent: number | null;
  code?: string;
  /** Outer rings and holes; even-odd. */
  rings: Ring[];
}

export interface PostcodeInput extends Omit<ThingInput, "names"> {
  code: string;
  /** Identity of the area it lies in. */
  area: number;
}

export interface StreetInput extends ThingInput {
  kind: "street" | "block";
  area: number;
}

export interface AddressInput {
  identity: number;
  /** Identity of the street or block. */
  street: number;
  /** 1 to 65534, or null where the house has only a name. */
  number: number | null;
  suffix: string;
  /** The house's name, in the country where it has one. */
  name?: string;
  /** The flat in it. */
  unit?: string;
  /** Identity of the postcode, or null. */
  postcode: number | null;
  at: Position;
}

export interface PlaceInput extends ThingInput {
  area: number;
  facts: Facts;
  /** Identity of the address it is at, or null. */
  address: number | null;
}

/** Takes records in, in any order. */
export interface RecordSink {
  addArea(area: AreaInput): void;
  addPostcode(postcode: PostcodeInput): void;
  addStreet(street: StreetInput): void;
  addAddress(address: AddressInput): void;
  addPlace(place: PlaceInput): void;
}
