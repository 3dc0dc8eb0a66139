import type { Position } from "@bibliotope/core/geo";

/** Metres between two positions along the ellipsoid. What reckons them comes when it is first wanted: few forms tell them. */
export async function metresBetween(from: Position, to: Position): Promise<number> {
  const { geodesic } = await import("@bibliotope/core/geodesic");
  return geodesic(from, to).metres;
}
