import { COLUMN_FORMS, MEANINGS } from "@bibliotope/core/import";
import { FACT_KINDS, FACT_NAME } from "@bibliotope/core/place";
import * as z from "zod";
import { numberOf, text } from "./text.ts";

export const JOB_KINDS = ["load", "publish", "batch"] as const;
export type JobKind = (typeof JOB_KINDS)[number];
export const JOB_STATES = ["waiting", "running", "paused", "done", "failed", "cancelled"] as const;
export type JobState = (typeof JOB_STATES)[number];

/** A piece of work that takes long. */
export const jobSummary = z.object({
  id: z.int(),
  kind: z.enum(JOB_KINDS),
  state: z.enum(JOB_STATES),
  title: z.string(),
  /** How much of it is done, of `total`: bytes of a file, rows of a batch, records of an index. */
  done: z.number(),
  total: z.number(),
  /** What it is doing, or why it ended. */
  words: z.string(),
  result: z.unknown(),
  madeAt: z.string(),
  beganAt: z.string().nullable(),
  endedAt: z.string().nullable(),
});
export const jobList = z.object({ jobs: z.array(jobSummary) });
export type JobSummary = z.infer<typeof jobSummary>;

/** A file that was handed in. */
export const fileAnswer = z.object({ id: z.string(), name: z.string(), bytes: z.number() });
export type FileAnswer = z.infer<typeof fileAnswer>;

/** Encodings that can be chosen by hand, as the WHATWG names them. */
export const TABLE_ENCODINGS = [
  "utf-8",
  "utf-16le",
  "utf-16be",
  "windows-1252",
  "windows-1250",
  "windows-1251",
  "windows-1253",
  "iso-8859-15",
] as const;
export type TableEncoding = (typeof TABLE_ENCODINGS)[number];

/** The names of a table's columns, as its first row has them. */
export const headsSchema = z.array(text(65_536)).max(500).nullable();

/** How a table is written. */
export const tableFormat = z.strictObject({
  kind: z.enum(["csv", "geojson", "geojsonseq"]),
  encoding: z.enum(TABLE_ENCODINGS),
  /** These of CSV. */
  delimiter: text(1).length(1),
  quote: text(1).length(1),
  hasHead: z.boolean(),
  /** Rows above the head that are no part of the table, empty ones among them. */
  skipped: z.int().min(0).max(1000).optional(),
});
export type TableFormat = z.infer<typeof tableFormat>;

export const columnUse = z
  .strictObject({
    meaning: z.enum(MEANINGS),
    lang: text(35).optional(),
    form: z.enum(COLUMN_FORMS).optional(),
    fact: z
      .strictObject({ name: z.string().regex(FACT_NAME), label: text(60).min(1), kind: z.enum(FACT_KINDS) })
      .optional(),
  })
  .nullable();

const projection = z.strictObject({
  system: z.enum(["degrees", "utm", "web-mercator", "epsg"]),
  zone: text(3).optional(),
  epsg: z.int().min(1000).max(99999).optional(),
});

export const tableReading = z.strictObject({
  columns: z.array(columnUse).max(500),
  country: z
    .string()
    .regex(/^[A-Z]{2}$/, { error: "is the two-letter code of a country" })
    .optional(),
  lang: text(35).optional(),
  projection: projection.optional(),
  recases: z.boolean().optional(),
});
export type TableReading = z.infer<typeof tableReading>;

/** How a file is to be read; what is left out is found out. */
export const lookAtFileRequest = z.strictObject({
  format: tableFormat.partial().optional(),
  reading: tableReading.optional(),
  /** Name of the data set, whose columns of the last time are taken. */
  dataSet: text(120).optional(),
  /** What it is uploaded for; `data` when not given. */
  purpose: z.enum(["data", "batch"]).optional(),
});
export type LookAtFileRequest = z.infer<typeof lookAtFileRequest>;

/** The beginning of a file as it is read. */
export const fileStart = z.object({
  format: tableFormat,
  heads: z.array(z.string()).nullable(),
  columns: z.array(z.object({ use: columnUse, why: z.string() })),
  reading: tableReading,
  /** True where nearly all names stand in capitals. */
  inCapitals: z.boolean(),
  /** How the country of rows that name none was found, or why it was not. */
  countryWhy: z.string().optional(),
  /** Ways in which metres may be read, each with the share of the rows that then lie in their country. */
  projections: z.array(z.object({ projection, name: z.string(), share: z.number(), isSwapped: z.boolean() })),
  /** Where the first thousand rows would lie. */
  spots: z.array(z.object({ lat: z.number(), lon: z.number() })),
  rows: z.array(
    z.object({
      number: z.int(),
      cells: z.array(z.string()),
      /** The address in one line, as it would be found. */
      line: z.string().optional(),
      at: z.object({ lat: z.number(), lon: z.number() }).optional(),
      refused: z.string().optional(),
      doubts: z.array(z.string()),
    }),
  ),
});
export type FileStart = z.infer<typeof fileStart>;

const name = text(120).trim().min(1, { error: "is missing" });
export const makeLoadRequest = z.strictObject({
  file: text(100),
  format: tableFormat,
  heads: headsSchema,
  reading: tableReading,
  dataSet: z.strictObject({ name, licence: name, source: text(200).trim() }),
  day: z.iso.date(),
  /** Reads and checks all of it, and keeps nothing. */
  isTrial: z.boolean().optional(),
});
export type MakeLoadRequest = z.infer<typeof makeLoadRequest>;

export const versionSummary = z.object({
  id: z.int(),
  number: z.int(),
  /** Day of the data. */
  day: z.string(),
  madeAt: z.string(),
  fileName: z.string().nullable(),
  counts: z
    .object({
      rows: z.int().optional(),
      addresses: z.int(),
      places: z.int(),
      streets: z.int(),
      postcodes: z.int(),
      areas: z.int(),
    })
    .nullable(),
  /** Rows refused or odd, by kind. */
  checks: z.record(z.string(), z.int()),
  isLive: z.boolean(),
});
export const dataSetSummary = z.object({
  id: z.int(),
  name: z.string(),
  licence: z.string(),
  source: z.string(),
  versions: z.array(versionSummary),
});
export const publicationSummary = z.object({
  id: z.int(),
  madeAt: z.string(),
  why: z.string(),
  /** Versions, the most trusted first. */
  versions: z.array(z.int()),
});
export const dataAnswer = z.object({
  dataSets: z.array(dataSetSummary),
  publications: z.array(publicationSummary),
});
export type VersionSummary = z.infer<typeof versionSummary>;
export type DataSetSummary = z.infer<typeof dataSetSummary>;
export type PublicationSummary = z.infer<typeof publicationSummary>;
export type DataAnswer = z.infer<typeof dataAnswer>;

/** Makes versions live; where two hold the same address, that of the one named first is taken. */
export const publishRequest = z.strictObject({
  versions: z.array(numberOf).min(1).max(50),
  why: text(200),
});
export type PublishRequest = z.infer<typeof publishRequest>;

/** Rows of a load that were refused, or are odd. */
export const oddRows = z.object({
  rows: z.array(
    z.object({
      number: z.int(),
      kind: z.string(),
      words: z.string(),
      column: z.int().nullable(),
      cells: z.array(z.string()).nullable(),
    }),
  ),
});
export type OddRows = z.infer<typeof oddRows>;

const changeCounts = z.object({ new: z.int(), gone: z.int(), moved: z.int(), renamed: z.int(), same: z.int() });
export const CHANGES = ["new", "gone", "moved", "renamed"] as const;
/** What sets a version apart from another. */
export const versionDifference = z.object({
  counts: z.object({ addresses: changeCounts, streets: changeCounts, places: changeCounts }),
  /** Some of the changed addresses and places. */
  spots: z.array(
    z.object({
      change: z.enum(CHANGES),
      label: z.string(),
      at: z.object({ lat: z.number(), lon: z.number() }),
      from: z.object({ lat: z.number(), lon: z.number() }).optional(),
    }),
  ),
});
export type VersionDifference = z.infer<typeof versionDifference>;

/** Which file is handed in: its name, as the person has it. */
export const fileRequest = z.strictObject({ name: text(300).trim().optional() });
/** Which rows of a load that are refused or odd: one kind of them. */
export const oddRowsRequest = z.strictObject({ kind: text(60) });
/** What of a version goes out: an area of it, and without what was corrected by hand. */
export const outRequest = z.strictObject({
  inside: text(40).optional(),
  corrected: z.enum(["yes", "no"]).default("yes"),
});
const version = z.coerce.number().pipe(numberOf);
export const differenceRequest = z.strictObject({ from: version });
export const coverageRequest = z.strictObject({ beside: version.optional() });
