import type { PlayingCall } from "@bibliotope/wire";

/** Calls that play a situation; the wire's declaration says which, and the compiler when one is missing. */
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
