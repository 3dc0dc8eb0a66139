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
  /** The ref that is in place of a withdrawn one. */
  replaced: z.string().optional(),
});

export type Issue = z.infer<typeof issueSchema>;
/** What went wrong, as RFC 9457 has it: `title` and `detail` in words, `issues` by parameter. */
export type Problem = z.infer<typeof problemSchema>;

/** Every kind of problem: its page under /problems/, its status and its title. */
export const PROBLEMS = {
  malformed: { status: 400, title: "Invalid request" },
  "no-key": { status: 401, title: "Missing or unknown key" },
  "not-signed-in": { status: 401, title: "Not signed in" },
  "not-allowed": { status: 403, title: "Not allowed" },
  "not-found": { status: 404, title: "Not found" },
  "wrong-method": { status: 405, title: "Method not allowed" },
  conflict: { status: 409, title: "Changed elsewhere" },
  withdrawn: { status: 410, title: "Record withdrawn" },
  "too-large": { status: 413, title: "Request too large" },
  "wrong-type": { status: 415, title: "Wrong content type" },
  "too-many": { status: 429, title: "Too many requests" },
  "not-ready": { status: 503, title: "Index not ready" },
  busy: { status: 503, title: "Server overloaded" },
  "no-room": { status: 507, title: "Disk full" },
  "no-database": { status: 503, title: "Database unavailable" },
  broken: { status: 500, title: "Internal error" },
} as const;
export type ProblemName = keyof typeof PROBLEMS;
