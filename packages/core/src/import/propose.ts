import { readPosition } from "../geo/index.ts";
import { allProfiles, heldProfile, parseHouseNumber, postcodeShape } from "../place/index.ts";
import { fold, isInCapitals, NAMED_PARTS, partNames } from "../text/index.ts";
import { factNameOf, kindOfValues } from "./facts.ts";
import { parseNumber } from "./numbers.ts";
import { type ColumnUse, formOf, JOINED, MEANINGS, type Meaning, NAMED, OF_FACTS } from "./parts.ts";

/** What a column is taken for, and why. */
export interface Proposal {
  use: ColumnUse | null;
  /** In words, for the person who decides. */
  why: string;
}

/** Heads of columns, folded, that files have beside the names of parts in the language packs; they go before those. */
const HEADS: Readonly<Partial<Record<Meaning, string>>> = {
  street: `denominazione denominazione_via seglogr nom_seglogr openbareruimte openbare_ruimte fullname full_name st_name
    str_name strname streetnam rd_name road_name nom_voie libelle_voie tipo_via_nombre odonimo nom_rue nome_via
    nombre_calle nombre_via nome_rua onoma_odou streetname address1 addressline1 address_line_1`,
  way: `street_type streettype st_type posttype street_suffix strassentyp tipo_via tipovia tipo_de_via clase_via dug
    tipo_logradouro tipo_seglogr nom_tipo_seglogr tipo_arruamento type_voie type_de_voie typ_ulicy cecha
    soort_straat vagtyp odos_typos`,
  block: "quarter cho block_name kvarter kwartal",
  house: `cislo hausnummern gatuadressnummer addnum add_number address_number st_num st_number hsnr haus_nr numero_policia
    num_civ no num nummer housenumber numero_voie nro numero_porta streetnumber`,
  suffix: `hnrz hnrzus hnr_zus hnr_zusatz hsnrzus hsnr_zusatz addnumsuf add_num_suf rep indrep esponente addition letter house_letter zusatz
    hausnummerzusatz adresszusatz toevoeging huisnummertoevoeging huisletter bis extension complement
    indice_repetition complemento suffix_letter bokstav litera`,
  line: "anschrift utdelningsadress dieuthynsi full_address",
  unit: "unit_id subaddress door logement",
  name: "housename gebaeude nom_batiment gebouwnaam",
  place: `poi place_name organisation organization company firma einrichtung einrichtungsname etablissement entreprise
    empresa azienda bedrijf foretag etaireia`,
  kinds: "kind category categories type art kategorie typ categorie categoria tipo soort kategori rodzaj eidos",
  postcode: "eircode post_code1 zip5 plz5 cod_post codpos kod_poczt zipcode postalcode codepostal kodpocztowy t_k",
  district: "quarter_name locality_part",
  town: `obce nazev_obce misto by_navn gemeentenaam postcomm post_comm post_community inc_muni msag_comm gemeindename
    gemname nom_com libelle_commune city_name town_name postort_name nazwa_miejscowosci ortsname nom_commune
    ort_name dimos`,
  county: `county_name nom_dep nazwa_powiatu shire bezirk department provincia provincie concelho comarca nomos
    perifereiaki_enotita`,
  region: "uf sigla_uf state_name nombre_comunidad land_region distrito comunidad regio regiao admin1",
  country: "countrycode iso landkod landcode code_pays codigo_pais kraj kod_kraju nation",
  lat: `lat_dd latitude_dd geo_breite breite geograficzna_szerokosc breddgrad breedtegraad geo_lat y_wgs84 point_y`,
  lon: `long_dd lon_dd longitude_dd geo_laenge laenge lange langdgrad lengtegraad geo_lon geo_lng x_wgs84 point_x`,
  position: `coordinates coords koordinaten coordonnees coordenadas coordinate coordinaten koordinater latlon lat_lon
    location geo point geom`,
  east: `rw coor_x coord_e souradnice_x easting_m ostwert rechts xcoord x_coord coord_x x_l93 coordenada_x easting x
    rechtswert x_coordinate e_utm`,
  north: `hw coor_y coord_n souradnice_y northing_m nordwert hoch ycoord y_coord coord_y y_l93 coordenada_y northing y
    hochwert y_coordinate n_utm`,
  id: `oid address_ref key uid uuid ref reference identifier objectid fid gid identifiant identificador identificativo
    address_id`,
  importance: `population pop inhabitants einwohner einwohnerzahl ew poblacion habitantes population_municipale popolazione
    abitanti populacao bevolking inwoners befolkning folkmangd ludnosc pocet_obyvatel weight rank_weight`,
  phone: `telephone tel telefon telefono telefone phone_number telephone_number tel_nr telefonnummer telefoonnummer
    rufnummer fernsprecher tilefono numer_telefonu contact_phone numero_telephone`,
  url: `website web webseite web_page webpage homepage home_page internet page_web site_web site sito sitio_web
    pagina_web web_site www strona_www`,
  hours: `opening_hours openinghours offnungszeiten oeffnungszeiten horaires heures_ouverture heures_d_ouverture horario
    horarios orari orario openingstijden oppettider apningstider abningstider godziny_otwarcia oteviraci_doba
    horas_de_apertura orari_di_apertura`,
  languages: "spoken_languages sprachen langues idiomas lingue talen jezyki sprak sprog",
  stepfree: `step_free step_free_access wheelchair wheelchair_access barrierefrei rollstuhlgerecht accessible_pmr acces_pmr
    accesible accessibile rolstoeltoegankelijk`,
  text: "query search raw input freitext",
};

const words = (list: string) => new Set(list.split(" "));

export const plainHead = (head: string) =>
  fold(head)
    .text.replace(/[^\p{L}\p{N}]+/gu, "_")
    .replace(/^_|_$/g, "");

const MEANING_OF: ReadonlyMap<string, Meaning> = new Map(
  [
    ...NAMED_PARTS.flatMap((part) => {
      const meaning = part === "building" ? "name" : part;
      // no column is for the floor alone
      return meaning === "floor" ? [] : partNames[part].map((name): [string, Meaning] => [name, meaning]);
    }),
    ...MEANINGS.flatMap((meaning) =>
      [meaning, ...(HEADS[meaning] ?? "").split(/\s+/).filter(Boolean)].map((head): [string, Meaning] => [
        head,
        meaning,
      ]),
    ),
  ].map(([head, meaning]) => [plainHead(head), meaning]),
);

/** Meanings that say something of data, and nothing of an address that somebody looks up. */
const NOT_ASKED: ReadonlySet<Meaning> = new Set<Meaning>(["id", "kinds", "importance", ...OF_FACTS]);
/** Further facts that are proposed at most. */
const MOST_FACTS = 30;
/** A share of the values from which their pattern decides. */
const MOST = 0.9;
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
  const take = (column: number, use: ColumnUse, why: string) => {
    const name = `${use.meaning} ${use.lang ?? ""} ${use.form ?? ""}`;
    if (taken.has(name) && !JOINED.has(use.meaning)) {
      proposals[column].why ||= `looks like ${use.meaning}, but another column already is`;
      return;
    }
    taken.add(name);
    proposals[column] = { use, why };
  };
  const valuesOf = (column: number) =>
    rows
      .slice(0, LOOKED_AT)
      .map((row) => row[column]?.trim() ?? "")
      .filter(Boolean);
  heads?.forEach((head, column) => {
    const use = believed(useOfHead(head), valuesOf(column));
    const isAsked = use && !NOT_ASKED.has(use.meaning) && plainHead(head) !== "name";
    if (use && (purpose === "data" || isAsked)) take(column, use, `named “${head.slice(0, 40)}”`);
  });
  if (purpose === "data") {
    readAsPlaces(proposals);
    readAsTowns(proposals);
  }
  readAsMetres(proposals, heads, valuesOf);
  const left = readAsDegrees(proposals, valuesOf);
  for (let column = 0; column < width; column++) {
    if (proposals[column].use || left.includes(column)) continue;
    const values = valuesOf(column);
    // a head that is no word of an address says that its numbers are no houses: a price, a year
    const isOther = Boolean(heads?.[column]?.trim()) && !/^(column|col|field)?[\s_-]*\d*$/i.test(heads?.[column] ?? "");
    const seen = lookOf(values, taken, isOther ? ["house"] : []);
    if (seen) take(column, seen.use, seen.why);
    else proposals[column].why ||= values.length ? "neither its name nor its values say" : "is empty";
  }
  if (purpose === "data" && heads) readAsFacts(proposals, heads, valuesOf);
  return proposals;
}

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

/** Of a list of places, what no part of an address is may be a fact of their own, named by its head. */
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
    taken.add(name);
    count++;
    const kind = kindOfValues(values);
    proposals[column] = {
      use: { meaning: "fact", fact: { name, label, kind } },
      why: `an attribute of places, by its name${kind === "text" ? "" : `; its values are ${KIND_WORDS[kind]}`}`,
    };
  });
}

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

/** What a head means, as far as the values can be that: what is headed as degrees and holds none may be metres. */
function believed(use: ColumnUse | undefined, values: readonly string[]): ColumnUse | undefined {
  if (!use || !values.length || (use.meaning !== "lat" && use.meaning !== "lon")) return use;
  const numbers = values.map(parseNumber).filter(Number.isFinite);
  const most = use.meaning === "lat" ? 90 : 180;
  const isBeyond = numbers.filter((value) => Math.abs(value) > most).length > values.length * MOST;
  return isBeyond ? { meaning: use.meaning === "lat" ? "north" : "east" } : use;
}

/** Words of heads that say which way metres run, where nothing else does. */
const EAST_WORDS = words("x e east easting ost rw rechts m este esty");
const NORTH_WORDS = words("y n north northing nord hw hoch p norte");
/** Metres from which two columns of numbers may be positions. */
const LEAST_METRES = 1000;
const PLACED: ReadonlySet<Meaning> = new Set<Meaning>(["lat", "lon", "position", "east", "north"]);

/** Two columns side by side that hold metres, where no projection is named: by a word of their heads, or by the pattern of their values. */
function readAsMetres(
  proposals: Proposal[],
  heads: readonly string[] | undefined,
  valuesOf: (column: number) => string[],
): void {
  if (proposals.some(({ use }) => use && PLACED.has(use.meaning))) return;
  const isMetres = (column: number) => {
    const values = valuesOf(column);
    const numbers = values.map(parseNumber).filter((value) => Math.abs(value) < 1e8);
    const large = numbers.filter((value) => Math.abs(value) >= LEAST_METRES);
    return values.length > 2 && numbers.length === values.length && large.length > values.length * 0.8;
  };
  const tells = (column: number, which: ReadonlySet<string>) =>
    plainHead(heads?.[column] ?? "")
      .split("_")
      .some((word) => which.has(word));
  for (let column = 0; column + 1 < proposals.length; column++) {
    if (proposals[column].use || proposals[column + 1].use || !isMetres(column) || !isMetres(column + 1)) continue;
    const isTurned = tells(column, NORTH_WORDS) && tells(column + 1, EAST_WORDS);
    const isTold = isTurned || (tells(column, EAST_WORDS) && tells(column + 1, NORTH_WORDS));
    // two columns of numbers under heads that say something else may be anything
    if (heads && !isTold) continue;
    const why = isTold ? "look like metres, and the column names say which axis" : "look like metres";
    proposals[column] = { use: { meaning: isTurned ? "north" : "east" }, why };
    proposals[column + 1] = { use: { meaning: isTurned ? "east" : "north" }, why };
    return;
  }
}

/**
 * What is headed x and y may be degrees; metres beside degrees are left alone, since those need no zone.
 * @returns the columns that are left alone
 */
function readAsDegrees(proposals: Proposal[], valuesOf: (column: number) => string[]): number[] {
  const at = (meaning: Meaning) => proposals.findIndex(({ use }) => use?.meaning === meaning);
  const [east, north] = [at("east"), at("north")];
  if (east < 0 || north < 0) return [];
  if (at("lat") >= 0 && at("lon") >= 0) {
    for (const column of [east, north])
      proposals[column] = { use: null, why: "metres; the degrees in another column are used instead" };
    return [east, north];
  }
  const isAll = (column: number, fits: (value: string) => boolean) => {
    const values = valuesOf(column);
    return values.length > 0 && values.filter(fits).length / values.length >= MOST;
  };
  if (at("lat") >= 0 || at("lon") >= 0 || !isAll(east, degrees(180)) || !isAll(north, degrees(90))) return [];
  proposals[east] = { use: { meaning: "lon" }, why: `${proposals[east].why}, and its values are degrees` };
  proposals[north] = { use: { meaning: "lat" }, why: `${proposals[north].why}, and its values are degrees` };
  return [];
}

/** `street`, `Straße`, `street:el` for a language, `county:code` and `street:abbr` for other forms. */
function useOfHead(head: string): ColumnUse | undefined {
  const [word, ...rest] = head
    .replace(/^(addr|address|geo):/i, "")
    // a fact whose label is also what something else is called
    .replace(/^fact:.*/i, "")
    .split(":")
    .map((piece) => piece.trim());
  const plain = plainHead(word);
  const meaning = MEANING_OF.get(plain) ?? MEANING_OF.get(plain.replace(/^(addr|address|site|geo)_/, ""));
  if (!meaning) return rest.length ? undefined : useOfWords(plain.split("_"));
  if (!NAMED.has(meaning) || !rest.length) return { meaning };
  const form = rest.map(formOf).find(Boolean);
  const lang = rest.find((piece) => piece !== form && /^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/.test(piece));
  return { meaning, ...(lang ? { lang } : {}), ...(form ? { form } : {}) };
}

/** Words of heads that say no more than that something is there, and those that say that it is a number for it, not its name. */
const EMPTY_WORDS = words(
  "name nom nome nombre naam namn navn nazwa nazev the of de des du la le el il lo da do di del della der die das van full official off adr addr address adresse " +
    "txt text desc denominacion denominazione bezeichnung bez plain long short building num numero nummer numer",
);
const CODE_WORDS = words("code cod codigo codice kod kode key id schluessel kennung ref insee nr");

/** What the words of a head mean where the head itself is not known: the one meaning that they name, whatever is next to it. */
function useOfWords(all: readonly string[]): ColumnUse | undefined {
  if (all.length < 2) return undefined;
  const telling = all.filter((word) => !EMPTY_WORDS.has(word) && !CODE_WORDS.has(word));
  const found = new Set(telling.flatMap((word) => MEANING_OF.get(word) ?? []));
  // "building no" and "numero" with a word that says of what
  const isNumber = all.some((word) => ["no", "num", "numero", "nummer", "numer", "number", "nr"].includes(word));
  const [meaning, ...others] = found;
  if (isNumber && !others.length && (!meaning || ["line", "name", "unit", "house"].includes(meaning))) {
    const isOfHouse = all.some((word) =>
      ["building", "house", "haus", "porta", "endereco", "huis", "dom", "domu"].includes(word),
    );
    return isOfHouse || meaning === "house" ? { meaning: "house" } : undefined;
  }
  if (!meaning || others.length) return undefined;
  if (!all.some((word) => CODE_WORDS.has(word))) return { meaning };
  return NAMED.has(meaning) && meaning !== "street" ? { meaning, form: "code" } : undefined;
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
  { meaning: "position", words: "look like positions", fits: (value) => readPosition(value) !== undefined },
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
    fits: (value) => /^(\d+\S?\s+\p{L}.*\p{L}|\p{L}.*\p{L}\.?\s+\d+\s?\p{L}?)$/u.test(value),
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
