export { Client, type ClientOptions } from "../client/client.ts";
export { LookupError, type LookupTrouble } from "../client/errors.ts";
export {
  type BodyAddress,
  type NoPlace,
  type Place,
  type PlaceOptions,
  type Places,
  placeOf,
  placesOf,
  type Registered,
  type StoredPlace,
} from "./place-of.ts";
