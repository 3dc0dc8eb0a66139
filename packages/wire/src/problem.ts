import * as z from "zod";

/** One thing that is wrong with a request. */
export const issueSchema = z.object({
  parameter: z.string(),
  message: z.string(),
  /** A value that works. */
  example: z.string().optional(),
});

/** An error of the wire: `application/problem+json` (RFC 9457). */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  /** What happened and what to do. */
  detail: z.string(),
  issues: z.array(issueSchema).optional(),
  /** The ref that stands in place of a withdrawn one. */
  replaced: z.string().optional(),
});

export type Issue = z.infer<typeof issueSchema>;
export type Problem = z.infer<typeof problemSchema>;

/** Every kind of problem: its page under /problems/, its status and its title. */
export const PROBLEMS = {
  malformed: { status: 400, title: "The request cannot be read" },
  "no-key": { status: 401, title: "A key is missing or not known" },
  "not-signed-in": { status: 401, title: "Nobody is signed in" },
  "not-allowed": { status: 403, title: "This key may not be used here" },
  "not-found": { status: 404, title: "There is nothing here" },
  "wrong-method": { status: 405, title: "This path does not take that method" },
  conflict: { status: 409, title: "It was changed elsewhere meanwhile" },
  withdrawn: { status: 410, title: "This record was withdrawn" },
  "too-large": { status: 413, title: "The request is too large" },
  "wrong-type": { status: 415, title: "The body is not JSON" },
  "too-many": { status: 429, title: "This key asks too often" },
  "not-ready": { status: 503, title: "No index is open yet" },
  busy: { status: 503, title: "Too much is waiting already" },
  "no-room": { status: 507, title: "No room is left" },
  "no-database": { status: 503, title: "The database does not answer" },
  broken: { status: 500, title: "Something broke on our side" },
} as const;
export type ProblemName = keyof typeof PROBLEMS;
