import { type Box, boxContains, type Position, sphereDistance } from "../geo/index.ts";
import { countryBox } from "../place/index.ts";
import { gridOf, gridsOf } from "./grids.ts";
import { plainHead } from "./heads.ts";
import { type MetresReader, metresReader } from "./metres.ts";
import { parseNumber } from "./numbers.ts";
import { type ColumnUse, type Meaning, POINTS, type Projection } from "./parts.ts";
import { pointIn } from "./points.ts";

/** A way in which metres may be read, and what comes of it. */
export interface WeighedProjection {
  projection: Projection;
  /** What people call it. */
  name: string;
  /** Share of the rows looked at that then lie in their country. */
  share: number;
  /** True where the two columns are the other way round: the first holds what is headed north. */
  isSwapped: boolean;
}

/** What metres are taken for, or what is to be decided by a person. */
export interface FoundProjection {
  projection?: Projection;
  isSwapped?: boolean;
  /** In words, for the person who decides. */
  why: string;
  /** The ways that were weighed and fit, the taken one first. */
  weighed: WeighedProjection[];
}

/** Rows that are looked at, and the share of them that must lie in the country. */
const LOOKED_AT = 1000;
const MOST = 0.95;
/** Metres apart up to which two ways of reading are the same to everybody. */
const SAME = 25;

/** What is known beside the metres themselves. */
export interface ProjectionHints {
  /** Names of the two columns, which may tell a zone or a code of EPSG. */
  heads?: readonly string[];
  /** What is in a column of its own for zones. */
  zones?: readonly string[];
  /** What is in a column of its own for numbers in the EPSG dataset. */
  codes?: readonly string[];
  /** True where a position may lie in the country. The box around it when not given. */
  isIn?: (country: string, at: Position) => boolean;
  /** Where the country lies, where the box that is known here is not enough. */
  box?: Box;
}

/** Names of columns that say which way they run; x and y are taken for either by different countries. */
const EXPLICIT = /east|north|ost|nord|rechts|hoch|este|norte|\b[en]\b|[en]_|_[en]\b/i;

/**
 * Finds what projection metres are of, by where the rows then lie; it is never guessed: where none fits, or several do, that is
 * said. Zones of UTM are tried that reach the country, and those next to them, since many countries use one for all; then the
 * country's own grids, and each with the columns the other way round.
 * @param pairs east and north, as they are written
 * @param country ISO 3166-1 alpha-2 code of what the rows are of
 */
export function findProjection(
  pairs: readonly (readonly [east: string, north: string])[],
  country: string | undefined,
  {
    heads = [],
    zones = [],
    codes = [],
    isIn = isInBox,
    box = country ? countryBox(country) : undefined,
  }: ProjectionHints = {},
): FoundProjection {
  const wrong = wrongIn(zones, codes);
  if (wrong) return { why: `metres, and ${wrong}`, weighed: [] };
  if (!box || !country) return { why: "metres: choose the zone or projection", weighed: [] };
  const metres = pairs
    .slice(0, LOOKED_AT)
    .map(([east, north]) => [parseNumber(east), parseNumber(north)] as const)
    .filter(([east, north]) => Number.isFinite(east) && Number.isFinite(north));
  if (!metres.length) return { why: "holds no metres", weighed: [] };
  // under x and y of a grid that has x to the east they are taken so; where its surveyors have x to the north, either is met
  const isXY = heads.length === 2 && /(?<![a-z])x(?![a-z])/i.test(heads[0]) && /(?<![a-z])y(?![a-z])/i.test(heads[1]);
  const isExplicit = heads.length > 0 && heads.every((head) => EXPLICIT.test(head));
  const fits = (projection: Projection, name: string): WeighedProjection[] =>
    (isExplicit ? [false] : [false, true]).flatMap((isSwapped) => {
      const share = shareIn(metres, readerOf({ projection, isSwapped }), (at) => isIn(country, at));
      return share >= MOST ? [{ projection, name, share, isSwapped }] : [];
    });
  const possible = distinct(
    [
      ...gridsOf(country).flatMap(({ epsg, name }) => fits({ system: "epsg", epsg }, name)),
      ...zonesOf(box).flatMap((zone) => fits({ system: "utm", zone }, `UTM ${zone}`)),
      ...fits({ system: "web-mercator" }, "Web Mercator"),
    ],
    metres,
  );
  const isOdd = (one: WeighedProjection) =>
    isXY && one.isSwapped && !gridOf(one.projection.epsg ?? 0)?.isXNorth && possible.some((other) => !other.isSwapped);
  const weighed = possible.filter((one) => !isOdd(one));
  // many a national grid has numbers that would lie in the country by another as well: then that is for a person to say
  const stated = weighed.filter((one) => isStated(one, [...heads, ...codes], zones[0]));
  const [only] = stated.length === 1 ? stated : weighed.length === 1 ? weighed : [];
  const taken = only && (stated.length === 1 || isUsual(only, country)) ? only : undefined;
  const others = weighed.filter((one) => one !== taken);
  if (taken)
    return {
      projection: taken.projection,
      isSwapped: taken.isSwapped,
      why: `metres in ${taken.name}${taken.isSwapped ? ", with the two columns swapped" : ""}: ${stated.length ? "as the file says; " : ""}the rows are then in ${country}`,
      weighed: [taken, ...others],
    };
  return {
    why: weighed.length
      ? `metres; the rows would be in ${country} with ${weighed.map(({ name, isSwapped }) => `${name}${isSwapped ? " with the two columns swapped" : ""}`).join(", ")}: choose one`
      : `metres that are not in ${country} with any known projection: choose the zone or projection`,
    weighed,
  };
}

/** Countries that have a grid in metres which is not known here, or several: a zone of UTM in which rows happen to lie proves nothing there. */
const OWN_GRIDS: ReadonlySet<string> = new Set(
  "AE AL AM AZ BA BD BG BH BY CN CU CY CZ EE EG GE GR HK HU IE IL IN IQ IR IS JO JP KG KR KW KZ LB LK LT LU LV MA MD ME MK MT MY NL NP NZ OM PH PK QA RO RS RU SA SG SI SK SY TN TM TR TW UA UZ VN XK ZA".split(
    " ",
  ),
);

/** True for what authorities publish by, as long as nothing else is said: a grid of the country, or a zone of UTM as it is headed. */
const isUsual = ({ projection, isSwapped }: WeighedProjection, country: string) =>
  projection.system === "epsg" || (projection.system === "utm" && !isSwapped && !OWN_GRIDS.has(country));

const isInBox = (country: string, at: Position) => {
  const box = countryBox(country);
  return box !== undefined && boxContains(box, at);
};

type Numbers = readonly (readonly [east: number, north: number])[];

const readerOf = ({ projection, isSwapped }: Pick<WeighedProjection, "projection" | "isSwapped">): MetresReader => {
  const read = metresReader(projection);
  return isSwapped ? (east, north) => read(north, east) : read;
};

/** The share of metres that lie in a country; 0 as soon as too few can. */
function shareIn(metres: Numbers, read: MetresReader, isIn: (at: Position) => boolean): number {
  const most = Math.floor((1 - MOST) * metres.length);
  let out = 0;
  for (const [east, north] of metres) {
    const at = read(east, north);
    if (at !== undefined && isIn(at)) continue;
    out++;
    if (out > most) return 0;
  }
  return 1 - out / metres.length;
}

/** Zones of UTM that reach a box, and those beside them. */
function zonesOf([west, south, east, north]: readonly [number, number, number, number]): string[] {
  const zoneOf = (lon: number) => Math.floor((lon + 180) / 6) + 1;
  const zones: string[] = [];
  for (let zone = Math.max(1, zoneOf(west) - 1); zone <= Math.min(60, zoneOf(east) + 1); zone++)
    for (const half of [...(north > 0 ? ["N"] : []), ...(south < 0 ? ["S"] : [])]) zones.push(`${zone}${half}`);
  return zones;
}

/** Leaves out what puts the rows where another one, named before, puts them. */
function distinct(weighed: readonly WeighedProjection[], metres: Numbers): WeighedProjection[] {
  const [[east, north]] = metres;
  const kept: { one: WeighedProjection; at: Position }[] = [];
  for (const one of weighed) {
    const at = readerOf(one)(east, north);
    if (at && !kept.some((existing) => sphereDistance(existing.at, at) < SAME)) kept.push({ one, at });
  }
  return kept.map(({ one }) => one);
}

const ZONE_HEADS = new Set(["zone", "zona", "utmzone", "utm_zone", "zone_utm", "zona_utm", "huso", "huso_utm", "fuso"]);
/** "32", "32N", "33 U" with the letter of the band. */
const ZONE = /^(?:utm ?)?(\d{1,2}) ?[a-z]?$/i;
const numberOf = (zone: string) => Number(ZONE.exec(zone)?.[1]);

/** "EPSG", "EPSG-kode", "srid": the system of each row's position. */
const CODE_HEAD = /(?:^|_)(?:epsg|srid|crs)(?:_|$)/;
const CODE = /^(?:epsg:)?(\d{4,6})$/i;

/** Metres of a table, with all that is known of them. */
export interface Metres {
  /** Columns that hold them: one of points, or the way east and the way north. */
  columns: readonly number[];
  pairs: readonly (readonly [east: string, north: string])[];
  hints: Pick<ProjectionHints, "heads" | "zones" | "codes">;
}

/**
 * Finds the metres of a table: in columns for the way east and the way north, or as points in one column.
 * @param code number in the EPSG dataset that the file names for all of it
 * @returns undefined where there are none
 */
export function metresIn(
  columns: readonly (ColumnUse | null)[],
  heads: readonly string[] | undefined,
  rows: readonly (readonly string[])[],
  code?: string,
): Metres | undefined {
  const at = (meaning: Meaning) => columns.findIndex((use) => use?.meaning === meaning && !use.form);
  const [east, north, point] = [at("east"), at("north"), columns.findIndex((use) => use && POINTS.has(use.meaning))];
  if (point < 0) {
    if (east < 0 || north < 0) return undefined;
    const hints = hintsIn(heads, rows, [heads?.[east] ?? "", heads?.[north] ?? ""]);
    return {
      columns: [east, north],
      pairs: rows.map((row) => [row[east] ?? "", row[north] ?? ""]),
      hints: code ? { ...hints, codes: [code] } : hints,
    };
  }
  const points = rows.flatMap((row) => {
    const found = pointIn(row[point] ?? "", false);
    return found && "east" in found ? [found] : [];
  });
  if (!points.length) return undefined;
  const codes = new Set(points.flatMap(({ epsg }) => (epsg ? [String(epsg)] : (code ?? []))));
  return {
    columns: [point],
    pairs: points.map((one) => [String(one.east), String(one.north)]),
    // in a point the way east comes first, whatever the country calls it
    hints: { ...hintsIn(heads, rows, ["easting", "northing"]), ...(codes.size ? { codes: [...codes] } : {}) },
  };
}

/**
 * What a table says of its metres.
 * @param named the names of their two columns; what is in columns for zones and for numbers in the EPSG dataset comes to them
 */
function hintsIn(
  heads: readonly string[] | undefined,
  rows: readonly (readonly string[])[],
  named: readonly string[],
): Metres["hints"] {
  if (!heads) return {};
  const valuesOf = (isHead: (plain: string) => boolean, shape: RegExp) => {
    const column = heads.findIndex((head) => isHead(plainHead(head)));
    const values = column < 0 ? [] : rows.map((row) => row[column]?.trim() ?? "").filter(Boolean);
    return values.filter((value) => shape.test(value)).length < MOST * values.length ? [] : [...new Set(values)];
  };
  return {
    heads: named,
    zones: valuesOf((head) => ZONE_HEADS.has(head), ZONE),
    codes: valuesOf((head) => CODE_HEAD.test(head), CODE),
  };
}

/** Why rows of some zones cannot be read as they are. */
function wrongIn(zones: readonly string[], codes: readonly string[]): string | undefined {
  if (codes.length > 1)
    return `rows in several systems, EPSG ${codes.slice(0, 5).join(", ")}: choose one, and import each separately`;
  const none = zones.find((zone) => !(numberOf(zone) >= 1 && numberOf(zone) <= 60));
  if (none) return `“${none}” is not a zone from 1 to 60: choose the zone or projection`;
  const several = [...new Set(zones.map(numberOf))];
  return several.length > 1
    ? `rows in several zones, ${several.join(", ")}: choose one, and import each zone separately`
    : undefined;
}

/** True where names of columns, or a column of zones, tell a projection: by number in the EPSG dataset, or by its zone. */
function isStated({ projection }: WeighedProjection, heads: readonly string[], named?: string): boolean {
  if (named) return projection.system === "utm" && Number.parseInt(projection.zone ?? "", 10) === numberOf(named);
  const words = heads.join(" ").toLowerCase();
  const codes = codesOf(projection);
  if (codes.some((code) => new RegExp(`(?<!\\d)${code}(?!\\d)`).test(words))) return true;
  const zone = /utm[\s_-]?(?:zone)?[\s_-]?(\d{1,2})/.exec(words)?.[1];
  return (
    projection.system === "utm" && zone !== undefined && Number(zone) === Number.parseInt(projection.zone ?? "", 10)
  );
}

function codesOf({ system, epsg, zone = "" }: Projection): number[] {
  if (system === "epsg" && gridOf(epsg ?? 0)) return [epsg ?? 0];
  if (system === "web-mercator") return [3857];
  const number = Number.parseInt(zone, 10);
  return zone.endsWith("S") ? [32700 + number] : [32600 + number, 25800 + number];
}
