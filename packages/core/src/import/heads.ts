import { fold, NAMED_PARTS, partNames } from "../text/index.ts";
import { type HeadWord, isTakenDifferently, langsOfHead, MEANING_OF_WORD, readHead } from "./head-words.ts";
import { type ColumnForm, type ColumnUse, formOf, MEANINGS, type Meaning, NAMED } from "./parts.ts";

/** What a head says of its column. */
export interface HeadUse {
  use: ColumnUse;
  /** How sure that is: of two columns of one meaning the surer has it. */
  weight: number;
  /** Of a town: whether it is rather what lies in one, or what several lie in. */
  level?: "village" | "municipality";
}

/** Heads of columns, folded, that files have beside the names of parts in the language packs; they go before those. */
const HEADS: Readonly<Partial<Record<Meaning, string>>> = {
  street: `denominazione denominazione_via seglogr nom_seglogr openbareruimte openbare_ruimte duong pho fullname full_name st_name
    str_name strname streetnam rd_name road_name nom_voie libelle_voie tipo_via_nombre odonimo nom_rue nome_via
    nombre_calle nombre_via nome_rua onoma_odou streetname address1 addressline1 address_line_1`,
  way: `street_type streettype st_type posttype street_suffix strassentyp tipo_via tipovia tipo_de_via clase_via dug
    tipo_logradouro tipo_seglogr nom_tipo_seglogr tipo_arruamento type_voie type_de_voie typ_ulicy cecha
    soort_straat vagtyp odos_typos 巷`,
  block: "quarter cho block_name kvarter kwartal",
  house: `so_nha cislo hausnummern gatuadressnummer addnum add_number address_number st_num st_number hsnr haus_nr numero_policia
    num_civ no num nummer housenumber numero_voie nro numero_porta streetnumber`,
  suffix: `hnrz hnrzus hnr_zus hnr_zusatz hsnrzus hsnr_zusatz addnumsuf add_num_suf rep indrep esponente addition letter house_letter zusatz
    hausnummerzusatz adresszusatz toevoeging huisnummertoevoeging huisletter bis extension complement
    indice_repetition complemento suffix_letter bokstav litera`,
  line: "anschrift utdelningsadress dieuthynsi full_address",
  unit: `unit_id subaddress door logement address2 address_2 address_line_2 addressline2 addressline_2 street2 street_2
    flat_no apt_no`,
  name: "housename gebaeude nom_batiment gebouwnaam",
  place: `poi place_name stop_name station_name shop_name store_name branch_name school_name facility facility_name site_name venue
    venue_name location_name business_name office_name hotel_name asset_name club_name schulname filiale haltestelle organisation organization company firma einrichtung einrichtungsname etablissement entreprise
    empresa azienda bedrijf foretag etaireia`,
  kinds: "kind category categories type art kategorie typ categorie categoria tipo soort kategori rodzaj eidos",
  postcode:
    "ma_buu_chinh eircode post_code1 zip5 plz5 cod_post codpos kod_poczt zipcode postalcode codepostal kodpocztowy t_k",
  district: "quarter_name locality_part phuong xa",
  town: `thanh_pho com_name obce nazev_obce misto by_navn gemeentenaam postcomm post_comm post_community inc_muni msag_comm gemeindename
    gemname nom_com libelle_commune city_name town_name postort_name nazwa_miejscowosci ortsname nom_commune
    ort_name dimos`,
  county: `quan huyen county_name nom_dep nazwa_powiatu shire bezirk department provincia provincie concelho comarca nomos
    perifereiaki_enotita`,
  region: "uf sigla_uf state_name nombre_comunidad land_region distrito comunidad regio regiao admin1",
  country: "countrycode iso landkod landcode code_pays codigo_pais kraj kod_kraju nation",
  lat: `vi_do lat_dd latitude_dd geo_breite breite geograficzna_szerokosc breddgrad breedtegraad geo_lat y_wgs84 point_y`,
  lon: `kinh_do long_dd lon_dd longitude_dd geo_laenge laenge lange langdgrad lengtegraad geo_lon geo_lng x_wgs84 point_x`,
  position: `coordinates coords koordinaten coordonnees coordenadas coordinate coordinaten koordinater latlon lat_lon
    location geo point geom wkt geometry the_geom gps geolocation geojson geo_json ewkt shape gps_coordinates
    geo_point geopoint`,
  lonlat: "lon_lat long_lat xy x_y",
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

export const plainHead = (head: string) =>
  fold(head)
    .text.replace(/[^\p{L}\p{N}]+/gu, "_")
    .replace(/^_|_$/g, "");

const wordsOfHead = (head: string) => plainHead(head.replace(/(?<=\p{Ll})(?=\p{Lu})/gu, "_")).split("_");

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

/** Weights of what is headed by a known name, and by words of one; and what a word that is not known takes from it. */
const KNOWN = 3;
const BY_WORDS = 2;
const UNKNOWN = 0.5;
/** What a city has before a village, and that before a municipality, where several are named. */
const LEVEL = 0.25;

/**
 * `street`, `Straße`, `street:el` for a language, `county:code` and `street:abbr` for other forms.
 * @param lang that decides where languages take a word differently
 */
export function useOfHead(head: string, lang?: string): HeadUse | undefined {
  const [word, ...rest] = head
    .replace(/^(addr|address|geo):/i, "")
    // a fact whose label is also what something else is called
    .replace(/^fact:.*/i, "")
    .split(":")
    .map((piece) => piece.trim());
  const plain = plainHead(word);
  const bare = plain.replace(/^(addr|address|site|geo)_/, "");
  const known = MEANING_OF.get(plain) ?? MEANING_OF.get(bare);
  // "STREETNAME" and "streetName" are one head; words within one begin with a capital
  const words = wordsOfHead(word);
  const { said } = readHead(words, lang);
  if (!known) return rest.length ? undefined : useOfWords(words, lang);
  const level = known === "town" ? levelOf(said) : undefined;
  const weight = KNOWN + weightOf(level) - (said.includes("descriptive") ? 1.2 : 0);
  const found = { weight, ...(level ? { level } : {}) };
  const form = rest.map(formOf).find(Boolean);
  if (form && (known === "lat" || known === "lon")) return { use: { meaning: known, form }, ...found };
  if (!NAMED.has(known) || !rest.length) return { use: { meaning: known }, ...found };
  const own = rest.find((piece) => piece !== form && /^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/.test(piece));
  return { use: { meaning: known, ...(own ? { lang: own } : {}), ...(form ? { form } : {}) }, ...found };
}

function levelOf(said: readonly HeadWord[]): HeadUse["level"] {
  if (said.includes("town")) return undefined;
  if (said.includes("municipality")) return "municipality";
  return said.includes("village") ? "village" : undefined;
}

const weightOf = (level: HeadUse["level"]) => (level === "municipality" ? -LEVEL : level === "village" ? 0 : LEVEL);

/** Single letters that say which way a coordinate runs, beside a word that says that it is one. */
const AXES: Readonly<Record<string, Meaning>> = { x: "east", e: "east", y: "north", n: "north", b: "lat", l: "lon" };
/** A word alone has at least as many letters, where it is written in Latin ones: "by" and "il" are in many languages. */
const LEAST_ALONE = 3;

/** Words for what comes to the degrees of an angle in columns of their own: `lat_min`. */
const OF_ANGLE: Readonly<Record<string, ColumnForm>> = {
  ...Object.fromEntries("min minute minutes minuten".split(" ").map((word) => [word, "minutes"])),
  ...Object.fromEntries("sec second seconds sekunden".split(" ").map((word) => [word, "seconds"])),
  ...Object.fromEntries("dir direction hemisphere ns ew".split(" ").map((word) => [word, "direction"])),
};

/** Words for the first and the last of several numbers; beside no number they say nothing of an address. */
const OF_RANGE: Readonly<Record<string, Meaning>> = {
  ...Object.fromEntries("first from low start von ab".split(" ").map((word) => [word, "house"])),
  ...Object.fromEntries("last to high end bis".split(" ").map((word) => [word, "suffix"])),
};

/** What the words of a head mean where the head itself is not known: the one meaning that they name, whatever is next to it. */
function useOfWords(words: readonly string[], lang?: string): HeadUse | undefined {
  const end = words.find((word) => Object.hasOwn(OF_RANGE, word));
  if (end) {
    const { said, unknown } = readHead(
      words.filter((word) => word !== end),
      lang,
    );
    const isOfNumber = said.includes("number") || (said.includes("house") && !said.includes("name"));
    if (!isOfNumber || unknown) return undefined;
    return used(
      said.includes("suffix") ? "suffix" : OF_RANGE[end],
      BY_WORDS - (said.includes("suffix") ? 0 : UNKNOWN / 2),
    );
  }
  const axis = words.find((word) => Object.hasOwn(AXES, word));
  const beside = readHead(
    words.filter((word) => word !== axis),
    lang,
  );
  if (axis && beside.said.length && !beside.unknown && beside.said.every(isOfPoint)) return used(AXES[axis], BY_WORDS);
  const { said, unknown: unread } = readHead(words, lang);
  if (words.length === 1 && words[0].length < LEAST_ALONE && /^[a-z]+$/.test(words[0])) return undefined;
  const others = words.filter((word) => !readHead([word]).said.length).flatMap((word) => MEANING_OF.get(word) ?? []);
  const unknown = unread - others.length;
  const has = (word: HeadWord) => said.includes(word);
  const sure = BY_WORDS - unknown * UNKNOWN;
  if (has("floor")) return undefined;
  const meanings = new Set([...said.flatMap((word) => MEANING_OF_WORD[word] ?? []), ...others]);
  const [meaning] = meanings;
  // both in one column, in the order of the name
  if (meanings.size === 2 && meanings.has("lat") && meanings.has("lon") && !unknown)
    return used(meaning === "lat" ? "position" : "lonlat", sure);
  const isOne = meanings.size === 1;
  if (has("post")) {
    // the post's town is the settlement's where no column has that
    if (has("name") || (meaning === "town" && isOne)) return used("town", sure - LEVEL / 2);
    return has("number") || has("code") || has("postcode") ? used("postcode", sure) : undefined;
  }
  // "postcode and town" in one column
  if (meanings.size === 2 && meanings.has("postcode") && meanings.has("town")) return used("postcode", sure);
  if (has("kind")) return has("street") && isOne ? used("way", sure) : undefined;
  if (meanings.has("suffix")) return isOne || meanings.has("house") ? used("suffix", sure) : undefined;
  if (has("number")) {
    if (has("descriptive")) return used("house", BY_WORDS - 1);
    // "number of the address" is the house's, though less surely than what says so
    if (!meaning) return unknown || said.length < 2 ? undefined : used("house", BY_WORDS - UNKNOWN);
    if (!isOne) return undefined;
    if (meaning === "street" || meaning === "house") return unknown ? undefined : used("house", sure);
    if (meaning === "unit" || meaning === "postcode") return used(meaning, sure);
    return NAMED.has(meaning) ? { use: { meaning, form: "code" }, weight: sure } : undefined;
  }
  if (meanings.size === 2 && meanings.has("town") && meanings.has("district"))
    return { ...used("town", sure), level: "village" };
  const isLine = !meaning && !unknown && has("address") && said.every((word) => word === "address" || word === "plain");
  if (isLine) return used("line", sure);
  if (!meaning || !isOne) return undefined;
  if (meaning === "north" || meaning === "east")
    return said.length + others.length > 1 && said.every((word) => word === meaning || isOfPoint(word)) && !unknown
      ? used(meaning, sure)
      : undefined;
  if (meaning === "lat" || meaning === "lon") {
    const part = words.find((word) => Object.hasOwn(OF_ANGLE, word));
    if (unknown > (part ? 1 : 0)) return undefined;
    return part ? { use: { meaning, form: OF_ANGLE[part] }, weight: sure } : used(meaning, sure);
  }
  if (meaning === "house" && has("name")) return used("name", sure);
  if (has("code"))
    return NAMED.has(meaning) && meaning !== "street" ? { use: { meaning, form: "code" }, weight: sure } : undefined;
  const level = meaning === "town" ? levelOf(said) : undefined;
  return { ...used(meaning, sure + weightOf(level)), ...(level ? { level } : {}) };
}

const used = (meaning: Meaning, weight: number): HeadUse => ({ use: { meaning }, weight });
const isOfPoint = (word: HeadWord) => word === "point" || word === "plain";

/** What a form calls one of its fields: what a head may say, or what no column is for. */
export interface LabelMeaning {
  meaning: Meaning | "floor";
}

/** What stands between the names of two parts: "Ulica i kućni broj". */
const AND = new Set("and und et e i y a en og och ja ir un in si es te ve и і та й και".split(" "));
/**
 * What a label of a form says, by the words that heads of columns have too; undefined where a word is not known or is of none of
 * the languages, or where two parts are named, but for a street with its number, which is a line.
 * @param langs of the form (`langsOfHeads` of its labels); the first decides where languages take a word differently
 */
export function meaningOfLabel(label: string, langs: ReadonlySet<string>): LabelMeaning | undefined {
  const [lang] = langs;
  const words = wordsOfHead(label);
  // "Регион" is no English, though it reads like it in Latin letters
  const isTold = /\p{Script=Latin}/u.test(label) ? langsOfHead(words).some((own) => langs.has(own)) : langs.size > 0;
  if (!isTold) return undefined;
  const { said, unknown } = readHead(words, lang);
  const has = (word: HeadWord) => said.includes(word);
  const meanings = new Set(said.flatMap((word) => MEANING_OF_WORD[word] ?? []));
  if (namesSeveral(label) && has("street") && (has("house") || has("number")) && !meanings.has("town"))
    return { meaning: "line" };
  if (has("floor")) {
    if (unknown || [...meanings].some((meaning) => meaning !== "unit")) return undefined;
    return { meaning: meanings.size ? "unit" : "floor" };
  }
  // the language of the form goes before what a word is where nothing tells the language
  const [own] = meanings;
  if (own && words.length === 1 && isTakenDifferently(words[0])) return { meaning: own };
  const found = useOfHead(label, lang);
  if (!found || (unknown && found.weight < KNOWN) || (found.use.form && found.use.meaning !== "country"))
    return undefined;
  return { meaning: found.use.meaning };
}

/** True for a label that may name several parts: "Ulica i kućni broj", "PLZ / Ort". */
export const namesSeveral = (label: string) => /[,/+&]/.test(label) || wordsOfHead(label).some((word) => AND.has(word));

/** Whether a label is rather of what lies in a town ("village", "suburb"), or of what several lie in; undefined for neither. */
export const levelOfLabel = (label: string): HeadUse["level"] => levelOf(readHead(wordsOfHead(label)).said);

/** Heads of one language from which they tell it. */
const HEADED = 2;

/** Languages that heads or labels are in, as far as enough of them tell. English ones prove nothing, since everybody uses them. */
export function langsOfHeads(heads: readonly string[]): Set<string> {
  const counts = new Map<string, number>();
  for (const head of heads)
    for (const lang of langsOfHead(plainHead(head).split("_"))) counts.set(lang, (counts.get(lang) ?? 0) + 1);
  const most = Math.max(0, ...counts.values());
  return new Set([...counts].filter(([, count]) => most >= HEADED && count === most).map(([lang]) => lang));
}
