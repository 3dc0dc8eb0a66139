import * as z from "zod";
import { CALLS, type CallName } from "./calls.ts";
import { problemSchema } from "./problem.ts";

/** What some calls answer, and what a problem is, as one JSON Schema: each under the name with `Answer` behind it. */
export function answerSchemas(calls: readonly CallName[]): Readonly<Record<string, unknown>> {
  const answers = calls.map((call) => [`${call.charAt(0).toUpperCase()}${call.slice(1)}Answer`, CALLS[call].answers]);
  return z.toJSONSchema(z.object({ ...Object.fromEntries(answers), Problem: problemSchema }), {
    io: "output",
  }) as Record<string, unknown>;
}
