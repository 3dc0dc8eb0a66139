import type { Meaning } from "@bibliotope/core/bring";
import type { DataAnswer, DataSetSummary, JobSummary, VersionSummary } from "@bibliotope/wire";
import { count } from "../ui/count.ts";

/** What can be wrong or odd about rows, by kind: in a word or two, and what it means. */
export const CHECK_WORDS: Readonly<Record<string, { name: string; means: string; isRefused?: boolean }>> = {
  "no-position": { name: "No position", means: "no position, or one that cannot be read", isRefused: true },
  "at-zero": { name: "At 0°, 0°", means: "a position that was never set", isRefused: true },
  swapped: { name: "Swapped", means: "latitude and longitude the wrong way round", isRefused: true },
  "nothing-named": { name: "Nothing named", means: "neither a street nor the name of a place", isRefused: true },
  "no-country": { name: "No country", means: "no country, or a name that no country has", isRefused: true },
  "too-long": { name: "Too long", means: "a name of more than 200 letters", isRefused: true },
  width: { name: "Other width", means: "another number of cells than there are columns", isRefused: true },
  "head-again": { name: "Head again", means: "the head of the table once more", isRefused: true },
  double: { name: "Double", means: "the same address as a row before", isRefused: true },
  "outside-country": { name: "Outside the country", means: "a position outside the country that is named" },
  "no-number": { name: "No number", means: "a street without a number" },
  "postcode-shape": { name: "Postcode's shape", means: "not the shape of the country's postcodes" },
  "far-from-street": { name: "Far from its street", means: "far from the other numbers of its street" },
  "two-spellings": { name: "Two spellings", means: "a street that is written in another way elsewhere" },
  "odd-fact": { name: "Odd fact", means: "a fact that is too long, or hours that contradict each other" },
  "mixed-encodings": { name: "Mixed encodings", means: "letters that were read in a wrong encoding" },
};

/** What a column may mean, in words. */
export const MEANING_WORDS: Readonly<Record<Meaning, string>> = {
  street: "Street",
  way: "Kind of street",
  block: "Block",
  house: "House number",
  suffix: "Suffix of the number",
  line: "Street and number",
  unit: "Flat",
  name: "Name of the house",
  place: "Name of a place",
  kinds: "Kinds of place",
  postcode: "Postcode",
  district: "District",
  town: "Town",
  county: "County",
  region: "Region",
  country: "Country",
  lat: "Latitude",
  lon: "Longitude",
  position: "Position in one",
  east: "Metres east",
  north: "Metres north",
  id: "Its own key",
  importance: "Importance, or people",
  phone: "Telephone",
  url: "Web page",
  hours: "Opening hours",
  languages: "Languages spoken",
  stepfree: "Step-free access",
  fact: "Another fact of the place",
  text: "Whole address",
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

/** The version with its data set. */
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

/** What would be live with a version in the place of the others of its set; a set that was not live is trusted most. */
export function withVersion(data: DataAnswer, id: number): number[] {
  const same = findVersion(data, id)?.set.versions.map((version) => version.id) ?? [];
  const live = liveVersions(data);
  const place = live.findIndex((version) => same.includes(version));
  return place < 0 ? [id, ...live] : live.map((version, i) => (i === place ? id : version));
}
