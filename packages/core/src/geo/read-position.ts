import type { Position } from "./position.ts";

const NUMBER = String.raw`[+-]?\d{1,3}(?:[.,]\d+)?`;
/** "-35.2, -21.4", "35.2 S 21.4 W", "S 35.2, W 21.4", "35,2; 21,4". */
const DECIMAL = new RegExp(
  String.raw`^\s*([NS])?\s*(${NUMBER})\s*°?\s*([NS])?\s*(?:[,;]\s*|\s+)([EWO])?\s*(${NUMBER})\s*°?\s*([EWO])?\s*$`,
  "iu",
);
const ANGLE = String.raw`(\d{1,3})\s*[°d]\s*(?:(\d{1,2}(?:[.,]\d+)?)\s*['′’m]\s*)?(?:(\d{1,2}(?:[.,]\d+)?)\s*(?:["″”s]|''|′′)\s*)?`;
/** 35°12'31"S 21°24'25"W, the letter behind or before. */
const SEXAGESIMAL = new RegExp(String.raw`^\s*([NS])?\s*${ANGLE}([NS])?[\s,;]*([EWO])?\s*${ANGLE}([EWO])?\s*$`, "iu");
/** geo:LAT,LON with parameters that say nothing else than the place (RFC 5870). */
const GEO_URI = /^\s*geo:(-?\d+(?:\.\d+)?),(-?\d+(?:\.\d+)?)(?:,-?\d+(?:\.\d+)?)?(?:;[\w-]+(?:=[^;]*)?)*\s*$/iu;
/** ±DD.D±DDD.D/, ±DDMM.M±DDDMM.M/, ±DDMMSS.S±DDDMMSS.S/ (ISO 6709, annex H). */
const ISO_6709 =
  /^\s*([+-])(\d{2}|\d{4}|\d{6})(\.\d+)?([+-])(\d{3}|\d{5}|\d{7})(\.\d+)?(?:[+-]\d+(?:\.\d+)?)?(?:CRS\w+)?\/\s*$/u;

/**
 * Reads a position typed as text: decimal degrees, degrees with minutes and seconds, a `geo:` URI (RFC 5870) or
 * ISO 6709. Latitude first.
 * @returns degrees, WGS 84; undefined when the text is no position or lies outside ±90, ±180
 */
export function readPosition(text: string): Position | undefined {
  if (text.length > 100) return undefined;
  const at = readGeoUri(text) ?? readIso(text) ?? readDecimal(text) ?? readSexagesimal(text);
  return at && Math.abs(at.lat) <= 90 && Math.abs(at.lon) <= 180 ? at : undefined;
}

function readGeoUri(text: string): Position | undefined {
  const match = GEO_URI.exec(text);
  const crs = /;crs=([^;]*)/iu.exec(text)?.[1].toLowerCase() ?? "wgs84";
  return match && crs === "wgs84" ? { lat: Number(match[1]), lon: Number(match[2]) } : undefined;
}

function readIso(text: string): Position | undefined {
  const match = ISO_6709.exec(text);
  if (!match) return undefined;
  const [, ns, latDigits, latRest = "", ew, lonDigits, lonRest = ""] = match;
  if (latDigits.length + 1 !== lonDigits.length) return undefined;
  const degrees = (digits: string, rest: string, first: number) => {
    const degrees = Number(digits.slice(0, first));
    const minutes = digits.slice(first, first + 2);
    const seconds = digits.slice(first + 2);
    if (seconds) return degrees + Number(minutes) / 60 + Number(seconds + rest) / 3600;
    return minutes ? degrees + Number(minutes + rest) / 60 : Number(digits + rest);
  };
  const lat = degrees(latDigits, latRest, 2) * (ns === "-" ? -1 : 1);
  return { lat, lon: degrees(lonDigits, lonRest, 3) * (ew === "-" ? -1 : 1) };
}

function readDecimal(text: string): Position | undefined {
  const match = DECIMAL.exec(text);
  if (!match) return undefined;
  const [, ns1, lat, ns2, ew1, lon, ew2] = match;
  if ((ns1 && ns2) || (ew1 && ew2)) return undefined;
  const [ns, ew] = [ns1 ?? ns2, ew1 ?? ew2];
  // two whole numbers without a sign or a letter are a house and a postcode sooner than a position
  if (!ns && !ew && !/[.,]\d/u.test(lat) && !/[.,]\d/u.test(lon) && !/[,;°]/u.test(text)) return undefined;
  return { lat: signed(lat, ns), lon: signed(lon, ew) };
}

function readSexagesimal(text: string): Position | undefined {
  const match = SEXAGESIMAL.exec(text);
  if (!match) return undefined;
  const [, ns1, d1, m1 = "0", s1 = "0", ns2, ew1, d2, m2 = "0", s2 = "0", ew2] = match;
  const [ns, ew] = [ns1 ?? ns2, ew1 ?? ew2];
  if (!ns || !ew || plain(m1) >= 60 || plain(m2) >= 60 || plain(s1) >= 60 || plain(s2) >= 60) return undefined;
  return {
    lat: signed(String(Number(d1) + plain(m1) / 60 + plain(s1) / 3600), ns),
    lon: signed(String(Number(d2) + plain(m2) / 60 + plain(s2) / 3600), ew),
  };
}

const plain = (text: string) => Number(text.replace(",", "."));

/** South and west are negative; O is west in the languages that say Ouest, Oeste, Ovest. */
function signed(text: string, letter?: string): number {
  const value = plain(text);
  return letter && /[SWO]/iu.test(letter) ? -Math.abs(value) : value;
}
