import type { Position } from "../geo/index.ts";
import { type Difference, differencesText } from "../place/index.ts";
import type { LookupFeature } from "./lookup.ts";

/** Waypoints, one for each record: GPX 1.1, positions in WGS 84 degrees. @param outcome of the lookup */
export function gpxOf(features: readonly LookupFeature[], outcome?: string): string {
  const waypoints = features.map(({ id, properties: { at, kind, line, lines, parts, differences } }) =>
    waypointOf({
      at,
      name: parts.place?.name ?? line,
      description: lines.join(", "),
      comment: commentOf(outcome, differences),
      source: id,
      type: kind,
    }),
  );
  return `${GPX_HEAD}${waypoints.join("")}${GPX_FOOT}`;
}

/** What a lookup came to, and what was written and is not so. */
export const commentOf = (outcome: string | undefined, differences: readonly Difference[] | undefined) =>
  [outcome, differencesText(differences)].filter(Boolean).join(": ") || undefined;

/** What is before and after the waypoints of a GPX file. */
export const GPX_HEAD =
  '<?xml version="1.0" encoding="UTF-8"?>\n<gpx version="1.1" creator="Bibliotope" xmlns="http://www.topografix.com/GPX/1/1">\n';
export const GPX_FOOT = "</gpx>\n";

export interface Waypoint {
  at: Position;
  name: string;
  description: string;
  comment?: string | undefined;
  source: string;
  type: string;
}

/** One waypoint of a GPX file, in the lines. */
export function waypointOf({ at, name, description, comment, source, type }: Waypoint): string {
  return [
    `  <wpt lat="${at.lat}" lon="${at.lon}">`,
    `    <name>${escapeXml(name)}</name>`,
    ...(comment ? [`    <cmt>${escapeXml(comment)}</cmt>`] : []),
    `    <desc>${escapeXml(description)}</desc>`,
    `    <src>${escapeXml(source)}</src>`,
    `    <type>${escapeXml(type)}</type>`,
    "  </wpt>\n",
  ].join("\n");
}

/** Text for XML: markup escaped, characters that XML 1.0 does not allow left out. */
function escapeXml(text: string): string {
  return text
    .toWellFormed()
    .replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, "")
    .replaceAll("&", "&amp;")
    .replaceAll("<", "&lt;")
    .replaceAll(">", "&gt;")
    .replaceAll('"', "&quot;");
}
