import { type Position, sphereDistance } from "@bibliotope/core/geo";
import type { Kind, PartName } from "@bibliotope/core/place";
import type {
  ForwardAnswer,
  PostcodesAnswer,
  RecordAnswer,
  RecordFeature,
  ReverseAnswer,
  SuggestAnswer,
  Suggestion,
} from "@bibliotope/wire";

/** A record of a test, with what of it the test needs. */
export interface StandInRecord {
  ref: string;
  /** The address in one line. */
  line: string;
  at?: Position;
  kind?: Kind;
  /** Names of the parts, such as `{ house: "12", street: "Harbour Row", town: "Tidewell" }`. */
  parts?: Partial<Record<PartName, string>>;
  /** Values of autofill tokens; made of the parts when not given. */
  autofill?: Record<string, string>;
  facts?: RecordFeature["properties"]["facts"];
}

type Words = Readonly<Record<string, string>>;

const fold = (text: string) => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();
const wordsOf = (text: string): string[] => fold(text).match(/[\p{L}\p{N}]+/gu) ?? [];
const allWords = ({ line, parts = {} }: StandInRecord) => wordsOf([line, ...Object.values(parts)].join(" "));
const positionOf = (text = ""): Position => {
  const [lat, lon] = text.split(",").map(Number);
  return { lat, lon };
};
/** In the middle of nowhere: for records whose position matters to nobody. */
const NOWHERE: Position = { lat: 0, lon: 0 };
const SOURCE = [{ name: "A test's records", day: "2026-01-01", licence: "CC0-1.0" }];
const PART_NAMES: readonly PartName[] = ["house", "unit", "street", "block", "building", "district", "town", "county"];

/**
 * Lookups of a handful of records: words that begin alike, or all words, and no more. It stands in for a service where the form is
 * tested, not the search.
 */
export class Records {
  constructor(private readonly records: readonly StandInRecord[]) {}

  suggest({ q = "", limit = "7" }: Words): SuggestAnswer {
    const typed = wordsOf(q);
    const found = this.records.filter((record) => {
      const words = allWords(record);
      return typed.length > 0 && typed.every((one) => words.some((word) => word.startsWith(one)));
    });
    const suggestions = found.slice(0, Number(limit)).map((record): Suggestion => {
      const { ref, line, kind = "address", at = NOWHERE, parts = {} } = record;
      const sure = found.length === 1 ? { sure: true as const } : {};
      return { ref, kind, line, within: parts.town ?? "", marks: marksOf(line, typed), at, more: 0, ...sure };
    });
    return { q, outcome: found.length ? "matched" : "none", advice: [], source: SOURCE, suggestions };
  }

  forward({ q = "", limit = "5", ...words }: Words): ForwardAnswer {
    const parts = PART_NAMES.flatMap((part) => (words[part] ? [words[part]] : []));
    const typed = wordsOf([q, ...parts].join(" "));
    const found = this.records.filter((record) => {
      const words = allWords(record);
      return typed.length > 0 && typed.every((word) => words.includes(word));
    });
    const outcome = found.length > 1 ? "ambiguous" : found.length ? "matched" : "none";
    const features = found
      .slice(0, Number(limit))
      .map((record) => featureOf(record, { score: 1 / found.length, differences: [] }));
    return { type: "FeatureCollection", outcome, advice: [], source: SOURCE, features };
  }

  reverse({ at, radius = "250", limit = "10" }: Words): ReverseAnswer {
    const here = positionOf(at);
    const near = this.records
      .map((record) => ({ record, metres: Math.round(sphereDistance(here, record.at ?? NOWHERE)) }))
      .filter(({ metres }) => metres <= Number(radius))
      .sort((a, b) => a.metres - b.metres);
    const features = near.slice(0, Number(limit)).map(({ record, metres }) => featureOf(record, { distance: metres }));
    return {
      type: "FeatureCollection",
      outcome: features.length ? "matched" : "none",
      advice: [],
      source: SOURCE,
      features,
    };
  }

  record(ref: string): RecordAnswer | undefined {
    const record = this.records.find((one) => one.ref === ref);
    return record && { ...featureOf(record), source: SOURCE };
  }

  postcodes({ starts = "" }: Words): PostcodesAnswer {
    const codes = this.records.flatMap(({ ref, parts, at }) =>
      parts?.postcode && fold(parts.postcode).startsWith(fold(starts)) ? [{ ref, line: parts.postcode, at }] : [],
    );
    const features = codes.map((code) => featureOf({ ...code, kind: "postcode", parts: { postcode: code.line } }));
    const outcome = features.length ? "matched" : "none";
    return { type: "FeatureCollection", outcome, advice: [], total: features.length, source: SOURCE, features };
  }
}

function featureOf(record: StandInRecord, more: Partial<RecordFeature["properties"]> = {}): RecordFeature {
  const { ref, line, at = NOWHERE, kind = "address", parts = {}, autofill = autofillOf(line, parts), facts } = record;
  const named = Object.fromEntries(Object.entries(parts).map(([part, name]) => [part, { name }]));
  return {
    type: "Feature",
    id: ref,
    geometry: { type: "Point", coordinates: [at.lon, at.lat] },
    properties: {
      ...{ kind, exactness: "surveyed", at, line, lines: line.split(", "), parts: named, autofill },
      ...(facts ? { facts } : {}),
      ...more,
    },
  };
}

/** The HTML standard's tokens of the usual parts. */
function autofillOf(line: string, parts: NonNullable<StandInRecord["parts"]>): Record<string, string> {
  const street = [parts.house, parts.street].filter(Boolean).join(" ") || line.split(", ")[0];
  const tokens = {
    "street-address": street,
    "address-line1": street,
    "address-level2": parts.town,
    "address-level1": parts.region ?? parts.county,
    "postal-code": parts.postcode,
    country: parts.country,
  };
  return Object.fromEntries(Object.entries(tokens).filter((one): one is [string, string] => Boolean(one[1])));
}

/** Where the typed words stand in a line. */
function marksOf(line: string, typed: readonly string[]): [number, number][] {
  const marks = Array.from(line.matchAll(/[\p{L}\p{N}]+/gu), ({ 0: word, index }): [number, number] | undefined => {
    const begun = typed.find((one) => fold(word).startsWith(one));
    return begun === undefined ? undefined : [index, index + Math.min(begun.length, word.length)];
  });
  return marks.filter((mark) => mark !== undefined);
}
