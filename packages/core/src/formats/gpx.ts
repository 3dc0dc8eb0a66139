import type { Position } from "../geo/index.ts";
import type { LookupFeature } from "./lookup.ts";

/** Waypoints, one for each record: GPX 1.1, positions in WGS 84 degrees. */
export function gpxOf(features: readonly LookupFeature[]): string {
  const waypoints = features.map(({ id, properties: { at, kind, line, lines, parts } }) =>
    waypointOf({ at, name: parts.place?.name ?? line, description: lines.join(", "), source: id, type: kind }),
  );
  return `${GPX_HEAD}${waypoints.join("")}${GPX_FOOT}`;
}

/** What stands before and after the waypoints of a GPX file. */
export const GPX_HEAD =
  '<?xml version="1.0" encoding="UTF-8"?>\n<gpx version="1.1" creator="Bibliotope" xmlns="http://www.topografix.com/GPX/1/1">\n';
export const GPX_FOOT = "</gpx>\n";

export interface Waypoint {
  at: Position;
  name: string;
  description: string;
  source: string;
  type: string;
}

/** One waypoint of a GPX file, in its lines. */
export function waypointOf({ at, name, description, source, type }: Waypoint): string {
  return [
    `  <wpt lat="${at.lat}" lon="${at.lon}">`,
    `    <name>${escapeXml(name)}</name>`,
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
