import type { Meaning } from "@bibliotope/core/import";
import type { DataAnswer, DataSetSummary, JobSummary, VersionSummary } from "@bibliotope/wire";
import { count } from "../ui/count.ts";

/** What can be wrong or odd about rows, by kind: in a word or two, and what it means. */
export const CHECK_WORDS: Readonly<Record<string, { name: string; means: string; isRefused?: boolean }>> = {
  "no-position": { name: "No position", means: "no position, or one that cannot be read", isRefused: true },
  "at-zero": { name: "At 0°, 0°", means: "a position that was never set", isRefused: true },
  swapped: { name: "Swapped", means: "latitude and longitude are swapped", isRefused: true },
  "nothing-named": { name: "No name", means: "neither a street nor the name of a place", isRefused: true },
  "no-country": { name: "No country", means: "no country, or an unknown one", isRefused: true },
  "too-long": { name: "Too long", means: "a name of more than 200 characters", isRefused: true },
  width: {
    name: "Wrong number of cells",
    means: "the number of cells differs from the number of columns",
    isRefused: true,
  },
  "head-again": { name: "Repeated header", means: "the header row appears again", isRefused: true },
  double: { name: "Duplicate", means: "same address as an earlier row", isRefused: true },
  "outside-country": { name: "Outside the country", means: "position outside the named country" },
  "no-number": { name: "No number", means: "a street without a house number" },
  "postcode-shape": { name: "Postcode format", means: "does not match the country's postcode format" },
  "far-from-street": { name: "Far from its street", means: "far from the other addresses in the street" },
  "two-spellings": { name: "Two spellings", means: "a street spelled differently elsewhere" },
  "same-area": {
    name: "Same area again",
    means: "names only a town or region that an earlier row names: both become one",
  },
  "odd-fact": { name: "Invalid attribute", means: "an attribute that is too long, or contradictory opening hours" },
  "mixed-encodings": { name: "Mixed encodings", means: "characters read in the wrong encoding" },
};

/** What a column may mean, in words. */
export const MEANING_WORDS: Readonly<Record<Meaning, string>> = {
  street: "Street",
  way: "Street type",
  block: "Block",
  house: "House number",
  suffix: "House number suffix",
  line: "Address line",
  unit: "Flat",
  name: "Building name",
  place: "Place name",
  kinds: "Kinds of place",
  postcode: "Postcode",
  district: "District",
  town: "Town",
  county: "County",
  region: "Region",
  country: "Country",
  lat: "Latitude",
  lon: "Longitude",
  position: "Position (one column)",
  lonlat: "Position, longitude first",
  east: "Easting",
  north: "Northing",
  id: "Identifier",
  importance: "Importance or population",
  phone: "Telephone",
  url: "Web page",
  hours: "Opening hours",
  languages: "Languages spoken",
  stepfree: "Step-free access",
  fact: "Other attribute",
  text: "Full address",
};

const UNITS = ["bytes", "kB", "MB", "GB"];

/** A size in bytes in words. */
export function size(bytes: number): string {
  let [value, unit] = [bytes, 0];
  while (value >= 1000 && unit < UNITS.length - 1) {
    value /= 1000;
    unit++;
  }
  return `${value.toLocaleString("en", { maximumSignificantDigits: 3 })} ${UNITS[unit]}`;
}

const counted = (value: number, one: string, many: string) =>
  value ? `${count(value)} ${value === 1 ? one : many}` : "";

/** What a version holds, in words. */
export function holds({ counts }: Pick<VersionSummary, "counts">): string {
  if (!counts) return "";
  const { addresses, places, streets } = counts;
  const words = [
    counted(addresses, "address", "addresses"),
    counted(streets, "street", "streets"),
    counted(places, "place", "places"),
  ];
  return words.filter(Boolean).join(", ");
}

/** Rows of a version that were refused, and that are odd. */
export function sumOfChecks(checks: VersionSummary["checks"]): { refused: number; odd: number } {
  let [refused, odd] = [0, 0];
  for (const [kind, rows] of Object.entries(checks)) {
    if (CHECK_WORDS[kind]?.isRefused) refused += rows;
    else odd += rows;
  }
  return { refused, odd };
}

/** How long a job still takes, from how far it has come, in words. @param now milliseconds */
export function timeLeft({ beganAt, done, total }: JobSummary, now = Date.now()): string {
  if (!beganAt || done <= 0 || total <= 0 || done >= total) return "";
  const seconds = (((now - Date.parse(beganAt)) / 1000) * (total - done)) / done;
  if (seconds < 5) return "a few seconds left";
  return seconds < 90 ? `${Math.round(seconds)} seconds left` : `${Math.round(seconds / 60)} minutes left`;
}

/** The version with the data set. */
export function findVersion(
  data: DataAnswer | undefined,
  id: number,
): { set: DataSetSummary; version: VersionSummary } | undefined {
  for (const set of data?.dataSets ?? []) {
    const version = set.versions.find((one) => one.id === id);
    if (version) return { set, version };
  }
  return undefined;
}

/** What is live now, the most trusted first. */
export const liveVersions = (data: DataAnswer | undefined) => data?.publications[0]?.versions ?? [];

/** What would be live with a version in the place of the others of the set; a set that was not live is trusted most. */
export function withVersion(data: DataAnswer, id: number): number[] {
  const same = findVersion(data, id)?.set.versions.map((version) => version.id) ?? [];
  const live = liveVersions(data);
  const place = live.findIndex((version) => same.includes(version));
  return place < 0 ? [id, ...live] : live.map((version, i) => (i === place ? id : version));
}
