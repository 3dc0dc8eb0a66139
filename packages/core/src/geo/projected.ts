import { isPosition, type Position } from "./position.ts";

/** WGS 84: equatorial radius in metres, and flattening. */
const A = 6_378_137;
const F = 1 / 298.257223563;
const SCALE_AT_MIDDLE = 0.9996;
const FALSE_EAST = 500_000;
const FALSE_NORTH_OF_SOUTH = 10_000_000;
/** Metres beyond its neighbours to which a zone is used: broad countries use one for all. */
const BEYOND = 300_000;

const n = F / (2 - F);
/** Radius of the circle that a meridian's quarter would belong to (Krüger 1912, to the fourth power of n). */
const RADIUS = (A / (1 + n)) * (1 + n ** 2 / 4 + n ** 4 / 64);
const BETA = [
  n / 2 - (2 * n ** 2) / 3 + (37 * n ** 3) / 96 - n ** 4 / 360,
  n ** 2 / 48 + n ** 3 / 15 - (437 * n ** 4) / 1440,
  (17 * n ** 3) / 480 - (37 * n ** 4) / 840,
  (4397 * n ** 4) / 161280,
];
const DELTA = [
  2 * n - (2 * n ** 2) / 3 - 2 * n ** 3 + (116 * n ** 4) / 45,
  (7 * n ** 2) / 3 - (8 * n ** 3) / 5 - (227 * n ** 4) / 45,
  (56 * n ** 3) / 15 - (136 * n ** 4) / 35,
  (4279 * n ** 4) / 630,
];

/** Reads a zone of UTM as it is written: 1 to 60, then N or S for the hemisphere. */
export function readUtmZone(text: string): { number: number; isSouth: boolean } | undefined {
  const match = /^\s*(\d{1,2})\s*([NS])\s*$/iu.exec(text);
  const number = Number(match?.[1]);
  return match && number >= 1 && number <= 60 ? { number, isSouth: /s/iu.test(match[2]) } : undefined;
}

/**
 * Where a position of Universal Transverse Mercator lies, by Krüger's series; good to less than a millimetre within a
 * zone.
 * @param east metres
 * @param north metres
 * @returns degrees, WGS 84; undefined when it lies nowhere
 */
export function fromUtm(
  east: number,
  north: number,
  { number, isSouth }: { number: number; isSouth: boolean },
): Position | undefined {
  if (!(east > -BEYOND && east < 1_000_000 + BEYOND && north >= 0 && north <= FALSE_NORTH_OF_SOUTH)) return undefined;
  const xi = (north - (isSouth ? FALSE_NORTH_OF_SOUTH : 0)) / (SCALE_AT_MIDDLE * RADIUS);
  const eta = (east - FALSE_EAST) / (SCALE_AT_MIDDLE * RADIUS);
  let [x, y] = [xi, eta];
  BETA.forEach((beta, i) => {
    const k = 2 * (i + 1);
    x -= beta * Math.sin(k * xi) * Math.cosh(k * eta);
    y -= beta * Math.cos(k * xi) * Math.sinh(k * eta);
  });
  const chi = Math.asin(Math.sin(x) / Math.cosh(y));
  const phi = DELTA.reduce((sum, delta, i) => sum + delta * Math.sin(2 * (i + 1) * chi), chi);
  const middle = number * 6 - 183;
  return positionOf(phi * DEGREES, middle + Math.atan2(Math.sinh(y), Math.cos(x)) * DEGREES);
}

/** Where a position of Web Mercator (metres from the equator and the first meridian) lies. @returns degrees, WGS 84 */
export function fromWebMercator(east: number, north: number): Position | undefined {
  return positionOf(Math.atan(Math.sinh(north / A)) * DEGREES, (east / A) * DEGREES);
}

const DEGREES = 180 / Math.PI;

function positionOf(lat: number, lon: number): Position | undefined {
  return isPosition(lat, lon) ? { lat, lon } : undefined;
}
