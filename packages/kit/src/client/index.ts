export type {
  CountriesAnswer,
  DistanceAnswer,
  ForwardAnswer,
  HeightAnswer,
  Problem,
  RecordAnswer,
  RecordFeature,
  ReverseAnswer,
  SuggestAnswer,
} from "@bibliotope/wire";
export { Client, type ClientOptions } from "./client.ts";
export { LookupError, type LookupTrouble } from "./errors.ts";
