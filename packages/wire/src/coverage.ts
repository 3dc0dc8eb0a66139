import { AREA_KINDS } from "@bibliotope/core/place";
import * as z from "zod";

const grid = z.object({
  /** Degrees of a cell, west to east and south to north. */
  size: z.number(),
  /** South-west corner in cells, then the count here and in the other version, one after another. */
  cells: z.array(z.number()),
});

/** How much a version holds, by area and on a grid; beside it another one, if requested. */
export const coverageAnswer = z.object({
  areas: z.array(
    z.object({
      ref: z.string(),
      kind: z.enum(AREA_KINDS),
      name: z.string(),
      /** Names of the areas around it, narrow to broad. */
      within: z.string(),
      addresses: z.int(),
      streets: z.int(),
      /** Streets without a single number: their position is somewhere along them. */
      bare: z.int(),
      places: z.int(),
      /** Addresses of the other version; null where none is requested. */
      before: z.int().nullable(),
    }),
  ),
  grid,
});

/** How much the live data holds: by country, and on a grid. */
export const liveCoverageAnswer = z.object({
  countries: z.array(
    z.object({
      ref: z.string(),
      name: z.string(),
      addresses: z.int(),
      streets: z.int(),
      /** Streets without a single number. */
      bare: z.int(),
      places: z.int(),
    }),
  ),
  grid,
  /** Ref of one address, for examples; null where there is none. */
  sample: z.string().nullable(),
});
export type LiveCoverageAnswer = z.infer<typeof liveCoverageAnswer>;
export type CoverageAnswer = z.infer<typeof coverageAnswer>;
