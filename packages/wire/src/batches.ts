import { MEANINGS } from "@bibliotope/core/import";
import { EXACTNESS, KINDS, OUTCOMES } from "@bibliotope/core/place";
import { SERVICE_OUTCOMES, STANDINGS_OF_REGISTER } from "@bibliotope/core/service";
import * as z from "zod";
import { differenceSchema, glossSchema, partsSchema } from "./answers.ts";
import { headsSchema, JOB_STATES, tableFormat, tableReading } from "./data.ts";
import { numberOf, text } from "./text.ts";

/** What the rows of a batch ask: addresses, positions, or an address and where that finds nothing clear the position. */
export const BATCH_ASKS = ["forward", "reverse", "both"] as const;
export type BatchAsk = (typeof BATCH_ASKS)[number];

/**
 * The state of a row: clear (matched, or an address near the position), doubtful (a person had
 * check), none, or seen (a person has decided).
 */
export const ROW_STATUSES = ["clear", "seen", "doubtful", "none"] as const;
export type RowStatus = (typeof ROW_STATUSES)[number];
/** Metres within which an address is a position's. */
export const CLEAR = { metres: 50 } as const;

/** What can be decided about a row: take what comes first, another candidate, what a corrected text finds; leave it. */
export const DECISIONS = ["accept", "choose", "correct", "leave"] as const;
export type Decision = (typeof DECISIONS)[number];

export const makeBatchRequest = z.strictObject({
  file: text(100),
  name: text(200).trim().min(1),
  format: tableFormat,
  heads: headsSchema,
  reading: tableReading,
  ask: z.enum(BATCH_ASKS),
  /** Name of a service that confirms addresses: clear rows are checked against it. */
  register: text(30).optional(),
});
export type MakeBatchRequest = z.infer<typeof makeBatchRequest>;

const counts = z.object({ clear: z.int(), seen: z.int(), doubtful: z.int(), none: z.int() });
export const batchSummary = z.object({
  id: z.int(),
  name: z.string(),
  ask: z.enum(BATCH_ASKS),
  madeAt: z.string(),
  /** Null until all of the file is stored. */
  rows: z.int().nullable(),
  job: z.object({ id: z.int(), state: z.enum(JOB_STATES), seconds: z.number().nullable(), words: z.string() }),
  counts,
});
export const batchList = z.object({ batches: z.array(batchSummary) });
export type BatchSummary = z.infer<typeof batchSummary>;

/** Score bins of a distribution, each a twenty-fifth wide. */
export const SCORE_BINS = 25;
export const batchDetail = batchSummary.extend({
  heads: z.array(z.string()).nullable(),
  /** Rows by score, in bins; by how exact; decided by people in the last hour. */
  scores: z.array(z.object({ bin: z.int(), standing: z.enum(ROW_STATUSES), count: z.int() })),
  exactness: z.array(z.object({ exactness: z.enum(EXACTNESS), count: z.int() })),
  lastHour: z.int(),
});
export type BatchDetail = z.infer<typeof batchDetail>;

const at = z.object({ lat: z.number(), lon: z.number() });
/** The record that a row takes. */
export const batchAnswer = z.object({
  ref: z.string(),
  kind: z.enum(KINDS),
  exactness: z.enum(EXACTNESS),
  at,
  line: z.string(),
  parts: partsSchema,
  /** Of the lookup, and what was written and is not so in the record. */
  outcome: z.enum(OUTCOMES).optional(),
  differences: z.array(differenceSchema).optional(),
});
export type BatchAnswer = z.infer<typeof batchAnswer>;

/** A register's answer for a row. */
export const rowRegister = z.object({
  outcome: z.enum(SERVICE_OUTCOMES),
  standing: z.enum(STANDINGS_OF_REGISTER).optional(),
  number: z.string().optional(),
  /** Its own form of the address, where that is another one. */
  official: z.string().optional(),
});
export type RowRegister = z.infer<typeof rowRegister>;

export const batchRow = z.object({
  number: z.int(),
  query: z.string(),
  standing: z.enum(ROW_STATUSES),
  score: z.number().nullable(),
  distance: z.number().nullable(),
  decision: z.enum(DECISIONS).nullable(),
  line: z.string().nullable(),
});
export const batchRows = z.object({ rows: z.array(batchRow) });
export type BatchRow = z.infer<typeof batchRow>;

/** One row with all that may be meant, best first. */
export const batchCandidates = batchRow.extend({
  cells: z.array(z.string()),
  answer: batchAnswer.nullable(),
  candidates: z.array(
    batchAnswer.extend({
      score: z.number().optional(),
      distance: z.number().optional(),
      gloss: z.array(glossSchema).optional(),
    }),
  ),
});
export type BatchCandidates = z.infer<typeof batchCandidates>;

/** Decides a row by a candidate: its place among them, and its ref to be sure; leaving needs neither. */
export const decideRequest = z.strictObject({
  how: z.enum(DECISIONS),
  place: z.int().min(0).max(20).optional(),
  ref: text(40).optional(),
  /** The text by which the candidate was found, when it was corrected. */
  text: text(300).optional(),
});
export type DecideRequest = z.infer<typeof decideRequest>;

/** Where rows lie: latitude, longitude, standing, row, one after another. */
export const batchPoints = z.object({ points: z.array(z.number()) });
export type BatchPoints = z.infer<typeof batchPoints>;
/** Which column's values are wanted, by place. */
export const batchValuesRequest = z.strictObject({ column: z.coerce.number().int().min(0).max(499) });
/** What is in one column of the rows that have a point, in the order of the points; null where nothing does. */
export const batchValues = z.object({ values: z.array(z.string().nullable()) });

/** A batch by the wire: the body is the file, CSV or GeoJSON, also gzipped. */
export const batchRequest = z.strictObject({
  name: text(200).trim().min(1).optional().meta({ description: "Name in the workbench." }),
  ask: z
    .enum(BATCH_ASKS)
    .optional()
    .meta({ description: "Kind of lookup: forward for addresses, reverse for positions." }),
  register: text(30).optional().meta({
    description: "A register to check clear rows against.",
    example: "register",
  }),
  columns: text(8000)
    .transform((words) => words.split(",").map((word) => word.trim()))
    .pipe(z.array(z.union([z.enum(MEANINGS), z.literal("")], { error: "is not a column meaning" })).max(500))
    .optional()
    .meta({
      description:
        "Meanings of the columns in order, separated by commas; empty for columns to skip. Recognised automatically if omitted.",
    }),
});
export const batchRowsRequest = z.strictObject({
  format: z.enum(["csv", "geojson", "gpx"]).optional().meta({ description: "Default: csv." }),
  only: z
    .enum(["accepted"])
    .optional()
    .meta({ description: "Leaves out rows that are doubtful, skipped or not found." }),
});

/** A batch as the wire tells of it. */
export const batchState = z.object({
  id: z.string(),
  name: z.string(),
  state: z.enum(JOB_STATES),
  rows: z.int().nullable(),
  done: z.int(),
  counts,
  words: z.string(),
});
export type BatchState = z.infer<typeof batchState>;

/** Rows of a batch: those that stand in one way, from a place on. */
export const listRowsRequest = z.strictObject({
  show: z.enum([...ROW_STATUSES, "all"]).default("all"),
  offset: z.coerce.number().pipe(numberOf).default(0),
});
/** What a row may mean, with another text instead. */
export const candidatesRequest = z.strictObject({ text: text(300).optional() });
export const batchOutRequest = batchRowsRequest.pick({ only: true });
