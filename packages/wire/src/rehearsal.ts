import { ADDRESS_STATES } from "@bibliotope/core/form";
import * as z from "zod";
import { nameSchema } from "./form.ts";
import { SITUATIONS } from "./situations.ts";
import { text as textOf } from "./text.ts";

/** What a form is rehearsed in: situations of the wire, and those that are played on the browser's side. */
export const REHEARSED = [
  "normal",
  ...SITUATIONS,
  "offline",
  "denied",
  "off",
  "timeout",
  "inexact",
  // of outside services alone, while lookups are as ever
  "service-none",
  "service-slow",
  "service-down",
  "service-refused",
  "service-malformed",
] as const;
export type Rehearsed = (typeof REHEARSED)[number];

const text = textOf(2000);
const address = textOf(40);
const step = z.discriminatedUnion("do", [
  z.strictObject({ do: z.literal("type"), field: nameSchema, text }),
  z.strictObject({ do: z.literal("leave"), field: nameSchema }),
  z.strictObject({ do: z.literal("take"), field: nameSchema, line: text }),
  z.strictObject({ do: z.literal("select"), field: nameSchema, value: text }),
  z.strictObject({ do: z.literal("press"), field: nameSchema }),
  z.strictObject({ do: z.literal("choose"), address, line: text }),
  z.strictObject({ do: z.literal("keep"), address }),
  z.strictObject({
    do: z.literal("point"),
    at: z.strictObject({ lat: z.number().min(-90).max(90), lon: z.number().min(-180).max(180) }),
    address: address.optional(),
  }),
]);

/** Steps of a person, kept to be gone through again, and what is in the fields afterwards. */
export const keepRehearsalRequest = z.strictObject({
  name: textOf(80).trim().min(1),
  situation: z.enum(REHEARSED),
  steps: z.array(step).min(1).max(300),
  expected: z.record(nameSchema, text),
  states: z.record(address, z.enum(ADDRESS_STATES)).optional(),
});
export const keptRehearsal = keepRehearsalRequest.extend({ id: z.int(), keptAt: z.string() });
export const keptRehearsals = z.object({ rehearsals: z.array(keptRehearsal) });

/** What happened in a form, from the first key to the last field: events in the order of their times. */
export const keepTraceRequest = z.strictObject({
  /** What ran: the name of a rehearsal, or empty for a run by hand. */
  about: textOf(80).trim(),
  events: z
    .array(z.looseObject({ row: textOf(20), at: z.number() }))
    .min(1)
    .max(400),
});
export const keptTraceSummary = z.object({ id: z.int(), about: z.string(), keptAt: z.string(), count: z.int() });
export const keptTraceList = z.object({ traces: z.array(keptTraceSummary) });
export const keptTrace = keptTraceSummary.extend({ events: keepTraceRequest.shape.events });

export type KeepRehearsalRequest = z.infer<typeof keepRehearsalRequest>;
export type KeptRehearsal = z.infer<typeof keptRehearsal>;
export type KeepTraceRequest = z.infer<typeof keepTraceRequest>;
export type KeptTraceSummary = z.infer<typeof keptTraceSummary>;
export type KeptTrace = z.infer<typeof keptTrace>;
