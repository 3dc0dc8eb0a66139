export type { StandInRecord } from "./records.ts";
export { type Answered, type RecordedRequest, StandIn, type StandInOptions, type Written } from "./stand-in.ts";
