import { type Position, readPosition } from "../geo/index.ts";
import {
  AREA_KINDS,
  type AreaKind,
  type CountryProfile,
  type Facts,
  type HouseNumber,
  type Name,
  postcodeAsWritten,
  profileOf,
  regionOf,
} from "../place/index.ts";
import { asPeopleWrite } from "../text/index.ts";
import { countryCode } from "./countries.ts";
import { joinFacts, readFact } from "./facts.ts";
import { houseAsWritten, readHouse, withoutDecimals } from "./house.ts";
import { endOf, splitWhole } from "./line.ts";
import { type MetresReader, metresReader } from "./metres.ts";
import { parseNumber } from "./numbers.ts";
import { ANGLE_FORMS, type ColumnForm, type ColumnUse, type Meaning, OF_FACTS, type Reading } from "./parts.ts";
import { angles, isTurned, pointIn } from "./points.ts";

/** What is wrong with a row so that it cannot be taken. */
export const REFUSALS = [
  "no-position",
  "at-zero",
  "swapped",
  "nothing-named",
  "no-country",
  "too-long",
  "width",
  "head-again",
  "double",
] as const;
/** What is odd about a row that is taken all the same. */
export const DOUBTS = [
  "outside-country",
  "no-number",
  "postcode-shape",
  "far-from-street",
  "two-spellings",
  "same-area",
  "mixed-encodings",
  "odd-fact",
] as const;
export type Refusal = (typeof REFUSALS)[number];
export type Doubt = (typeof DOUBTS)[number];

/** An area that a row lies in. */
export interface ImportArea {
  kind: AreaKind;
  names: Name[];
  code?: string;
  /** The developer's own name for it. */
  id?: string;
  /** 0 to 1. */
  importance?: number;
}

/** A row as it reads. */
export interface ImportRow {
  /** The developer's own name for the record. */
  id?: string;
  country: string;
  /** Broad to narrow, without the country. */
  areas: ImportArea[];
  postcode?: string;
  street?: { names: Name[]; isBlock: boolean };
  house?: HouseNumber;
  unit?: string;
  /** The house's own name. */
  name?: string;
  place?: { names: Name[]; kinds: string[] };
  at: Position;
  /** 0 to 1; orders what is otherwise equal. */
  importance?: number;
  /** Of the place that it names. */
  facts?: Facts;
}

/** The result of a row: a record, or why there is none; and warnings. */
export type ReadRow = { doubts: RowDoubt[] } & (
  | { row: ImportRow; refused?: undefined }
  | { row?: undefined; refused: RefusedRow }
);

export interface RowDoubt {
  kind: Doubt;
  words: string;
  column?: number;
}

export interface RefusedRow {
  kind: Refusal;
  words: string;
  column?: number;
}

/** Reads the position of a table's rows, where they have one. @throws Error when a projection's zone cannot be read */
export function positionOf(reading: Reading): (cells: readonly string[]) => Position | undefined {
  const reader = new RowReader(reading);
  return (cells) => reader.position(cells);
}

/** Longer names are refused: nobody lives there. */
const LONGEST = 200;
/** Text in UTF-8 that was read as something else, or could not be read. */
const MANGLED = /\uFFFD|[ÃÂ][\u0080-\u00BF]|â€/u;

/** Forms of a name that are kept beside it. */
const BESIDE = ["abbr", "written"] as const;

/** A column with names: in which language, and in which form, where it is not the name itself. */
interface NameColumn {
  column: number;
  lang: string | undefined;
  form: (typeof BESIDE)[number] | undefined;
}

/** Reads the rows of one table. */
export class RowReader {
  /** Column of each meaning, and of each code (`county code`). */
  readonly #at = new Map<string, number>();
  readonly #names = new Map<Meaning, NameColumn[]>();
  /** What of a row names an area, broad to narrow. */
  readonly #areas: { kind: AreaKind; names: NameColumn[]; code: number; id: number; importance: number }[];
  /** Columns that are used, facts apart. */
  readonly #used: readonly number[];
  /** Columns of facts. */
  readonly #facts: readonly { column: number; use: ColumnUse }[];
  /** Columns of what is behind the number, in their order. */
  readonly #suffixes: readonly number[];
  /** The column that holds the position alone. */
  readonly #point: number | undefined;
  readonly #isInMetres: boolean;
  /** Minutes, seconds and direction beside degrees; undefined where no column has any. */
  readonly #angles: Readonly<Record<"lat" | "lon", readonly number[]>> | undefined;
  /** Columns of the lines of an address, in their order. */
  readonly #lines: readonly number[];
  /** True where the kind of street comes before the name. */
  readonly #isWayFirst: boolean;
  readonly #profiles = new Map<string, CountryProfile>();
  readonly #metres: MetresReader | undefined;
  /** Columns that name areas; what they said last, and what that came to: rows of one place follow each other. */
  readonly #areaColumns: readonly number[];
  #lastCells: readonly string[] = [];
  #lastAreas: { lang: string; country: string; areas: ImportArea[] } | undefined;

  /** @throws Error when a projection is none that is known */
  constructor(private readonly reading: Reading) {
    reading.columns.forEach((use, column) => {
      if (!use) return;
      const form = BESIDE.find((one) => one === use.form);
      if (form || !use.form) {
        const list = this.#names.get(use.meaning) ?? [];
        list.push({ column, lang: use.lang, form });
        this.#names.set(use.meaning, list);
      }
      this.#at.set(nameOf(use), column);
    });
    const columnsOf = (meaning: Meaning) =>
      reading.columns.flatMap((use, column) => (use?.meaning === meaning ? [column] : []));
    this.#suffixes = columnsOf("suffix");
    this.#lines = columnsOf("line");
    this.#point = this.#at.get("position") ?? this.#at.get("lonlat");
    // degrees are taken where both are there: they need no zone
    const hasDegrees = this.#point !== undefined || (this.#at.has("lat") && this.#at.has("lon"));
    this.#isInMetres = this.#at.has("east") && !hasDegrees && reading.projection?.system !== "degrees";
    const angle = (axis: "lat" | "lon") => ANGLE_FORMS.map((form) => this.#at.get(`${axis} ${form}`) ?? -1);
    const [lat, lon] = [angle("lat"), angle("lon")];
    if ([...lat, ...lon].some((column) => column >= 0)) this.#angles = { lat, lon };
    this.#isWayFirst = (this.#at.get("way") ?? 0) < (this.#at.get("street") ?? 0);
    this.#used = reading.columns.flatMap((use, column) => (use && !OF_FACTS.has(use.meaning) ? [column] : []));
    this.#facts = reading.columns.flatMap((use, column) => (use && OF_FACTS.has(use.meaning) ? [{ use, column }] : []));
    this.#areas = AREA_KINDS.slice(1).flatMap((kind) => {
      const names = this.#names.get(kind);
      const column = (form: ColumnForm) => this.#at.get(`${kind} ${form}`) ?? -1;
      if (!names) return [];
      return [{ kind, names, code: column("code"), id: column("id"), importance: column("importance") }];
    });
    this.#areaColumns = this.#areas.flatMap(({ names, code, id, importance }) =>
      [...names.map(({ column }) => column), code, id, importance].filter((column) => column >= 0),
    );
    const { projection } = reading;
    if (projection && projection.system !== "degrees") this.#metres = metresReader(projection);
  }

  /** @param cells of one row, in the order of the columns */
  read(cells: readonly string[]): ReadRow {
    const doubts: RowDoubt[] = [];
    const long = this.#used.find((column) => (cells[column]?.length ?? 0) > LONGEST);
    if (long !== undefined)
      return { doubts, refused: { kind: "too-long", words: `${cells[long].length} characters`, column: long } };
    const position = this.#position(cells);
    if ("refused" in position) return { doubts, refused: position.refused };

    const written = this.#cell(cells, "country");
    const country = countryCode(written) ?? (written ? undefined : this.reading.country);
    if (!country)
      return {
        doubts,
        refused: {
          kind: "no-country",
          words: written ? `“${written}” is not the code or name of a country` : "no country",
          column: this.#at.get("country"),
        },
      };
    const profile = this.#profile(country);
    const lang = this.reading.lang ?? profile.langs[0];
    const row: ImportRow = { country, areas: this.#areasOf(cells, lang, country), at: position.at };
    this.#street(cells, row, lang, profile);
    const placeNames = this.#namesOf(cells, "place", lang);
    if (placeNames.length) {
      const kinds = this.#cell(cells, "kinds");
      row.place = { names: placeNames, kinds: kinds ? kinds.split(/[;,|]/).map((kind) => kind.trim()) : [] };
      const facts = this.#factsOf(cells, [lang, ...profile.langs], doubts);
      if (facts) row.facts = facts;
    }
    const id = this.#cell(cells, "id");
    if (id) row.id = id;
    const importance = share(this.#cell(cells, "importance"));
    if (importance !== undefined) row.importance = importance;
    this.#postcode(cells, row, lang, profile, doubts);
    // a row may be about an area itself: a list of towns
    if (!row.street && !row.place && !row.areas.length)
      return {
        doubts,
        refused: { kind: "nothing-named", words: "neither a street nor the name of a place or a town" },
      };
    if (row.street && !row.house && !row.name && !row.place)
      doubts.push({ kind: "no-number", words: "a street without a house number", column: this.#at.get("house") });
    const mangled = this.#used.find((column) => cells[column] && MANGLED.test(cells[column]));
    if (mangled !== undefined) doubts.push({ kind: "mixed-encodings", words: `“${cells[mangled]}”`, column: mangled });
    return { row, doubts };
  }

  /** What the columns of facts say; what of it is odd goes to the doubts. */
  #factsOf(cells: readonly string[], langs: readonly string[], doubts: RowDoubt[]): Facts | undefined {
    const all: Facts[] = [];
    for (const { use, column } of this.#facts) {
      const text = (cells[column] ?? "").trim();
      if (!text) continue;
      const { facts, odd } = readFact(use, text, langs);
      all.push(facts);
      if (odd) doubts.push({ kind: "odd-fact", words: odd, column });
    }
    return joinFacts(all);
  }

  /** The position alone. */
  position(cells: readonly string[]): Position | undefined {
    const read = this.#position(cells);
    return "at" in read ? read.at : undefined;
  }

  /** The same list for rows that follow each other and name the same areas. */
  #areasOf(cells: readonly string[], lang: string, country: string): ImportArea[] {
    if (
      this.#lastAreas?.lang === lang &&
      this.#lastAreas.country === country &&
      this.#areaColumns.every((column) => cells[column] === this.#lastCells[column])
    )
      return this.#lastAreas.areas;
    const areas: ImportArea[] = [];
    for (const one of this.#areas) {
      const written = readNames(cells, one.names, lang);
      if (!written.length) continue;
      const coded = one.kind === "region" && written.length === 1 ? regionOf(country, written[0].name) : undefined;
      const names = coded ? [{ lang, name: coded.name, abbr: coded.code }] : this.#asWritten(written);
      const area: ImportArea = { kind: one.kind, names };
      const code = clean(cells[one.code] ?? "") || coded?.code;
      const id = clean(cells[one.id] ?? "");
      const importance = share(cells[one.importance] ?? "");
      if (code) area.code = code;
      if (id) area.id = id;
      if (importance !== undefined) area.importance = importance;
      areas.push(area);
    }
    this.#lastCells = cells;
    this.#lastAreas = { lang, country, areas };
    return areas;
  }

  #cell(cells: readonly string[], name: string): string {
    const column = this.#at.get(name);
    return column === undefined ? "" : clean(cells[column] ?? "");
  }

  #namesOf(cells: readonly string[], meaning: Meaning, lang: string): Name[] {
    const columns = this.#names.get(meaning);
    return columns ? this.#asWritten(readNames(cells, columns, lang)) : [];
  }

  /** Names as the reading wants them: those in capitals as people write them, with how the source writes them beside it. */
  #asWritten(names: Name[]): Name[] {
    if (!this.reading.recases) return names;
    return names.map((one) => {
      const name = asPeopleWrite(one.name, one.lang);
      return name === one.name ? one : { ...one, name, written: one.written ?? one.name };
    });
  }

  #street(cells: readonly string[], row: ImportRow, lang: string, profile: CountryProfile): void {
    const streets = this.#asWritten(
      this.#withWay(readNames(cells, this.#names.get("street") ?? [], lang), this.#cell(cells, "way")),
    );
    const names = streets.length ? streets : this.#namesOf(cells, "block", lang);
    if (names.length) row.street = { names, isBlock: !streets.length };
    const unit = this.#cell(cells, "unit");
    const name = this.#cell(cells, "name");
    if (unit) row.unit = unit;
    if (name) row.name = this.reading.recases ? asPeopleWrite(name, lang) : name;
    const written = this.#suffixes.reduce(
      (number, column) => joinedNumber(number, clean(cells[column] ?? "")),
      houseAsWritten(this.#cell(cells, "house")),
    );
    const read = readHouse(written);
    if (read.house) row.house = read.house;
    if (read.name) row.name ??= read.name;
    if (read.unit) row.unit = row.unit ? `${read.unit}, ${row.unit}` : read.unit;
    if (row.house) partUnit(row, profile.code);
    if (row.street || !this.#lines.length) return;
    const line = this.#lines
      .map((column) => clean((cells[column] ?? "").trim().replace(/\s*[\r\n]+\s*/g, ", ")))
      .filter(Boolean)
      .join(", ");
    if (line) this.#line(line, row, lang, profile);
  }

  /** A whole address from one text: what columns of their own say goes before what it says. */
  #line(line: string, row: ImportRow, lang: string, profile: CountryProfile): void {
    const { street, house, unit, name, postcode, district, town, county, region } = splitWhole(
      line,
      profile,
      (text) => text.length > 1 && countryCode(text) === row.country,
    );
    row.street = { names: this.#asWritten([{ lang, name: street }]), isBlock: false };
    if (house) row.house ??= house;
    if (unit) row.unit ??= unit;
    partUnit(row, profile.code);
    if (name && !row.house) row.name ??= name;
    if (postcode) row.postcode ??= postcode;
    if (region) this.#addArea(row, "region", region, lang);
    if (county) this.#addArea(row, "county", county, lang);
    if (town) this.#addArea(row, "town", town, lang);
    if (district) this.#addArea(row, "district", district, lang);
  }

  /** An area that no column of its own names; narrower ones stand behind it. */
  #addArea(row: ImportRow, kind: "region" | "county" | "town" | "district", name: string, lang: string): void {
    if (row.areas.some((area) => area.kind === kind)) return;
    const coded = kind === "region" ? regionOf(row.country, name) : undefined;
    const names = coded ? [{ lang, name: coded.name, abbr: coded.code }] : this.#asWritten([{ lang, name }]);
    const rank = AREA_KINDS.indexOf(kind);
    const at = row.areas.findIndex((area) => AREA_KINDS.indexOf(area.kind) > rank);
    // rows that follow each other share their list
    row.areas = row.areas.toSpliced(at < 0 ? row.areas.length : at, 0, { kind, names });
  }

  /** Names with the kind of street beside them, as the columns have it, where they do not say it themselves. */
  #withWay(names: Name[], way: string): Name[] {
    if (!way) return names;
    return names.map(({ name, ...rest }) => {
      const words = name.toLowerCase().split(" ");
      const says = words[this.#isWayFirst ? 0 : words.length - 1] === way.toLowerCase();
      return { ...rest, name: says ? name : this.#isWayFirst ? `${way} ${name}` : `${name} ${way}` };
    });
  }

  #postcode(cells: readonly string[], row: ImportRow, lang: string, profile: CountryProfile, doubts: RowDoubt[]): void {
    const postcode = withoutDecimals(this.#cell(cells, "postcode"));
    if (!postcode) return;
    let written = postcodeAsWritten(profile, postcode);
    // "6013 Seebach am Rain" is a postcode and a town
    const end = written === undefined ? endOf(postcode, profile) : undefined;
    if (end) {
      written = end.postcode;
      if (/\p{L}{2}/u.test(end.rest)) this.#addArea(row, "town", end.rest, lang);
    }
    row.postcode = written ?? postcode.toUpperCase();
    if (written !== undefined || !profile.postcode) return;
    doubts.push({
      kind: "postcode-shape",
      words: `“${postcode}” does not look like ${profile.postcode?.examples[0]}`,
      column: this.#at.get("postcode"),
    });
  }

  #position(cells: readonly string[]): { at: Position } | { refused: RefusedRow } {
    const refuse = (kind: Refusal, words: string, column?: number) => ({ refused: { kind, words, column } });
    const column = this.#point ?? this.#at.get("lat") ?? this.#at.get("east");
    if (this.#isInMetres && !this.#metres) return refuse("no-position", "metres without a zone or projection", column);
    const written = this.#written(cells);
    if (!written.some((text) => text.trim())) return refuse("no-position", "no position", column);
    const at = this.#point === undefined ? this.#readPair(written[0], written[1]) : this.#readPoint(written[0]);
    if (at === "metres") return refuse("no-position", "metres without a zone or projection", column);
    if (at === "swapped") return refuse("swapped", `${written.join(", ")}: were the two swapped?`, column);
    if (!at) return refuse("no-position", `“${written.join(", ")}” is not a position`, column);
    if (at.lat === 0 && at.lon === 0) return refuse("at-zero", "at 0°, 0°: a position that was never set", column);
    return { at };
  }

  #profile(country: string): CountryProfile {
    let profile = this.#profiles.get(country);
    if (!profile) {
      profile = profileOf(country);
      this.#profiles.set(country, profile);
    }
    return profile;
  }

  #written(cells: readonly string[]): string[] {
    const of = (meaning: Meaning) => cells[this.#at.get(meaning) ?? -1] ?? "";
    if (this.#point !== undefined) return [cells[this.#point] ?? ""];
    if (this.#isInMetres) return [of("east"), of("north")];
    return this.#at.has("lat") ? [this.#angle(cells, "lat"), this.#angle(cells, "lon")] : [of("north"), of("east")];
  }

  /** An angle in one column, or as degrees with minutes, seconds and a letter in others. */
  #angle(cells: readonly string[], axis: "lat" | "lon"): string {
    const degrees = cells[this.#at.get(axis) ?? -1] ?? "";
    if (!this.#angles) return degrees;
    const [minutes, seconds, direction] = this.#angles[axis].map((column) => clean(cells[column] ?? ""));
    return minutes || direction ? `${degrees}° ${minutes} ${seconds}${direction.slice(0, 1)}` : degrees;
  }

  #readPoint(text: string): Position | "swapped" | "metres" | undefined {
    const point = pointIn(text, this.#at.has("lonlat"));
    if (!point) return isTurned(text) ? "swapped" : undefined;
    if ("at" in point) return point.at;
    return this.#metres ? this.#metres(point.east, point.north) : "metres";
  }

  #readPair(first: string, second: string): Position | "swapped" | undefined {
    if (this.#isInMetres) {
      const [east, north] = [parseNumber(first), parseNumber(second)];
      return Number.isFinite(east) && Number.isFinite(north) ? this.#metres?.(east, north) : undefined;
    }
    const [lat, lon] = [parseNumber(first), parseNumber(second)];
    if (Number.isFinite(lat) && Number.isFinite(lon)) {
      if (Math.abs(lat) > 90 && Math.abs(lat) <= 180 && Math.abs(lon) <= 90) return "swapped";
      return Math.abs(lat) <= 90 && Math.abs(lon) <= 180 ? { lat, lon } : undefined;
    }
    return readPosition(`${first} ${second}`) ?? angles(first, second);
  }
}

/** Wider ranges are no house's: the number in front is a flat's. */
const WIDEST_RANGE = 40;

/** "3/45" is flat 3 of number 45 in Australia and New Zealand, and "4-120" one of number 120 in Canada. */
function partUnit(row: ImportRow, country: string): void {
  const [, mark, number, letter] = /^([-/])(\d+)(\p{L}?)$/u.exec(row.house?.suffix ?? "") ?? [];
  if (!row.house || !number || row.unit) return;
  const isRange = Number(number) > row.house.number && Number(number) - row.house.number <= WIDEST_RANGE;
  const isFlat = mark === "/" ? country === "AU" || country === "NZ" : country === "CA" && !isRange;
  if (!isFlat) return;
  row.unit = String(row.house.number);
  row.house = { number: Number(number), suffix: letter };
}

/** A number and its suffix in another column: 12 and "b", 4816 and "1/2", 12 and a second number, "12b" and "2". */
function joinedNumber(house: string, suffix: string): string {
  if (!house || /^(?:bis|ter|quater)$/i.test(suffix)) return house + suffix;
  if (!/^\d/.test(suffix)) return house + (/^\p{L}{2}/u.test(suffix) ? `-${suffix}` : suffix);
  return `${house}${suffix.includes("/") ? " " : "-"}${suffix}`;
}

const nameOf = ({ meaning, form }: ColumnUse) => (form ? `${meaning} ${form}` : meaning);

function readNames(cells: readonly string[], columns: readonly NameColumn[], lang: string): Name[] {
  const names: Name[] = [];
  for (const one of columns) {
    if (one.form) continue;
    const name = clean(cells[one.column] ?? "");
    if (name && !names.some((text) => text.name === name)) names.push({ lang: one.lang ?? lang, name });
  }
  for (const one of columns) {
    if (!one.form) continue;
    const text = clean(cells[one.column] ?? "");
    const named = text ? names.find((name) => name.lang === (one.lang ?? lang)) : undefined;
    if (named && text !== named.name) named[one.form] = text;
  }
  return names;
}

/** What `clean` puts right. */
const UNTIDY = /[\u0000-\u001F\u007F-\u00A0\u2000-\u200A\u3000]|^ | $| {2}/u;

/** Spaces put right; a NUL or another control character is not part of a name. */
function clean(text: string): string {
  if (!text || !UNTIDY.test(text)) return text;
  return text.replace(/[\u0000-\u001F\u007F\s]+/gu, " ").trim();
}

/** Above this everything is as important: the people of the largest city. */
const LARGEST = 4e7;

/** An importance from 0 to 1; more than 1 is taken for how many live there, and becomes one by the order of size. */
function share(text: string): number | undefined {
  const value = parseNumber(text);
  if (value >= 0 && value <= 1) return value;
  // nobody counts parts of a person: "12.345" is twelve thousand
  const people = parseNumber(text.replace(/(?<=\d)[\s'’.,](?=\d{3}(?!\d))/gu, ""));
  return people >= 0 ? Math.min(1, Math.log(1 + people) / Math.log(1 + LARGEST)) : undefined;
}
