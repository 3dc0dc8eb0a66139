import * as z from "zod";
import { KEY_KINDS } from "./call.ts";

/** What a key may be used for, told to whoever has it; neither its name nor the origins that it names. */
export const keyAnswer = z.object({
  kind: z.enum(KEY_KINDS),
  calls: z.array(z.string()).meta({ description: "Every kind of lookup that it may ask for." }),
  countries: z.array(z.string()).meta({ description: "Only these countries (ISO 3166); all when empty." }),
  endsAt: z.string().nullable().meta({ description: "From then on it is refused (RFC 3339)." }),
  perMinute: z.int().nullable().meta({ description: "Lookups in a minute; null for no limit." }),
  perDay: z.int().nullable().meta({ description: "Lookups in a day; null for no limit." }),
});
export type KeyAnswer = z.infer<typeof keyAnswer>;
