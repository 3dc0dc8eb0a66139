export type { PointedAt } from "../form-parts.ts";
export { CannotDrive, FormDriver, type FormDriverOptions } from "./form-driver.ts";
export type { StandInRecord } from "./records.ts";
export { type Answered, type RecordedRequest, StandIn, type StandInOptions, type Written } from "./stand-in.ts";
