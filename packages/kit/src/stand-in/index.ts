export type { StandInRecord } from "./records.ts";
export { type Answered, type AskedOnce, StandIn, type StandInOptions, type Written } from "./stand-in.ts";
