/**
 * What a try key may ask to be played: nothing found; one that is not quite what was written; several that fit; an answer that takes long; the service down; a
 * limit reached; a key that may not be used; a request that cannot be read.
 */
export const SITUATIONS = ["none", "differs", "several", "slow", "down", "limit", "refused", "malformed"] as const;
export type Situation = (typeof SITUATIONS)[number];
