import type { Position } from "./position.ts";

/** Side of a tile in CSS pixels. */
export const TILE = 256;
/** Latitude at which the square of the projection ends. */
export const MAX_LATITUDE = 85.0511287798066;

/** A point on the projected square, both axes 0 to 1, from the north-west corner. */
export interface Projected {
  x: number;
  y: number;
}

/** Spherical Mercator, the projection of OGC WebMercatorQuad. */
export function project({ lat, lon }: Position): Projected {
  const clamped = Math.max(-MAX_LATITUDE, Math.min(MAX_LATITUDE, lat));
  const s = Math.sin((clamped * Math.PI) / 180);
  return { x: lon / 360 + 0.5, y: 0.5 - Math.log((1 + s) / (1 - s)) / (4 * Math.PI) };
}

/** The way back from the square to degrees. */
export function unproject({ x, y }: Projected): Position {
  const lat = (Math.atan(Math.sinh(Math.PI * (1 - 2 * y))) * 180) / Math.PI;
  return { lat, lon: (x - 0.5) * 360 };
}

/** Metres on the ground of one CSS pixel at a zoom (may be fractional) and latitude. */
export function metresPerPixel(zoom: number, lat: number): number {
  return (40075016.686 * Math.cos((lat * Math.PI) / 180)) / (TILE * 2 ** zoom);
}
