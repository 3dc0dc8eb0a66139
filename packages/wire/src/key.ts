import * as z from "zod";
import { KEY_KINDS } from "./call.ts";

/** What a key may be used for, shown to whoever has it; neither its name nor the origins that it names. */
export const keyAnswer = z.object({
  kind: z.enum(KEY_KINDS),
  calls: z.array(z.string()).meta({ description: "Kinds of lookup the key allows." }),
  countries: z.array(z.string()).meta({ description: "Only these countries (ISO 3166); all if empty." }),
  endsAt: z.string().nullable().meta({ description: "When the key expires (RFC 3339)." }),
  perMinute: z.int().nullable().meta({ description: "Lookups per minute; null for no limit." }),
  perDay: z.int().nullable().meta({ description: "Lookups per day; null for no limit." }),
});
export type KeyAnswer = z.infer<typeof keyAnswer>;
