/** A position in WGS 84 degrees. */
export interface Position {
  lat: number;
  lon: number;
}

/** A box in degrees: west, south, east, north (RFC 7946 order). West is greater than east when it crosses the 180th meridian. */
export type Box = [west: number, south: number, east: number, north: number];

/** A closed ring of [lon, lat] pairs; the first ring of a polygon is its outside, the others are holes. */
export type Ring = readonly (readonly [lon: number, lat: number])[];

/** True for a latitude within ±90 and a longitude within ±180, both finite. */
export function isPosition(lat: number, lon: number): boolean {
  return Number.isFinite(lat) && Number.isFinite(lon) && Math.abs(lat) <= 90 && Math.abs(lon) <= 180;
}

/** True when the position lies in the box, across the 180th meridian too. */
export function boxContains([west, south, east, north]: Box, { lat, lon }: Position): boolean {
  if (lat < south || lat > north) return false;
  return west <= east ? lon >= west && lon <= east : lon >= west || lon <= east;
}

/** The smallest box around some [lon, lat] pairs (not across the 180th meridian). */
export function boxAround(points: Iterable<readonly [number, number]>): Box {
  const box: Box = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [lon, lat] of points) {
    box[0] = Math.min(box[0], lon);
    box[1] = Math.min(box[1], lat);
    box[2] = Math.max(box[2], lon);
    box[3] = Math.max(box[3], lat);
  }
  return box;
}

/** The smallest box around some rings. Rings that were cut at the 180th meridian get a box across it: west > east. */
export function boxAroundRings(rings: readonly Ring[]): Box {
  const box = boxAround(rings.flat());
  if (box[0] !== -180 || box[2] !== 180) return box;
  const boxes = rings.map((ring) => boxAround(ring));
  const east = boxes.filter(([, , to]) => to < 0).map(([, , to]) => to);
  const west = boxes.filter(([from]) => from >= 0).map(([from]) => from);
  if (!east.length || !west.length || east.length + west.length < rings.length) return box;
  return [Math.min(...west), box[1], Math.max(...east), box[3]];
}

/** Rounds to seven decimals of a degree (about a centimetre), what the index keeps. */
export function roundDegrees(degrees: number): number {
  return Math.round(degrees * 1e7) / 1e7;
}
