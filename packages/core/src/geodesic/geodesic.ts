import geographiclib from "geographiclib-geodesic";
import type { Position } from "../geo/index.ts";

const { WGS84 } = geographiclib.Geodesic;

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
