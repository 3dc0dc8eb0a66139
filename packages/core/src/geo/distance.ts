import geographiclib from "geographiclib-geodesic";
import type { Position } from "./position.ts";

const { WGS84 } = geographiclib.Geodesic;

const RAD = Math.PI / 180;
/** Mean radius in metres, for quick spherical distances. */
export const EARTH_RADIUS = 6371008.8;

/** Great-circle distance in metres on a sphere of mean radius (haversine). Within 0.6 % of the true one. */
export function sphereDistance(a: Position, b: Position): number {
  const dLat = (b.lat - a.lat) * RAD;
  const dLon = (b.lon - a.lon) * RAD;
  const h = Math.sin(dLat / 2) ** 2 + Math.cos(a.lat * RAD) * Math.cos(b.lat * RAD) * Math.sin(dLon / 2) ** 2;
  return 2 * EARTH_RADIUS * Math.asin(Math.min(1, Math.sqrt(h)));
}

/** Length and first direction of the shortest line between two positions. */
export interface Geodesic {
  metres: number;
  /** Degrees clockwise from north, 0 to 360; absent when the positions are the same. */
  bearing?: number;
}

/**
 * Geodesic distance and bearing on the WGS 84 ellipsoid, by Karney's method (Journal of Geodesy, 2013): right to
 * nanometres for any two positions, nearly antipodal ones too.
 */
export function geodesic(from: Position, to: Position): Geodesic {
  if (from.lat === to.lat && from.lon === to.lon) return { metres: 0 };
  const { s12 = 0, azi1 = 0 } = WGS84.Inverse(from.lat, from.lon, to.lat, to.lon);
  return s12 === 0 ? { metres: 0 } : { metres: s12, bearing: (azi1 + 360) % 360 };
}
