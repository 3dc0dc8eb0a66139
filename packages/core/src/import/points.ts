import { type Position, readPosition } from "../geo/index.ts";
import { parseNumber } from "./numbers.ts";

/** A point as a cell has it: degrees, or two numbers of a projection, with the number in the EPSG dataset where that is written too. */
export type CellPoint = { at: Position } | { east: number; north: number; epsg?: number };

/** As databases write a point: `POINT (10 50)`, with a height or without; before it may stand what system it is in. */
const WKT = /^(?:SRID=(\d{1,6})\s*;\s*)?POINT\s*(?:Z|M|ZM)?\s*\(\s*([^\s()]+)\s+([^\s()]+)(?:\s+[^\s()]+){0,2}\s*\)$/i;
/** A point as GeoJSON has it. */
const GEOJSON =
  /^\{\s*"type"\s*:\s*"Point"\s*,\s*"coordinates"\s*:\s*\[\s*([^\s,\]]+)\s*,\s*([^\s,\]]+)\s*(?:,[^\]]*)?\]\s*\}$/;
/** Two numbers side by side; those with a comma for the decimals have something else between them. */
const PAIR = /^([+-]?\d+(?:\.\d+)?)(?:\s*[,;/|]\s*|\s+)([+-]?\d+(?:\.\d+)?)$/;
const COMMA_PAIR = /^([+-]?\d+,\d+)(?:\s*[;/|]\s*|\s*,\s+|\s+)([+-]?\d+,\d+)$/;
/** An angle in degrees, with minutes and seconds or without: `N51 16.8094`, `51-16-48.5N`, `51:16:48`, `51° 16' 48"`. */
const ANGLE =
  /^([NSEWO])?\s*([+-]?\d{1,3}(?:[.,]\d+)?)(?:\s*[°º:\s-]\s*(\d{1,2}(?:[.,]\d+)?)(?:\s*['′’:\s-]\s*(\d{1,2}(?:[.,]\d+)?))?)?\s*["″”'′’°º]{0,2}\s*([NSEWO])?$/i;
/** Two of them in one text: parted by N, S, E, W. */
const ANGLES = /^([NS][^EWO]+|[^NSEWO]+[NS])[\s,;/]*([EWO][^NSEWO]+|[^NSEWO]+[EWO])$/i;
/** Degrees by name, as an object: `{"lat": 51.2, "lng": 12.7}`. */
const NAMED_LAT = /["']lat(?:itude)?["']\s*:\s*["']?([+-]?\d+(?:\.\d+)?)/i;
const NAMED_LON = /["'](?:lon|lng|long|longitude)["']\s*:\s*["']?([+-]?\d+(?:\.\d+)?)/i;

/**
 * Reads a cell that holds a position.
 * @param isLonFirst of two bare numbers the first is the longitude
 * @returns undefined where there is none
 */
export function pointIn(text: string, isLonFirst: boolean): CellPoint | undefined {
  const plain = text.trim();
  if (plain.length > MOST) return undefined;
  const wkt = WKT.exec(plain);
  if (wkt) return projected(wkt[2], wkt[3], wkt[1]);
  const point = GEOJSON.exec(plain);
  if (point) return projected(point[1], point[2]);
  if (plain.startsWith("{")) return byName(plain);
  const bare = plain.replace(/^\((.*)\)$|^\[(.*)\]$/, "$1$2").trim();
  const pair = PAIR.exec(bare) ?? COMMA_PAIR.exec(bare);
  if (pair && isLonFirst) return inRange(parseNumber(pair[2]), parseNumber(pair[1]));
  const two = ANGLES.exec(bare);
  const at = readPosition(bare) ?? (two ? angles(two[1], two[2]) : undefined);
  if (at) return { at };
  // two integers side by side are many things
  const isExact = pair?.slice(1).every((number) => /[.,]/.test(number));
  return pair && isExact ? inRange(parseNumber(pair[1]), parseNumber(pair[2])) : undefined;
}

/** True for a latitude and a longitude that stand the other way round. */
export function isTurned(text: string): boolean {
  const [first, second] = text.split(/[;,\s]+/).map(parseNumber);
  return Math.abs(first) > 90 && Math.abs(first) <= 180 && Math.abs(second) <= 90;
}

/** Longer cells hold no position. */
const MOST = 300;

/** Degrees, where that is written, or nothing is and it can be: longitude first, as all that write points so have it. */
function projected(x: string, y: string, srid?: string): CellPoint | undefined {
  const [east, north] = [parseNumber(x), parseNumber(y)];
  if (!Number.isFinite(east) || !Number.isFinite(north)) return undefined;
  const epsg = srid === undefined ? undefined : Number(srid);
  if (!epsg || epsg === DEGREES) {
    const degrees = inRange(north, east);
    if (degrees || epsg === DEGREES) return degrees;
  }
  return { east, north, ...(epsg ? { epsg } : {}) };
}

/** WGS 84 in degrees, in the EPSG dataset. */
const DEGREES = 4326;

const inRange = (lat: number, lon: number): CellPoint | undefined =>
  Math.abs(lat) <= 90 && Math.abs(lon) <= 180 ? { at: { lat, lon } } : undefined;

function byName(text: string): CellPoint | undefined {
  const [lat, lon] = [NAMED_LAT.exec(text)?.[1], NAMED_LON.exec(text)?.[1]];
  return lat !== undefined && lon !== undefined ? inRange(Number(lat), Number(lon)) : undefined;
}

/**
 * Reads one of the two angles of a position.
 * @returns degrees, with the direction; undefined where it is none, or may be something else
 */
function angleIn(text: string): { degrees: number; letter: string } | undefined {
  const match = ANGLE.exec(text.trim());
  if (!match) return undefined;
  const [, before, degrees, minutes, seconds, behind] = match;
  const letter = (before ?? behind ?? "").toUpperCase();
  if ((before && behind) || (!letter && !/[°º:'′’]/.test(text))) return undefined;
  const [first, ...parts] = [degrees, minutes ?? "0", seconds ?? "0"].map((one) => Number(one.replace(",", ".")));
  if (parts.some((part) => part >= 60) || (minutes && !Number.isInteger(first))) return undefined;
  const size = Math.abs(first) + parts[0] / 60 + parts[1] / 3600;
  // O is west in the languages that say Ouest, Oeste, Ovest
  return { degrees: degrees.startsWith("-") || /[SWO]/.test(letter) ? -size : size, letter };
}

/** A latitude and a longitude, in two texts. */
export function angles(lat: string, lon: string): Position | undefined {
  const [first, second] = [angleIn(lat), angleIn(lon)];
  if (!first || !second || /[EWO]/.test(first.letter) || /[NS]/.test(second.letter)) return undefined;
  const at = inRange(first.degrees, second.degrees);
  return at && "at" in at ? at.at : undefined;
}
