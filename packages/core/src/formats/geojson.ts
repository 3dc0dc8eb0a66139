import type { Box, Position } from "../geo/index.ts";
import { roundDegrees } from "../geo/index.ts";

/** A GeoJSON Feature (RFC 7946) with a point. */
export interface PointFeature<P> {
  type: "Feature";
  id: string;
  bbox?: Box;
  geometry: { type: "Point"; coordinates: [lon: number, lat: number] };
  properties: P;
}

export type Feature<P> = PointFeature<P>;

/** A FeatureCollection with foreign members (RFC 7946, section 6). */
export type FeatureCollection<P, Members> = { type: "FeatureCollection"; features: PointFeature<P>[] } & Members;

/** Makes a Feature of a record: its ref becomes the id, its box the bbox, the rest stays in the properties. */
export function featureOf<R extends { ref: string; at: Position; box?: Box }>({
  ref,
  box,
  ...rest
}: R): PointFeature<Omit<R, "ref" | "box">> {
  const at = { lat: roundDegrees(rest.at.lat), lon: roundDegrees(rest.at.lon) };
  return {
    type: "Feature",
    id: ref,
    ...(box ? { bbox: box } : {}),
    geometry: { type: "Point", coordinates: [at.lon, at.lat] },
    properties: { ...rest, at },
  };
}
