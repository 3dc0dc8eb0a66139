import fc from "fast-check";

/**
 * How the laws are tried (fast-check): `npm test` tries every law with the same examples each time, so that a change is
 * judged by what it changes; `npm run test:long` tries each with ten times as many, new ones each time, and prints the seed of
 * what fails. `BIBLIOTOPE_SEED` sets the seed of either.
 */
const isLong = process.env.BIBLIOTOPE_LONG !== undefined;
const seed = process.env.BIBLIOTOPE_SEED ?? (isLong ? undefined : "20261130");
fc.configureGlobal({
  ...(seed === undefined ? {} : { seed: Number(seed) }),
  ...(isLong ? { numRuns: 1000 } : {}),
});
