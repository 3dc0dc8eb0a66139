import type { Position } from "./position.ts";

const RAD = Math.PI / 180;
/** WGS 84: equatorial radius in metres, and flattening. */
const A = 6378137;
const F = 1 / 298.257223563;
const B = A * (1 - F);
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
 * Geodesic distance and bearing on the WGS 84 ellipsoid, by Vincenty's inverse formula (Survey Review, 1975).
 * Nearly antipodal pairs, where it does not converge, get the spherical distance.
 */
export function geodesic(from: Position, to: Position): Geodesic {
  if (from.lat === to.lat && from.lon === to.lon) return { metres: 0 };
  const L = (((to.lon - from.lon) * RAD + 3 * Math.PI) % (2 * Math.PI)) - Math.PI;
  const U1 = Math.atan((1 - F) * Math.tan(from.lat * RAD));
  const U2 = Math.atan((1 - F) * Math.tan(to.lat * RAD));
  const [sU1, cU1, sU2, cU2] = [Math.sin(U1), Math.cos(U1), Math.sin(U2), Math.cos(U2)];
  let lambda = L;
  for (let i = 0; i < 100; i++) {
    const [sl, cl] = [Math.sin(lambda), Math.cos(lambda)];
    const sinS = Math.hypot(cU2 * sl, cU1 * sU2 - sU1 * cU2 * cl);
    if (sinS === 0) return { metres: 0 };
    const cosS = sU1 * sU2 + cU1 * cU2 * cl;
    const sigma = Math.atan2(sinS, cosS);
    const sinA = (cU1 * cU2 * sl) / sinS;
    const cos2A = 1 - sinA * sinA;
    const cos2M = cos2A === 0 ? 0 : cosS - (2 * sU1 * sU2) / cos2A;
    const C = (F / 16) * cos2A * (4 + F * (4 - 3 * cos2A));
    const next = L + (1 - C) * F * sinA * (sigma + C * sinS * (cos2M + C * cosS * (2 * cos2M * cos2M - 1)));
    if (Math.abs(next - lambda) < 1e-12) {
      const bearing = Math.atan2(cU2 * sl, cU1 * sU2 - sU1 * cU2 * cl) / RAD;
      return { metres: lengthOf(sigma, sinS, cosS, cos2A, cos2M), bearing: (bearing + 360) % 360 };
    }
    lambda = next;
  }
  return { metres: sphereDistance(from, to), bearing: sphereBearing(from, to) };
}

function lengthOf(sigma: number, sinS: number, cosS: number, cos2A: number, cos2M: number): number {
  const u2 = (cos2A * (A * A - B * B)) / (B * B);
  const k = 1 + (u2 / 16384) * (4096 + u2 * (-768 + u2 * (320 - 175 * u2)));
  const q = (u2 / 1024) * (256 + u2 * (-128 + u2 * (74 - 47 * u2)));
  const d =
    q *
    sinS *
    (cos2M + (q / 4) * (cosS * (2 * cos2M ** 2 - 1) - (q / 6) * cos2M * (4 * sinS ** 2 - 3) * (4 * cos2M ** 2 - 3)));
  return B * k * (sigma - d);
}

function sphereBearing(from: Position, to: Position): number {
  const dLon = (to.lon - from.lon) * RAD;
  const y = Math.sin(dLon) * Math.cos(to.lat * RAD);
  const x =
    Math.cos(from.lat * RAD) * Math.sin(to.lat * RAD) -
    Math.sin(from.lat * RAD) * Math.cos(to.lat * RAD) * Math.cos(dLon);
  return (Math.atan2(y, x) / RAD + 360) % 360;
}
