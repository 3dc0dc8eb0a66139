import { allProfiles, heldProfile, parseHouseNumber, postcodeShape } from "../place/index.ts";
import { isInCapitals } from "../text/index.ts";
import { CALLED, isLine, isYears, MOST, type Proposal, readAsLine, readByValues, type Table } from "./by-values.ts";
import { factNameOf, kindOfValues } from "./facts.ts";
import { readHead } from "./head-words.ts";
import { plainHead, useOfHead } from "./heads.ts";
import { parseNumber } from "./numbers.ts";
import { ANGLE_FORMS, type ColumnUse, JOINED, MEANINGS, type Meaning, OF_FACTS, PLACED } from "./parts.ts";
import { pointIn } from "./points.ts";

/** Meanings that say something of data, and nothing of an address that somebody looks up. */
const NOT_ASKED: ReadonlySet<Meaning> = new Set<Meaning>(["id", "kinds", "importance", ...OF_FACTS]);
/** Further facts that are proposed at most. */
const MOST_FACTS = 30;
/** Rows that are looked at. */
const LOOKED_AT = 200;

/**
 * What the columns of a table may mean, by their heads and, where those say nothing, by what is in them. No two
 * columns get the same meaning.
 * @param heads names of the columns, or undefined where the table has none
 * @param rows the first rows
 * @param purpose whether the table holds addresses to be looked up in: then a name is that of a house, not of a person
 */
export function proposeColumns(
  heads: readonly string[] | undefined,
  rows: readonly (readonly string[])[],
  purpose: "data" | "batch" = "data",
): Proposal[] {
  const width = Math.max(heads?.length ?? 0, ...rows.slice(0, LOOKED_AT).map((row) => row.length));
  const proposals: Proposal[] = Array.from({ length: width }, () => ({ use: null, why: "" }));
  const taken = new Set<string>();
  const valuesOf = (column: number) =>
    rows
      .slice(0, LOOKED_AT)
      .map((row) => row[column]?.trim() ?? "")
      .filter(Boolean);
  /** Lines of an address are joined where their heads count them, as in "address 1" and "address 2", and no other column has the town. */
  const mayJoin = (meaning: Meaning, column: number) => {
    if (meaning !== "line") return JOINED.has(meaning);
    const stem = (head = "") => plainHead(head).replace(/\d+/g, "");
    const isNext = (other: number) =>
      proposals[other]?.use?.meaning === "line" && stem(heads?.[other]) === stem(heads?.[column]);
    return !taken.has("town  ") && !taken.has("postcode  ") && isNext(column - 1);
  };
  const take = (column: number, use: ColumnUse, why: string) => {
    const name = `${use.meaning} ${use.lang ?? ""} ${use.form ?? ""}`;
    if (taken.has(name) && !mayJoin(use.meaning, column)) {
      proposals[column].why ||= `looks like ${use.meaning}, but another column already is`;
      return;
    }
    taken.add(name);
    proposals[column] = { use, why };
  };
  const headed = (heads ?? []).flatMap((head, column) => {
    const found = useOfHead(head);
    const values = valuesOf(column);
    const use = believed(found?.use, values);
    const isAsked = use && !NOT_ASKED.has(use.meaning) && plainHead(head) !== "name";
    if (!found || !use || (purpose === "batch" && !isAsked)) return [];
    if (!canBe(use, values)) {
      proposals[column].why = `named “${head.slice(0, 40)}”, but its values are something else`;
      return [];
    }
    // of two columns for the same, what is mostly empty comes second
    const filled = rows.length ? values.length / Math.min(rows.length, LOOKED_AT) : 1;
    const isTurned = use.meaning !== found.use.meaning && (use.meaning === "lat" || use.meaning === "lon");
    return [{ ...found, use, isTurned, column, head, weight: found.weight * (0.5 + 0.5 * filled) }];
  });
  for (const { column, use, head, isTurned } of [...headed].sort((a, b) => b.weight - a.weight || a.column - b.column))
    take(column, use, `named “${head.slice(0, 40)}”${isTurned ? ", and its values are degrees" : ""}`);
  const table = { proposals, heads, valuesOf, rows: rows.slice(0, LOOKED_AT) };
  readAsAngles(table);
  if (purpose === "data") {
    for (const { column, level } of headed) if (level) readAsBroader(table, column, level);
    readAsPlaces(proposals);
    readAsTowns(proposals);
  }
  readAsMetres(table);
  readAsLine(table);
  const left = leaveMetres(table);
  for (let column = 0; column < width; column++) {
    if (proposals[column].use || left.includes(column)) continue;
    const values = valuesOf(column);
    // a head that is no word of an address says that its numbers are no houses (a price, a year), and its codes no countries
    const isOther = Boolean(heads?.[column]?.trim()) && !/^(column|col|field)?[\s_-]*\d*$/i.test(heads?.[column] ?? "");
    const hasStreet = taken.has("street  ") || taken.has("line  ");
    const isYear = isOther && isYears(values);
    const seen = lookOf(values, taken, [
      ...(isYear ? POSTCODE : []),
      ...(isOther ? HEADED_OTHERWISE : []),
      ...(hasStreet ? LINE : []),
    ]);
    if (seen) take(column, seen.use, seen.why);
    else proposals[column].why ||= values.length ? "neither its name nor its values say" : "is empty";
  }
  readByValues(table);
  if (purpose === "data") readAreaAsTown(table);
  if (purpose === "data" && heads) readAsFacts(proposals, heads, valuesOf);
  return proposals;
}

const HEADED_OTHERWISE: readonly Meaning[] = ["house", "country"];
const LINE: readonly Meaning[] = ["line"];
const POSTCODE: readonly Meaning[] = ["postcode"];

/** Meanings without which a table is no list of addresses or places. */
const NAMING: ReadonlySet<Meaning> = new Set<Meaning>(["street", "block", "line", "house", "place", "town"]);

/** What has a telephone or hours is a place, and what it is called is the place's name. */
function readAsPlaces(proposals: Proposal[]): void {
  if (proposals.some(({ use }) => use?.meaning === "place")) return;
  if (!proposals.some(({ use }) => use && OF_FACTS.has(use.meaning))) return;
  const column = proposals.findIndex(({ use }) => use?.meaning === "name");
  if (column < 0) return;
  proposals[column] = {
    use: { meaning: "place" },
    why: `${proposals[column].why}, next to columns that only places have`,
  };
}

/** Of a list of places, what no part of an address is may be a fact of their own, named by the head. */
function readAsFacts(proposals: Proposal[], heads: readonly string[], valuesOf: (column: number) => string[]): void {
  if (!proposals.some(({ use }) => use?.meaning === "place")) return;
  const taken = new Set<string>(MEANINGS);
  let count = 0;
  proposals.forEach(({ use }, column) => {
    const label = (heads[column] ?? "")
      .replace(/^fact:/i, "")
      .trim()
      .slice(0, 60);
    const name = factNameOf(label);
    const values = valuesOf(column);
    if (use || !name || taken.has(name) || !values.length || count >= MOST_FACTS) return;
    if (
      plainHead(label)
        .split("_")
        .some((word) => PEOPLE.has(word))
    ) {
      proposals[column].why = "may name a person: choose it if that is to be published";
      return;
    }
    taken.add(name);
    count++;
    const kind = kindOfValues(values);
    proposals[column] = {
      use: { meaning: "fact", fact: { name, label, kind } },
      why: `an attribute of places, by its name${kind === "text" ? "" : `; its values are ${KIND_WORDS[kind]}`}`,
    };
  });
}

/** Words of heads of columns with people's names: nobody publishes those by not looking. */
const PEOPLE = new Set(
  `contact person owner manager recipient customer firstname lastname surname forename ansprechpartner ansprechperson inhaber vorname
  nachname kontakt proprietaire gerant prenom contacto responsable titular gerente nombre_contacto referente titolare cognome
  contactpersoon eigenaar kontaktperson osoba`.split(/\s+/),
);

const KIND_WORDS = { number: "numbers", "yes-no": "yes or no", link: "links", date: "days" } as const;

/** A plain list of names is one of towns: houses have a street or a number beside their name, places say what they are. */
function readAsTowns(proposals: Proposal[]): void {
  if (proposals.some(({ use }) => use && (NAMING.has(use.meaning) || use.meaning === "kinds"))) return;
  const column = proposals.findIndex(({ use }) => use?.meaning === "name");
  if (column < 0) return;
  proposals[column] = {
    use: { meaning: "town" },
    why: `${proposals[column].why}, and no other column has a street or house`,
  };
}

/** A town that several columns name: what is broader is the county, and what lies in it the district. */
function readAsBroader({ proposals, rows }: Table, column: number, level: "village" | "municipality"): void {
  const town = proposals.findIndex(({ use }) => use?.meaning === "town" && !use.form);
  const meaning = level === "municipality" ? "county" : "district";
  if (proposals[column].use || town < 0 || proposals.some(({ use }) => use?.meaning === meaning)) return;
  const isSame = (row: readonly string[]) =>
    (row[column] ?? "").trim().toLowerCase() === (row[town] ?? "").trim().toLowerCase();
  if (!rows.length || rows.filter(isSame).length >= MOST * rows.length) return;
  proposals[column] = { use: { meaning }, why: `names a ${level}, and another column the town` };
}

/** What is a county, or a suburb, in one country and a town in another is the town of rows of which nothing else names one. */
function readAreaAsTown({ proposals, heads }: Table): void {
  if (proposals.some(({ use }) => use?.meaning === "town")) return;
  if (!proposals.some(({ use }) => use?.meaning === "street" || use?.meaning === "line")) return;
  const column = proposals.findIndex(({ use }, i) => {
    if (use?.form || (use?.meaning !== "county" && use?.meaning !== "district")) return false;
    const { said } = readHead(plainHead(heads?.[i] ?? "").split("_"));
    return said.some((word) => word === "town" || word === "municipality" || word === "village");
  });
  if (column < 0) return;
  proposals[column] = { use: { meaning: "town" }, why: `${proposals[column].why}, and no other column is a town` };
}

/** What no column of a meaning holds, whatever the head says: names have letters, house numbers are short. */
function canBe({ meaning, form }: ColumnUse, values: readonly string[]): boolean {
  if (!values.length || form) return true;
  const share = (fits: (value: string) => boolean) => values.filter(fits).length / values.length;
  const hasLetter = (value: string) => /\p{L}/u.test(value);
  switch (meaning) {
    case "town":
    case "district":
    case "county":
    case "region":
    case "way":
      return share(hasLetter) >= 0.5;
    case "street":
      return share(hasLetter) >= 0.2;
    case "house":
      return share((value) => /^\d{6,}$|^\d{4}-\d\d-\d\d/.test(value)) < 0.5 && share(isLine) < CALLED;
    case "postcode":
      return share((value) => /^\d{1,2}\p{L}?$/u.test(value)) < 0.5;
    case "suffix":
      return share((value) => value.length <= 8) >= 0.8;
    default:
      return true;
  }
}

/** What an axis is called by what its values turn out to be. */
const AS_METRES = { lat: "north", lon: "east" } as const;
const AS_DEGREES = { north: "lat", east: "lon" } as const;

/**
 * What a head means, as far as the values can be that: what is headed as degrees and holds none may be metres, and what is
 * headed x or "easting" may hold degrees.
 */
function believed(use: ColumnUse | undefined, values: readonly string[]): ColumnUse | undefined {
  if (!use || !values.length) return use;
  const { meaning } = use;
  if (meaning === "lat" || meaning === "lon") {
    const most = meaning === "lat" ? 90 : 180;
    const numbers = values.map(parseNumber).filter(Number.isFinite);
    const isBeyond = numbers.filter((value) => Math.abs(value) > most).length > values.length * MOST;
    return isBeyond ? { meaning: AS_METRES[meaning] } : use;
  }
  if (meaning !== "north" && meaning !== "east") return use;
  const isDegrees = values.filter(degrees(meaning === "north" ? 90 : 180)).length >= MOST * values.length;
  return isDegrees ? { meaning: AS_DEGREES[meaning] } : use;
}

/** Short words of heads that say which way metres run, where nothing else does. */
const EAST_WORDS = new Set("x e ost rw m esty".split(" "));
const NORTH_WORDS = new Set("y n nord hw p".split(" "));
/** Metres from which two columns of numbers may be positions. */
const LEAST_METRES = 1000;

/** Two columns that hold metres, where no projection is named: by a word of their heads, or as the only two that may. */
function readAsMetres({ proposals, heads, valuesOf }: Table): void {
  if (proposals.some(({ use }) => use && PLACED.has(use.meaning))) return;
  const isMetres = (column: number) => {
    const values = valuesOf(column);
    const numbers = values.map(parseNumber).filter((value) => Math.abs(value) < 1e8);
    const large = numbers.filter((value) => Math.abs(value) >= LEAST_METRES);
    return values.length > 2 && numbers.length === values.length && large.length > values.length * 0.8;
  };
  const open = proposals.flatMap(({ use }, column) => (use || !isMetres(column) ? [] : [column]));
  const told = (which: ReadonlySet<string>, axis: "east" | "north") =>
    open.find((column) => {
      const words = plainHead(heads?.[column] ?? "").split("_");
      return words.some((word) => which.has(word)) || readHead(words).said.includes(axis);
    });
  const [east, north] = [told(EAST_WORDS, "east"), told(NORTH_WORDS, "north")];
  const isTold = east !== undefined && north !== undefined && east !== north;
  // two columns of numbers under heads that say something else may be anything, but for the only two that no row shares
  const only = heads ? open.filter((column) => isVaried(valuesOf(column))) : open.slice(0, 2);
  if (!isTold && only.length !== 2) return;
  const why = isTold ? "look like metres, and the column names say which axis" : "look like metres";
  proposals[isTold ? east : only[0]] = { use: { meaning: "east" }, why };
  proposals[isTold ? north : only[1]] = { use: { meaning: "north" }, why };
}

/** True where nearly every value is another. */
const isVaried = (values: readonly string[]) => new Set(values).size >= MOST * values.length;

/** Metres beside degrees are left alone, since those need no zone. @returns the columns that are left alone */
function leaveMetres({ proposals }: Table): number[] {
  const at = (meaning: Meaning) => proposals.findIndex(({ use }) => use?.meaning === meaning);
  const [east, north] = [at("east"), at("north")];
  if (east < 0 || north < 0 || at("lat") < 0 || at("lon") < 0) return [];
  for (const column of [east, north])
    proposals[column] = { use: null, why: "metres; the degrees in another column are used instead" };
  return [east, north];
}

const isWhole = (values: readonly string[]) =>
  values.length > 0 && values.every((value) => /^[+-]?\d{1,3}$/.test(value));

/** Integer degrees are a position only with minutes, and minutes only with such degrees. */
function readAsAngles({ proposals, valuesOf }: Table): void {
  for (const meaning of ["lat", "lon"]) {
    const of = (form?: string) => proposals.findIndex(({ use }) => use?.meaning === meaning && use.form === form);
    const degrees = of();
    const hasWhole = degrees >= 0 && isWhole(valuesOf(degrees));
    if (hasWhole && of("minutes") < 0 && valuesOf(degrees).length > 2)
      proposals[degrees] = { use: null, why: "whole degrees, and no column with minutes: choose what it is" };
    if (hasWhole) continue;
    for (const column of ANGLE_FORMS.map(of))
      if (column >= 0) proposals[column] = { use: null, why: "the degrees in another column are complete" };
  }
}

interface Look {
  meaning: Meaning;
  words: string;
  fits: (value: string) => boolean;
  /** Unlike values from which it is believed. */
  least?: number;
}

const degrees = (most: number) => (value: string) =>
  /^[+-]?\d{1,3}[.,]\d{3,}$/.test(value) && Math.abs(Number(value.replace(",", "."))) <= most;
const shapes = allProfiles().flatMap((profile) => postcodeShape(profile) ?? []);

const countries = new Intl.DisplayNames("en", { type: "region", fallback: "none" });
const isCountry = (value: string) =>
  /^[A-Z]{2}$/.test(value) && (countries.of(value) ?? heldProfile(value)) !== undefined;

/** Looks of values, the surest first. */
const LOOKS: readonly Look[] = [
  {
    meaning: "position",
    words: "look like positions",
    fits: (value) => pointIn(value, false) !== undefined,
  },
  { meaning: "lat", words: "look like degrees of latitude", fits: degrees(90) },
  { meaning: "lon", words: "look like degrees of longitude", fits: degrees(180) },
  { meaning: "country", words: "look like country codes", fits: isCountry },
  {
    meaning: "postcode",
    words: "look like postcodes",
    fits: (value) => /\d/.test(value) && value.length > 3 && shapes.some((shape) => shape.test(value)),
  },
  { meaning: "house", words: "look like house numbers", fits: (value) => parseHouseNumber(value) !== undefined },
  {
    meaning: "line",
    words: "look like a street with a house number",
    fits: isLine,
  },
];

function lookOf(
  values: readonly string[],
  taken: ReadonlySet<string>,
  unlikely: readonly Meaning[],
): { use: ColumnUse; why: string } | undefined {
  if (values.length < 3) return undefined;
  for (const { meaning, words, fits } of LOOKS) {
    if (taken.has(`${meaning}  `) || unlikely.includes(meaning)) continue;
    const count = values.filter(fits).length;
    if (count / values.length < MOST) continue;
    return { use: { meaning }, why: `${count} of ${values.length} ${words}` };
  }
  return undefined;
}

/** Names whose capitals tell how a table is written. */
const CASED: ReadonlySet<Meaning> = new Set<Meaning>(["street", "line", "town", "place"]);

/** True where nearly all streets and towns of a table stand in capitals. */
export function standsInCapitals(
  columns: readonly (ColumnUse | null)[],
  rows: readonly (readonly string[])[],
): boolean {
  const names = columns.flatMap((use, column) =>
    use && !use.form && CASED.has(use.meaning) ? rows.slice(0, LOOKED_AT).map((row) => row[column] ?? "") : [],
  );
  const cased = names.filter((name) => /\p{Lu}{3}|\p{Ll}/u.test(name));
  return cased.length > 2 && cased.filter(isInCapitals).length >= MOST * cased.length;
}
