import type { Box, Position } from "../geo/index.ts";
import { NONE, type Segment } from "../index/index.ts";
import { formatPattern, knownPattern } from "../pattern/index.ts";
import {
  type AutofillValues,
  autofillValues,
  type Continent,
  continentOf,
  type Exactness,
  envelopeLines,
  type Facts,
  formatHouseNumber,
  formatLine,
  type HouseNumber,
  isOtherScript,
  type Kind,
  type Part,
  type PartName,
  type Parts,
  partLookup,
  pickName,
  profileOf,
} from "../place/index.ts";
import type { Between } from "./numbers.ts";

/** How names are shown: preferred languages first, else in the script that was typed. */
export interface Shown {
  langs?: readonly string[];
  typed?: string;
}

/** What is kept of a record where many are looked up. Positions in WGS 84 degrees. */
export interface BriefRecord {
  ref: string;
  kind: Kind;
  exactness: Exactness;
  at: Position;
  line: string;
  parts: Parts;
}

/** A record as an answer gives it. */
export interface AnswerRecord extends BriefRecord {
  box?: Box;
  lines: string[];
  autofill: AutofillValues;
  facts?: Facts;
  continent?: Continent;
}

/** A number that a street does not have, from the neighbours. It has no ref but its street's. */
export function briefBetween(
  segment: Segment,
  street: number,
  { lower, upper, share }: Between,
  number: HouseNumber,
  shown: Shown,
): BriefRecord {
  const profile = profileOf(segment.countryCode(street));
  const [a, b] = [segment.addressPosition(lower), segment.addressPosition(upper)];
  const parts = partsOf(segment, street, share < 0.5 ? lower : upper, shown);
  for (const part of ["house", "unit", "building"] as const) delete parts[part];
  parts[profile.number.part] = { name: formatHouseNumber(number, profile.number.stands) };
  return {
    ref: segment.thingRef(street),
    kind: "address",
    exactness: "between",
    at: { lat: a.lat + (b.lat - a.lat) * share, lon: a.lon + (b.lon - a.lon) * share },
    line: formatLine(parts, profile),
    parts,
  };
}

/** Builds the answer for a number between two others. */
export function describeBetween(
  segment: Segment,
  street: number,
  between: Between,
  number: HouseNumber,
  shown: Shown,
): AnswerRecord {
  return written(segment, street, briefBetween(segment, street, between, number, shown), shown);
}

/** A thing, or an address of a street. */
export function brief(segment: Segment, thing: number, address: number, shown: Shown): BriefRecord {
  const profile = profileOf(segment.countryCode(thing));
  const parts = partsOf(segment, thing, address, shown);
  const isAddress = address !== NONE;
  const kind = isAddress ? "address" : segment.kindOf(thing);
  return {
    ref: isAddress ? segment.addressRef(address, thing) : segment.thingRef(thing),
    kind,
    exactness: isAddress || kind === "place" ? "surveyed" : segment.isStreet(thing) ? "along" : "centre",
    at: isAddress ? segment.addressPosition(address) : segment.positionOf(thing),
    line:
      kind === "place"
        ? placeLines(parts, (rest) => [formatLine(rest, profile)]).join(", ")
        : isAddress || segment.isStreet(thing)
          ? formatLine(parts, profile)
          : areaLine(kind, parts),
    parts,
  };
}

/** Builds the answer for a thing, or for an address of a street. */
export function describe(segment: Segment, thing: number, address: number, shown: Shown): AnswerRecord {
  const record = written(segment, thing, brief(segment, thing, address, shown), shown);
  if (segment.isArea(thing)) record.box = segment.areaBox(thing);
  if (record.kind === "place") record.facts = segment.factsOf(thing);
  return record;
}

/** A record with how its parts are written on an envelope and into a form. It is spelt out: copies by spreading took most of this. */
function written(segment: Segment, thing: number, brief: BriefRecord, { langs }: Shown): AnswerRecord {
  const { ref, kind, exactness, at, line, parts } = brief;
  const country = segment.countryCode(thing);
  const profile = profileOf(country);
  const continent = continentOf(country, langs);
  const lines = parts.place ? placeLines(parts, (rest) => envelopeLines(rest, profile)) : envelopeLines(parts, profile);
  const autofill = autofillValues(parts, profile);
  if (!continent) return { ref, kind, exactness, at, line, parts, lines, autofill };
  return { ref, kind, exactness, at, line, parts, continent, lines, autofill };
}

/** The name of a place before its address, as on an envelope, once; of what is no place the address alone. */
function placeLines({ place, ...address }: Parts, linesOf: (address: Parts) => string[]): string[] {
  if (!place) return linesOf(address);
  const { building, house, ...rest } = address;
  const others = Object.entries({ building, house }).filter(([, part]) => part && part.name !== place.name);
  return [place.name, ...linesOf({ ...rest, ...Object.fromEntries(others) })];
}

/** An area or a postcode in one line: its name and what lies around it, narrow to broad. */
function areaLine(kind: Kind, parts: Parts): string {
  const around = formatPattern(knownPattern(AROUND[kind] ?? "{country}"), partLookup(parts));
  return [parts[kind as PartName]!.name, around].filter(Boolean).join(", ");
}

/** The parts of a record, each with the short form, code or ref where it has one. */
export function partsOf(segment: Segment, thing: number, address: number, shown: Shown): Parts {
  const { sections } = segment;
  const parts: Parts = {};
  const kind = segment.kindOf(thing);
  if (segment.isStreet(thing)) addStreet(parts, segment, thing, address, shown);
  else parts[kind as PartName] = partOf(segment, thing, shown);
  if (kind === "place") {
    const at = segment.addressOfPlace(thing);
    if (at !== NONE) addStreet(parts, segment, segment.streetOf(at), at, shown);
  }
  const parent = sections.thingParent[thing];
  return parent === NONE ? parts : Object.assign(parts, aroundOf(segment, parent, shown));
}

/** Parts of areas by what they are shown in and the innermost area: the same few are around all candidates. */
const around = new WeakMap<Segment, Map<string, Map<number, Parts>>>();
const MOST_MANNERS = 64;
const MOST_AROUND = 5000;

/** The parts of an area and of those around it; shared between answers, so not to be changed. */
function aroundOf(segment: Segment, area: number, shown: Shown): Parts {
  const { langs = [], typed = "" } = shown;
  const byManner = madeFor(around, segment, () => new Map<string, Map<number, Parts>>());
  const manner = `${langs.join()} ${isOtherScript(typed)}`;
  if (byManner.size > MOST_MANNERS) byManner.clear();
  const byArea = madeFor(byManner, manner, () => new Map<number, Parts>());
  if (byArea.size > MOST_AROUND) byArea.clear();
  return madeFor(byArea, area, () => {
    const parts: Parts = {};
    for (let one = area; one !== NONE; one = segment.sections.thingParent[one])
      parts[segment.kindOf(one) as PartName] = partOf(segment, one, shown);
    return parts;
  });
}

/** What a map has for a key; made and kept when it has nothing yet. */
function madeFor<K, V>(map: { get(key: K): V | undefined; set(key: K, value: V): unknown }, key: K, make: () => V): V {
  let value = map.get(key);
  if (value === undefined) {
    value = make();
    map.set(key, value);
  }
  return value;
}

/** Adds the parts of a street, and of an address in it. */
function addStreet(parts: Parts, segment: Segment, street: number, address: number, shown: Shown): void {
  const { number } = profileOf(segment.countryCode(street));
  parts[segment.kindOf(street) as PartName] = partOf(segment, street, shown);
  if (address !== NONE) {
    const own = segment.numberOf(address);
    const { name, unit } = segment.detailOf(address);
    if (own) parts[number.part] = { name: formatHouseNumber(own, number.stands) };
    if (name !== undefined) parts[own && number.part === "house" ? "building" : "house"] = { name };
    if (unit !== undefined) parts.unit = { name: unit };
  }
  const postcode = segment.postcodeOf(street, address);
  if (postcode !== NONE) parts.postcode = { name: segment.namesOf(postcode)[0].name };
}

function partOf(segment: Segment, thing: number, shown: Shown): Part {
  const { name, abbr } = pickName(segment.namesOf(thing), shown.langs, shown.typed);
  const part: Part = { name };
  if (abbr) part.abbr = abbr;
  if (segment.isArea(thing)) {
    const code = segment.areaCode(thing);
    if (code) part.code = code;
    part.ref = segment.thingRef(thing);
  }
  return part;
}

/** A suggestion's line and what is beside it, in the country's order. */
export function suggestionLine(segment: Segment, thing: number, parts: Parts): { line: string; within: string } {
  const profile = profileOf(segment.countryCode(thing));
  const lookup = partLookup(parts);
  const kind = segment.kindOf(thing);
  if (segment.isStreet(thing) || kind === "place") {
    return {
      line: formatPattern(knownPattern(kind === "place" ? "{place}, {town}" : profile.suggestion), lookup),
      within: formatPattern(knownPattern(profile.within), lookup),
    };
  }
  const around = AROUND[kind] ?? "{country}";
  return { line: parts[kind as PartName]!.name, within: formatPattern(knownPattern(around), lookup) };
}

/** What is beside the name of an area or a postcode. */
const AROUND: Partial<Record<Kind, string>> = {
  postcode: "{town}, {country}",
  district: "{town}, {country}",
  town: "{county or region}, {country}",
  county: "{region}, {country}",
  region: "{country}",
  country: " ",
};
