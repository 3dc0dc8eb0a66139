import type { Position } from "@bibliotope/core/geo";
import * as z from "zod";
import type { LinkKeys } from "./link-keys.ts";

/** What a link shows, to whoever has it. */
export interface Link {
  /** Id of the key that made it. */
  key: number;
  /** Seconds since 1970. */
  ends: number;
  shows: "page" | "still";
  of?: string;
  at?: Position;
  label?: string;
  lang?: string;
  size: { width: number; height: number };
  density: 1 | 2;
  zoom?: number;
  night?: boolean;
}

const packed = z.tuple([
  z.int(),
  z.int(),
  z.enum(["p", "s"]),
  z.string(),
  z.string(),
  z.string(),
  z.tuple([z.int(), z.int(), z.union([z.literal(1), z.literal(2)]), z.number(), z.boolean()]),
]);

/** A link as the text that is in the address. */
export function tokenOf(
  keys: LinkKeys,
  { key, ends, shows, of, at, label, lang, size, density, zoom, night }: Link,
): string {
  const place = of ?? `${at?.lat},${at?.lon}`;
  const appearance = [size.width, size.height, density, zoom ?? 0, night ?? false];
  const all = [key, ends, shows === "page" ? "p" : "s", place, label ?? "", lang ?? "", appearance];
  return keys.sign(Buffer.from(JSON.stringify(all)).toString("base64url"));
}

/** @returns undefined for a text that no link of ours is */
export function linkOf(keys: LinkKeys, token: string): Link | undefined {
  const text = token.length > 1000 ? undefined : keys.open(token);
  if (text === undefined) return undefined;
  const [key, ends, shows, place, label, lang, [width, height, density, zoom, night]] = packed.parse(
    JSON.parse(Buffer.from(text, "base64url").toString("utf8")),
  );
  const [lat, lon] = place.split(",").map(Number);
  return {
    ...{ key, ends, shows: shows === "p" ? "page" : "still", size: { width, height }, density },
    ...(place.includes(",") ? { at: { lat, lon } } : { of: place }),
    ...(label ? { label } : {}),
    ...(lang ? { lang } : {}),
    ...(zoom ? { zoom } : {}),
    ...(night ? { night } : {}),
  };
}
