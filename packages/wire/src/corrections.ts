import * as z from "zod";
import { text } from "./text.ts";

const at = z.strictObject({ lat: z.number().min(-90).max(90), lon: z.number().min(-180).max(180) });
const note = text(1000).trim();

/** What is changed of a record. */
export const change = z.strictObject({
  isRemoved: z.boolean().optional(),
  at: at.optional(),
  /** Number of a house as it is written, such as 12b. */
  house: text(20).trim().min(1).optional(),
  name: text(200).trim().min(1).optional(),
  /** Adds an address with this number to the street that the ref is of. */
  adds: z.boolean().optional(),
});
export type Change = z.infer<typeof change>;

/** Changes one record by hand: at once, and over all versions of the data. */
export const correctRequest = z.strictObject({ ref: text(40), change, note: note.optional() });
export type CorrectRequest = z.infer<typeof correctRequest>;

export const CORRECTION_STATES = ["proposed", "applied", "refused", "undone"] as const;
export const correctionSummary = z.object({
  id: z.int(),
  state: z.enum(CORRECTION_STATES),
  ref: z.string().nullable(),
  line: z.string(),
  change,
  note: z.string(),
  /** True for one that an end user has reported. */
  isReport: z.boolean(),
  by: z.string().nullable(),
  madeAt: z.string(),
  decidedBy: z.string().nullable(),
  decidedAt: z.string().nullable(),
  /** False when what is live holds nothing that it could change. */
  isHeld: z.boolean(),
});
export const correctionList = z.object({ corrections: z.array(correctionSummary) });
export type CorrectionSummary = z.infer<typeof correctionSummary>;

/** Takes a proposal, with what is to be changed where it does not say so; refuses it; takes an applied one back. */
export const decideCorrectionRequest = z.strictObject({
  state: z.enum(["applied", "refused", "undone"]),
  change: change.optional(),
});
export type DecideCorrectionRequest = z.infer<typeof decideCorrectionRequest>;

/** A wrong or missing address, reported by somebody who uses a form. */
export const reportRequest = z.strictObject({
  ref: text(40).optional().meta({ description: "The record to correct.", example: "qr-5k2c9f" }),
  at: at.optional().meta({ description: "The correct position, or the position of the missing address." }),
  text: text(500).trim().min(1).meta({
    description: "What is wrong or missing, in the user's words.",
    example: "The door is round the corner",
  }),
});
export const reportAnswer = z.object({ received: z.literal(true) });
export type ReportRequest = z.infer<typeof reportRequest>;
