import type { PlayingCall } from "@bibliotope/wire";

/** Calls that play a situation; declared with the wire, and checked for completeness by the compiler. */
export const PLAYS: Readonly<Record<PlayingCall, true>> = {
  suggest: true,
  forward: true,
  reverse: true,
  record: true,
  postcodes: true,
  distance: true,
  height: true,
  service: true,
};
