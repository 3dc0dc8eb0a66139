import type { Position } from "../geo/index.ts";
import { allProfiles, type CountryProfile, postcodeShape } from "../place/index.ts";
import { findProjection, metresIn, type ProjectionHints } from "./find-projection.ts";
import { HEAD_LANGS } from "./head-words.ts";
import { langsOfHeads } from "./heads.ts";
import { endOf } from "./line.ts";
import type { ColumnUse, Meaning } from "./parts.ts";
import { positionOf } from "./read-row.ts";
import { waysOf } from "./ways.ts";

/** Where countries lie, as somebody else knows it. */
export interface Lands {
  /** ISO 3166-1 alpha-2 codes of all countries that a position may lie in. */
  countriesAt: (at: Position) => readonly string[];
  hintsOf: (country: string) => ProjectionHints;
}

/** The country that rows are of which name none, or why somebody has to say it. */
export interface FoundCountry {
  country?: string;
  /** The country that suits the rows if latitude and longitude change places, where none does as they are. */
  turned?: string;
  why: string;
}

/** What is known of a file besides its table. */
export interface KnownOfFile {
  /** The country that is usual here; taken where its rows may lie there. */
  usual?: string | undefined;
  /** False where only values tell latitude from longitude, which most of them cannot. */
  isOrderKnown?: boolean;
  /** Number in the EPSG dataset that the file names for its positions. */
  code?: string | undefined;
}

/** Rows that are looked at, and the share of them that must agree. */
const LOOKED_AT = 200;
const MOST = 0.95;
/** Share of the streets that must be called as in a language, from which they decide the language. */
const SPOKEN = 0.4;
const CLEARLY = 0.7;

/**
 * Finds the country of a table that has no column for it: by where its degrees lie; of metres by the country in which streets are
 * called so, postcodes look so, and one of whose grids puts the rows into it.
 */
export function findCountry(
  columns: readonly (ColumnUse | null)[],
  heads: readonly string[] | undefined,
  rows: readonly (readonly string[])[],
  { countriesAt, hintsOf }: Lands,
  { usual, isOrderKnown = true, code }: KnownOfFile = {},
): FoundCountry {
  const some = rows.slice(0, LOOKED_AT);
  const has = (...meanings: Meaning[]) =>
    meanings.every((meaning) => columns.some((use) => use?.meaning === meaning && !use.form));
  const suits = suitsOf(columns, heads ?? [], some);
  const metres = has("lat", "lon") ? undefined : metresIn(columns, heads, rows, code);
  if (metres) {
    const { pairs, hints } = metres;
    const weighed = allProfiles()
      .filter(suits)
      .map(({ code }) => ({ code, ...findProjection(pairs, code, { ...hintsOf(code), ...hints }) }))
      .filter((one) => one.weighed.length);
    const sure = weighed.filter(({ projection }) => projection);
    const fitting = (sure.length ? sure : weighed).map(({ code }) => code);
    return decided(fitting, usual, "metres, streets and postcodes");
  }
  const position = positionOf({ columns, projection: { system: "degrees" } });
  const positions = some.flatMap((row) => position(row) ?? []);
  if (!positions.length) return { why: "no rows with a position" };
  const profiles = new Map(allProfiles().map((profile) => [profile.code, profile]));
  const suitingOf = (codes: readonly string[]) =>
    codes.filter((code) => {
      const profile = profiles.get(code);
      return profile && suits(profile);
    });
  const holding = holdingAll(positions, countriesAt);
  const suiting = suitingOf(holding);
  const mayTurn = positions.every(({ lon }) => Math.abs(lon) <= 90);
  const turned = mayTurn
    ? suitingOf(
        holdingAll(
          positions.map(({ lat, lon }) => ({ lat: lon, lon: lat })),
          countriesAt,
        ),
      )
    : [];
  const words = `positions are in ${holding.join(", ") || "no country"}, or, with latitude and longitude swapped, in ${turned.join(", ")}`;
  if (!suiting.length && turned.length)
    return {
      ...(turned.length === 1 ? { turned: turned[0] } : {}),
      why: `${words}, which matches the street names: choose one`,
    };
  const isUsual = usual !== undefined && (holding.includes(usual) || turned.includes(usual));
  if (!isOrderKnown && turned.length && !isUsual) return { why: `${words}: choose one` };
  return decided(holding.length > 1 && suiting.length ? suiting : holding, usual, "positions");
}

/** Countries that nearly all of some positions may lie in. */
function holdingAll(positions: readonly Position[], countriesAt: Lands["countriesAt"]): string[] {
  const counts = new Map<string, number>();
  for (const at of positions) for (const code of countriesAt(at)) counts.set(code, (counts.get(code) ?? 0) + 1);
  return [...counts].filter(([, count]) => count >= MOST * positions.length).map(([code]) => code);
}

function decided(fitting: readonly string[], usual: string | undefined, by: string): FoundCountry {
  if (usual && fitting.includes(usual)) return { country: usual, why: `${by} are in ${usual}` };
  if (fitting.length === 1) return { country: fitting[0], why: `${by} are in ${fitting[0]}` };
  return {
    why: fitting.length
      ? `${by} may be in ${fitting.join(", ")}: choose one`
      : `${by} do not show the country: choose one`,
  };
}

/** Tells of a country whether streets are called and postcodes written as there, as far as a table has any. */
function suitsOf(
  columns: readonly (ColumnUse | null)[],
  heads: readonly string[],
  rows: readonly (readonly string[])[],
): (profile: CountryProfile) => boolean {
  const valuesOf = (meaning: Meaning) => {
    const column = columns.findIndex((use) => use?.meaning === meaning && !use.form);
    return column < 0 ? [] : rows.map((row) => row[column]?.trim() ?? "").filter(Boolean);
  };
  const postcodes = valuesOf("postcode");
  const headed = langsOfHeads(heads);
  const named = valuesOf("way").length ? valuesOf("way") : [...valuesOf("street"), ...valuesOf("line")];
  const spoken = waysOf(named);
  const most = Math.max(...spoken.values());
  return (profile) => {
    const shape = postcodeShape(profile);
    const fits = (code: string) => shape?.test(code) || endOf(code, profile) !== undefined;
    if (shape && postcodes.length && postcodes.filter(fits).length < MOST * postcodes.length) return false;
    const langs = profile.langs.map((lang) => lang.split("-")[0]);
    // of a language of which no heads are known here, they tell nothing
    if (headed.size && langs.some((lang) => HEAD_LANGS.has(lang)) && !langs.some((lang) => headed.has(lang)))
      return false;
    const known = langs.filter((lang) => spoken.has(lang));
    if (most < SPOKEN) return true;
    // of a language that nobody knows here, streets tell nothing, unless they clearly are of another
    if (!known.length) return most < CLEARLY;
    return known.some((lang) => (spoken.get(lang) ?? 0) >= most * 0.8);
  };
}
