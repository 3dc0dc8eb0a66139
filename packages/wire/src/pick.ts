import { MAP_STYLES } from "@bibliotope/core/map";
import { KINDS } from "@bibliotope/core/place";
import * as z from "zod";
import { text } from "./text.ts";

/** Where a picker may hand back to: scheme and host, perhaps a port; nothing that could stand for more. */
export const PLAIN_ORIGIN = /^[a-z][a-z0-9+.-]*:\/\/(?:[\w.-]+|\[[0-9a-f:]+\])(?::\d{1,5})?$/i;

const list = (one: RegExp, error: string) =>
  text(200).refine((value) => value.split(",").every((word) => one.test(word)), { error });

/** How the hosted picker is requested, in the query string of `/pick`. */
export const pickRequest = z
  .strictObject({
    key: text(100).min(1, { error: "give the key of a page or a web view" }),
    origin: text(300).regex(PLAIN_ORIGIN, { error: "an origin is scheme, host and port" }).optional(),
    redirect: text(2000).optional(),
    bridge: text(60)
      .regex(/^[A-Za-z_$][\w$]*$/, { error: "is not a bridge name" })
      .optional(),
    state: text(200).optional(),
    label: text(80).optional(),
    kinds: text(200)
      .refine((value) => value.split(",").every((kind) => (KINDS as readonly string[]).includes(kind)), {
        error: `kinds are ${KINDS.join(", ")}`,
      })
      .optional(),
    countries: list(/^[A-Za-z]{2}$/, "a country is two letters, ISO 3166").optional(),
    anywhere: z.enum(["0", "1"]).optional(),
    at: text(60)
      .regex(/^[+-]?\d+(\.\d+)?,\s*[+-]?\d+(\.\d+)?$/, { error: "a position is LAT,LON" })
      .optional(),
    zoom: z
      .string()
      .regex(/^\d{1,2}(\.\d+)?$/, { error: "a zoom is a number up to 20" })
      .optional(),
    q: text(500).optional(),
    ref: text(40).optional(),
    lang: text(35)
      .regex(/^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/, { error: "a language is a BCP 47 tag" })
      .optional(),
    night: z.enum(["0", "1"]).optional(),
    accent: text(6)
      .regex(/^[0-9a-f]{6}$/i, { error: "a colour is six hexadecimal digits" })
      .optional(),
    style: z.enum(MAP_STYLES).optional(),
  })
  .refine(({ origin, redirect, bridge }) => [origin, redirect, bridge].filter(Boolean).length === 1, {
    error: "give exactly one of origin, redirect and bridge",
    path: ["origin"],
  });
export type PickRequest = z.infer<typeof pickRequest>;
