/** Whether `npm run test:long` runs: what is slow by nature, at its full size. */
export const isLong = Boolean(process.env.BIBLIOTOPE_LONG);

/** A size for `npm test`, and the full one for `npm run test:long`. */
export const sized = (usual: number, full: number): number => (isLong ? full : usual);
