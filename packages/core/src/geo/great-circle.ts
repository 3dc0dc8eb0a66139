import { sphereDistance } from "./distance.ts";
import type { Position } from "./position.ts";

const RAD = Math.PI / 180;

/** Metres of a great circle that are drawn as one straight stroke. */
const STROKE = 50_000;
const MOST_STROKES = 256;

/**
 * The shortest way over the sphere from one position to another, as positions to be joined by straight strokes. Its
 * longitudes go on beyond 180° rather than jump to the other side, so that a line over the 180th meridian is drawn in one.
 */
export function greatCircle(from: Position, to: Position): Position[] {
  const strokes = Math.max(1, Math.min(MOST_STROKES, Math.ceil(sphereDistance(from, to) / STROKE)));
  const [a, b] = [vectorOf(from), vectorOf(to)];
  const angle = Math.acos(Math.max(-1, Math.min(1, a[0] * b[0] + a[1] * b[1] + a[2] * b[2])));
  const points: Position[] = [from];
  for (let i = 1; i <= strokes; i++) {
    const at = i === strokes ? to : between(a, b, angle, i / strokes);
    points.push({ lat: at.lat, lon: at.lon + 360 * Math.round((points[i - 1].lon - at.lon) / 360) });
  }
  return points;
}

type Vector = [number, number, number];

function vectorOf({ lat, lon }: Position): Vector {
  const level = Math.cos(lat * RAD);
  return [level * Math.cos(lon * RAD), level * Math.sin(lon * RAD), Math.sin(lat * RAD)];
}

/** A share of the way along the arc between two unit vectors. */
function between(a: Vector, b: Vector, angle: number, share: number): Position {
  const sine = Math.sin(angle);
  // at the ends of an axis every way is as short; a straight mixture takes one of them
  const [p, q] =
    sine < 1e-9 ? [1 - share, share] : [Math.sin((1 - share) * angle) / sine, Math.sin(share * angle) / sine];
  const [x, y, z] = [0, 1, 2].map((i) => p * a[i] + q * b[i]);
  return { lat: Math.atan2(z, Math.hypot(x, y)) / RAD, lon: Math.atan2(y, x) / RAD };
}
