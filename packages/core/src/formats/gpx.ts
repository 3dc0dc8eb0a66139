import type { LookupFeature } from "./lookup.ts";

/** Waypoints, one for each record: GPX 1.1, positions in WGS 84 degrees. */
export function gpxOf(features: readonly LookupFeature[]): string {
  const waypoints = features.map(({ id, properties: { at, kind, line, lines, parts } }) =>
    [
      `  <wpt lat="${at.lat}" lon="${at.lon}">`,
      `    <name>${escapeXml(parts.place?.name ?? line)}</name>`,
      `    <desc>${escapeXml(lines.join(", "))}</desc>`,
      `    <src>${escapeXml(id)}</src>`,
      `    <type>${kind}</type>`,
      "  </wpt>",
    ].join("\n"),
  );
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<gpx version="1.1" creator="Bibliotope" xmlns="http://www.topografix.com/GPX/1/1">',
    ...waypoints,
    "</gpx>",
    "",
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
