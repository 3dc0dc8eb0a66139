import { lengthText, type Size } from "@bibliotope/core/map";
import type { LookupQuery } from "./lookup-query.ts";
import type { AnswerBody } from "./use-answer.ts";

/** A picture of what a lookup found. */
export interface Picture {
  /** Words of `/v1/still`. */
  words: Readonly<Record<string, string>>;
  /** What it shows, for those who do not see it. */
  alt: string;
}

/** More markers than these cannot be distinguished on a picture. */
const MOST_MARKERS = 20;

/** What a picture of an answer shows: the record, all candidates, or the line; undefined where nothing was found. */
export function pictureOf({ call, words }: LookupQuery, body: AnswerBody | undefined): Picture | undefined {
  if (call === "distance" && body?.metres !== undefined) {
    const line = `${words.from};${words.to}`;
    return { words: { line }, alt: `Map with a line of ${lengthText(body.metres)} from ${words.from} to ${words.to}` };
  }
  const found = [
    ...(body?.suggestions ?? []).map(({ ref, at, line }) => ({ ref, at, line })),
    ...(body?.features ?? []).map(({ id, properties: { at, line } }) => ({ ref: id, at, line })),
  ];
  // around a position the nearest record is meant, the areas around it only say where that lies
  const shown = call === "reverse" || call === "records" ? found.slice(0, 1) : found.slice(0, MOST_MARKERS);
  if (!shown.length) return undefined;
  if (shown.length === 1) return { words: { of: shown[0].ref }, alt: `Map of ${shown[0].line}` };
  const points = shown.map(({ at }) => `${at.lat},${at.lon}`).join(";");
  const names = shown.map(({ line }, i) => `${i + 1}: ${line}`).join("; ");
  return { words: { points }, alt: `Map of ${shown.length} places. ${names}` };
}

/** The element to paste into a page, with a stand-in for the page's own key. @param origin where the service is */
export function imageCode({ words, alt }: Picture, { width, height }: Size, origin: string): string {
  const sides = { width: String(width), height: String(height) };
  const address = (density: string) => {
    const query = new URLSearchParams({
      ...{ ...words, ...sides, ...(density === "1" ? {} : { density }) },
      access_token: "KEY",
    });
    return `${origin}/v1/still?${String(query).replaceAll("%2C", ",").replaceAll("%3B", ";")}`;
  };
  return [
    "<img",
    '  crossorigin="anonymous"',
    `  src="${inAttribute(address("1"))}"`,
    `  srcset="${inAttribute(address("2"))} 2x"`,
    `  width="${width}"`,
    `  height="${height}"`,
    `  alt="${inAttribute(alt)}"`,
    ">",
  ].join("\n");
}

/** Text as it is in an attribute between double quotes. */
const inAttribute = (text: string) => text.replaceAll("&", "&amp;").replaceAll('"', "&quot;").replaceAll("<", "&lt;");
