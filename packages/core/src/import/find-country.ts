import type { Position } from "../geo/index.ts";
import { allProfiles, type CountryProfile, postcodeShape } from "../place/index.ts";
import { fold, LANGUAGES } from "../text/index.ts";
import { findProjection, type ProjectionHints, zonesIn } from "./find-projection.ts";
import type { ColumnUse, Meaning } from "./parts.ts";
import { plainHead } from "./propose.ts";
import { positionOf } from "./read-row.ts";

/** Where countries lie, as somebody else knows it. */
export interface Lands {
  /** ISO 3166-1 alpha-2 codes of all countries that a position may lie in. */
  countriesAt: (at: Position) => readonly string[];
  hintsOf: (country: string) => ProjectionHints;
}

/** The country that rows are of which name none, or why somebody has to say it. */
export interface FoundCountry {
  country?: string;
  why: string;
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
 * @param usual the country that is usual here; taken where its rows may lie there
 */
export function findCountry(
  columns: readonly (ColumnUse | null)[],
  heads: readonly string[] | undefined,
  rows: readonly (readonly string[])[],
  { countriesAt, hintsOf }: Lands,
  usual?: string,
): FoundCountry {
  const some = rows.slice(0, LOOKED_AT);
  const at = (meaning: Meaning) => columns.findIndex((use) => use?.meaning === meaning && !use.form);
  const has = (...meanings: Meaning[]) => meanings.every((meaning) => at(meaning) >= 0);
  const suits = suitsOf(columns, heads ?? [], some);
  if (has("east", "north") && !has("lat", "lon")) {
    const [east, north] = [at("east"), at("north")];
    const pairs = rows.map((row) => [row[east] ?? "", row[north] ?? ""] as const);
    const named = heads ? { heads: [heads[east], heads[north]], zones: zonesIn(heads, rows) } : {};
    const weighed = allProfiles()
      .filter(suits)
      .map(({ code }) => ({ code, ...findProjection(pairs, code, { ...hintsOf(code), ...named }) }))
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
  if (!suiting.length && positions.every(({ lon }) => Math.abs(lon) <= 90)) {
    const changedOver = positions.map(({ lat, lon }) => ({ lat: lon, lon: lat }));
    const [other] = suitingOf(holdingAll(changedOver, countriesAt));
    if (other)
      return {
        why: `positions are in ${holding.join(", ") || "no country"}, or, with latitude and longitude swapped, in ${other}, which matches the street names: choose one`,
      };
  }
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
  const streets = named.map((street) => fold(street).text.split(/[^\p{L}]+/u));
  const spoken = new Map(LANGUAGES.map(({ lang, ways }) => [lang, shareCalled(streets, ways)]));
  const most = Math.max(...spoken.values());
  return (profile) => {
    const shape = postcodeShape(profile);
    if (shape && postcodes.length && postcodes.filter((code) => shape.test(code)).length < MOST * postcodes.length)
      return false;
    const langs = profile.langs.map((lang) => lang.split("-")[0]);
    if (headed.size && !langs.some((lang) => headed.has(lang))) return false;
    const known = langs.filter((lang) => spoken.has(lang));
    if (most < SPOKEN) return true;
    // of a language that nobody knows here, streets tell nothing, unless they clearly are of another
    if (!known.length) return most < CLEARLY;
    return known.some((lang) => (spoken.get(lang) ?? 0) >= most * 0.8);
  };
}

/** Words of heads that are of one language only; English ones prove nothing, since everybody uses them. */
const TELLING: Readonly<Record<string, string>> = {
  de: "strasse strassenname strname str hausnummer hausnr hsnr hnr plz ort ortsname gemeinde gemname ostwert nordwert breite laenge bundesland landkreis",
  fr: "rue voie nom_voie libelle_voie code_postal commune nom_commune libelle_commune departement rep",
  es: "calle tipo_via nombre_via cod_postal codigo_postal municipio provincia poblacion numero_policia piso",
  it: "civico esponente dug odonimo cap comune indirizzo denominazione longitudine latitudine cod_istat",
  pt: "arruamento rua logradouro concelho freguesia localidade codigo_postal num_porta cep bairro morada",
  nl: "straatnaam openbareruimte huisnummer huisletter huisnummertoevoeging woonplaats gemeentenaam gemeente plaats",
  pl: "ulica numer_domu kod_pocztowy miejscowosc powiat wojewodztwo gmina",
  sv: "gatunamn gatunummer postnr postort kommun bokstav",
  cs: "ulice nazev_ulice nazev_obce obec cislo_domovni psc souradnice_x souradnice_y kod_adm cislo_orientacni",
  da: "vejnavn husnr postnr postnrnavn kommunenavn",
  fi: "katu kadunnimi talonumero postinumero kunta",
};
const TELLING_WORDS = Object.entries(TELLING).map(([lang, words]) => ({ lang, words: new Set(words.split(" ")) }));
/** Heads of one language from which they tell it. */
const HEADED = 2;

/** Languages that the heads are in, as far as enough of them tell. */
function langsOfHeads(heads: readonly string[]): Set<string> {
  const plain = heads.map(plainHead);
  const counted = TELLING_WORDS.map(({ lang, words }) => ({
    lang,
    count: plain.filter((head) => words.has(head)).length,
  }));
  const most = Math.max(...counted.map(({ count }) => count));
  return new Set(most < HEADED ? [] : counted.filter(({ count }) => count === most).map(({ lang }) => lang));
}

/** Share of streets of which a word is, or ends as, a word for a kind of street. */
function shareCalled(streets: readonly (readonly string[])[], ways: readonly string[]): number {
  if (!streets.length) return 0;
  const isCalled = (words: readonly string[]) =>
    words.some((word) =>
      ways.some((way) => word === way || (way.length > 2 && word.length > way.length + 2 && word.endsWith(way))),
    );
  return streets.filter(isCalled).length / streets.length;
}
