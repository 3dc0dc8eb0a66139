import { Random } from "@bibliotope/islands";
import proj4 from "proj4";

/** A row as it was meant, whatever its file makes of it. */
export interface Meant {
  town: string;
  street: string;
  house: number;
  suffix: string;
  postcode: string;
  lat: number;
  lon: number;
  east: number;
  north: number;
}

/** How an authority, a shop or an office of a country writes a table, and what each of its columns holds. */
export interface Manner {
  name: string;
  country: string;
  /** Columns: the head, what stands in it, and the meaning that a person would give it (none for what is no part of an address). */
  columns: readonly (readonly [head: string, cell: (row: Meant, n: number) => string | number, meaning?: string])[];
  delimiter?: string;
  /** True where more than one grid of the country fits: then a person is asked. */
  isAsked?: boolean;
}

interface Land {
  at: readonly [lon: number, lat: number];
  towns: readonly string[];
  streets: readonly string[];
  postcode: (town: number) => string;
  grid?: string;
}

const tmerc = (lat: number, lon: number, k: number, x: number, y: number, datum = "+ellps=GRS80") =>
  `+proj=tmerc +lat_0=${lat} +lon_0=${lon} +k=${k} +x_0=${x} +y_0=${y} ${datum} +units=m`;
const utm = (zone: number) => `+proj=utm +zone=${zone} +ellps=GRS80 +units=m`;

/** Towns and streets are put together from common words; none of them is meant. */
const LANDS: Readonly<Record<string, Land>> = {
  DK: {
    at: [10.2, 55.5],
    towns: ["Nordlund", "Sønderhave", "Æblerød"],
    streets: ["Birkevænget", "Ågade", "Møllestræde", "Kirkevej"],
    postcode: (n) => String(8100 + n * 40),
    grid: utm(32),
  },
  NO: {
    at: [10.4, 63.3],
    towns: ["Fjellvåg", "Bjørkenes", "Storlia"],
    streets: ["Bjørkeveien", "Skolegata", "Øvre Torggate", "Fjordbakken"],
    postcode: (n) => `0${150 + n * 7}`,
    grid: utm(33),
  },
  FI: {
    at: [25.1, 61.2],
    towns: ["Koivula", "Järvenranta", "Mäntykylä"],
    streets: ["Koivukatu", "Rantatie", "Männynpolku", "Kirkkokuja"],
    postcode: (n) => `0${4000 + n * 10}`,
    grid: utm(35),
  },
  CH: {
    at: [8.3, 47.2],
    towns: ["Oberlinden", "Seebach am Rain", "Erlenmatt"],
    streets: ["Dorfstrasse", "Lindenweg", "Mühlegasse", "Bahnhofplatz"],
    postcode: (n) => String(6010 + n * 13),
    grid: "+proj=somerc +lat_0=46.95240555555556 +lon_0=7.439583333333333 +k_0=1 +x_0=2600000 +y_0=1200000 +ellps=bessel +towgs84=674.374,15.056,405.346 +units=m",
  },
  HU: {
    at: [19.5, 47.3],
    towns: ["Hársfalva", "Kisrét", "Nagykert"],
    streets: ["Hársfa", "Rét", "Malom", "Iskola"],
    postcode: (n) => String(6100 + n * 11),
    grid: "+proj=somerc +lat_0=47.14439372222222 +lon_0=19.04857177777778 +k_0=0.99993 +x_0=650000 +y_0=200000 +ellps=GRS67 +towgs84=52.17,-71.82,-14.9 +units=m",
  },
  SK: {
    at: [19.6, 48.7],
    towns: ["Lipová", "Horná Lúka", "Brezina"],
    streets: ["Lipová", "Školská", "Mlynská", "Hlavná"],
    postcode: (n) => `0${1001 + n * 5}`,
    grid: "+proj=krovak +lat_0=49.5 +lon_0=24.83333333333333 +alpha=30.28813972222222 +k=0.9999 +x_0=0 +y_0=0 +ellps=bessel +towgs84=589,76,480 +units=m",
  },
  EE: {
    at: [25.6, 58.7],
    towns: ["Kaseküla", "Mäemõisa", "Põldla"],
    streets: ["Kase tn", "Mõisa tee", "Pargi tn", "Jõe põik"],
    postcode: (n) => String(70000 + n * 101),
  },
  LT: {
    at: [24.2, 55.2],
    towns: ["Liepakalnis", "Ežerynai", "Beržiškė"],
    streets: ["Liepų g.", "Mokyklos g.", "Ežero al.", "Malūno pr."],
    postcode: (n) => `LT-${21001 + n * 45}`,
    grid: tmerc(0, 24, 0.9998, 500_000, 0),
  },
  LV: {
    at: [24.9, 56.9],
    towns: ["Liepkalni", "Ezerciems", "Bērzmuiža"],
    streets: ["Liepu iela", "Skolas iela", "Ezera prospekts", "Dzirnavu iela"],
    postcode: (n) => `LV-${4001 + n * 3}`,
    grid: tmerc(0, 24, 0.9996, 500_000, -6_000_000),
  },
  SI: {
    at: [14.6, 46.1],
    towns: ["Lipovica", "Brezje pri Potoku", "Dolnji Travnik"],
    streets: ["Lipova ulica", "Šolska cesta", "Pot ob potoku", "Trg zadruge"],
    postcode: (n) => String(1210 + n * 7),
    grid: tmerc(0, 15, 0.9999, 500_000, -5_000_000),
  },
  HR: {
    at: [16.2, 45.6],
    towns: ["Gornji Lipovac", "Brezova Draga", "Čista Voda"],
    streets: ["Ulica lipa", "Školska ulica", "Mlinarska cesta", "Trg slobode"],
    postcode: (n) => String(44010 + n * 13),
    grid: tmerc(0, 16.5, 0.9999, 500_000, 0),
  },
  RO: {
    at: [25.3, 45.9],
    towns: ["Teiuș de Sus", "Valea Morii", "Poiana Lungă"],
    streets: ["Teilor", "Morii", "Școlii", "Păcii"],
    postcode: (n) => String(500_100 + n * 713),
  },
  GR: {
    at: [22.9, 38.9],
    towns: ["Κάτω Πλατανιά", "Νέα Πηγή", "Μύλος"],
    streets: ["Πλατάνου", "Σχολείου", "Μύλου", "Ελιάς"],
    postcode: (n) => `${350 + n} 02`,
    grid: tmerc(0, 24, 0.9996, 500_000, 0, "+ellps=GRS80 +towgs84=-199.87,74.79,246.62"),
  },
  IL: {
    at: [34.7, 31],
    towns: ["גבעת אלון", "נווה תמר", "כפר זית"],
    streets: ["האלון", "התמר", "הזית", "בית הספר"],
    postcode: (n) => String(7_120_000 + n * 111),
    grid: tmerc(
      31.73439361111111,
      35.20451694444445,
      1.0000067,
      219_529.584,
      626_907.39,
      "+ellps=GRS80 +towgs84=-24.0024,-17.1032,-17.8444,-0.33077,-1.85269,1.66969,5.4248",
    ),
  },
  TW: {
    at: [120.9, 23.9],
    towns: ["青木鄉", "綠水鎮", "梅山里鄉"],
    streets: ["中正路", "民生路二段", "光明街", "和平東路一段"],
    postcode: (n) => String(540 + n),
    grid: tmerc(0, 121, 0.9999, 250_000, 0),
  },
  AU: {
    at: [146.1, -36.2],
    towns: ["WATTLE CREEK", "GUM FLAT", "MOUNT HERON"],
    streets: ["WATTLE", "STATION", "OLD MILL", "HARBOUR VIEW"],
    postcode: (n) => String(3600 + n),
  },
  NZ: {
    at: [174.9, -40.9],
    towns: ["Fernbrook", "Koru Bay", "Tarata Flat"],
    streets: ["Beach Road", "Fern Street", "Station Road", "Harbour View Road"],
    postcode: (n) => `0${610 + n}`,
  },
  CA: {
    at: [-72.1, 46.5],
    towns: ["Saint-Érable", "Maple Falls", "Rivière-Bleue"],
    streets: ["rue des Érables", "Maple St", "chemin du Moulin", "1re Avenue"],
    postcode: (n) => `G0X ${n + 1}A0`,
  },
  TR: {
    at: [32.5, 39.2],
    towns: ["Çamlıdere Köy", "Ihlamur", "Gülpınar"],
    streets: ["Ihlamur Sokak", "Çınar Caddesi", "1234. Sokak", "Okul Sokağı"],
    postcode: (n) => `06${100 + n * 50}`,
  },
  MX: {
    at: [-100.2, 20.5],
    towns: ["Arboleda", "San Molino", "Las Fuentes"],
    streets: ["Calle Molino", "Avenida de los Fresnos", "Privada Nogal", "Calle 5 de Mayo"],
    postcode: (n) => `0${7600 + n * 10}`,
  },
  IN: {
    at: [77.1, 19.2],
    towns: ["Neempur", "Amrai Nagar", "Kelghar"],
    streets: ["Mill Road", "Neem Street", "3rd Cross", "Temple Road"],
    postcode: (n) => String(431_000 + n * 3),
  },
  ID: {
    at: [110.1, -7.3],
    towns: ["Desa Jati", "Sukamelati", "Tanah Wangi"],
    streets: ["Jl. Melati", "Jalan Jati Raya", "Gang Mawar", "Jl. Sekolah"],
    postcode: (n) => String(56_100 + n * 2),
  },
  UA: {
    at: [30.2, 49.1],
    towns: ["Липове", "Нова Криниця", "Млинів Яр"],
    streets: ["вулиця Липова", "вулиця Шкільна", "провулок Млиновий", "вулиця Садова"],
    postcode: (n) => String(20_100 + n * 7),
  },
};

const whole = ({ house, suffix }: Meant) => `${house}${suffix}`;
const house = ({ house }: Meant) => house;
const suffix = ({ suffix }: Meant) => suffix;
const street = ({ street }: Meant) => street;
const town = ({ town }: Meant) => town;
const capitals = ({ town }: Meant) => town.toUpperCase();
const postcode = ({ postcode }: Meant) => postcode;
const lat = ({ lat }: Meant) => lat.toFixed(7);
const lon = ({ lon }: Meant) => lon.toFixed(7);
const east = ({ east }: Meant) => east.toFixed(2);
const north = ({ north }: Meant) => north.toFixed(2);
const always = (text: string) => () => text;
const withComma = (cell: (row: Meant) => string) => (row: Meant) => cell(row).replace(".", ",");

/** As thirty tables of twenty-two further countries might be headed. What has no meaning here is no part of an address. */
export const FURTHER: readonly Manner[] = [
  {
    name: "dk",
    country: "DK",
    delimiter: ";",
    columns: [
      ["id", (_, n) => `0a3f50b8-${n}`, "id"],
      ["vejkode", always("0100")],
      ["vejnavn", street, "street"],
      ["husnr", (row) => whole(row).padStart(4, "0"), "house"],
      ["postnr", postcode, "postcode"],
      ["postnrnavn", town, "town"],
      ["etrs89koordinat_øst", east],
      ["etrs89koordinat_nord", north],
      ["wgs84koordinat_bredde", lat, "lat"],
      ["wgs84koordinat_længde", lon, "lon"],
    ],
  },
  {
    name: "no",
    country: "NO",
    delimiter: ";",
    columns: [
      ["lokalid", (_, n) => 100 + n],
      ["kommunenavn", capitals],
      ["adressetype", always("vegadresse")],
      ["adressekode", (_, n) => 1000 + (n % 4)],
      ["adressenavn", street, "street"],
      ["nummer", house, "house"],
      ["bokstav", suffix, "suffix"],
      ["gardsnummer", always("12")],
      ["EPSG-kode", always("25833")],
      ["Nord", north, "north"],
      ["Øst", east, "east"],
      ["postnummer", postcode, "postcode"],
      ["poststed", capitals, "town"],
    ],
  },
  {
    name: "fi",
    country: "FI",
    delimiter: ";",
    columns: [
      ["Rakennustunnus", (_, n) => `10000${n}A`],
      ["Maakunta", always("17")],
      ["Pohjoiskoordinaatti", north, "north"],
      ["Itäkoordinaatti", east, "east"],
      ["Osoitenumero", always("1")],
      ["Kadunnimi suomeksi", street, "street"],
      ["Katunumero", whole, "house"],
      ["Postinumero", postcode, "postcode"],
      ["Postitoimipaikka", capitals, "town"],
    ],
  },
  {
    name: "ch",
    country: "CH",
    delimiter: ";",
    columns: [
      ["STR_ESID", (_, n) => 1000 + (n % 4)],
      ["STN_LABEL", street, "street"],
      ["ADR_NUMBER", whole, "house"],
      ["ZIP_LABEL", (row) => `${row.postcode} ${row.town}`, "postcode"],
      ["COM_NAME", town, "town"],
      ["COM_CANTON", always("LU"), "region"],
      ["ADR_STATUS", always("real")],
      ["ADR_EASTING", east, "east"],
      ["ADR_NORTHING", north, "north"],
    ],
  },
  {
    name: "hu",
    country: "HU",
    delimiter: ";",
    columns: [
      ["irsz", postcode, "postcode"],
      ["település", town, "town"],
      ["közterület neve", street, "street"],
      ["közterület jellege", (_, n) => ["utca", "tér", "út"][n % 3], "way"],
      ["házszám", house, "house"],
      ["épület", suffix, "suffix"],
      ["EOV_Y", east, "east"],
      ["EOV_X", north, "north"],
    ],
  },
  {
    name: "sk",
    country: "SK",
    delimiter: ";",
    columns: [
      ["Obec", town, "town"],
      ["Ulica", street, "street"],
      ["Súpisné číslo", (_, n) => 500 + n],
      ["Orientačné číslo", whole, "house"],
      ["PSČ", postcode, "postcode"],
      ["Zemepisná šírka", lat, "lat"],
      ["Zemepisná dĺžka", lon, "lon"],
    ],
  },
  {
    name: "sk-metres",
    country: "SK",
    columns: [
      ["OBEC", town, "town"],
      ["ULICA", street, "street"],
      ["CISLO", whole, "house"],
      ["PSC", postcode, "postcode"],
      ["X", east, "east"],
      ["Y", north, "north"],
    ],
  },
  {
    name: "ee",
    country: "EE",
    delimiter: ";",
    columns: [
      ["TASE1_NIMETUS", always("Jõe maakond")],
      ["TASE2_NIMETUS", (row) => `${row.town} vald`],
      ["TASE3_NIMETUS", town, "town"],
      ["TASE5_NIMETUS", street, "street"],
      ["TASE7_NIMETUS", whole, "house"],
      ["SIHTNUMBER", postcode, "postcode"],
      ["VIITEPUNKT_L", lon, "lon"],
      ["VIITEPUNKT_B", lat, "lat"],
    ],
  },
  {
    name: "lt",
    country: "LT",
    delimiter: ";",
    isAsked: true,
    columns: [
      ["Savivaldybė", (row) => `${row.town} raj. sav.`, "county"],
      ["Gyvenvietė", town, "town"],
      ["Gatvė", street, "street"],
      ["Namo nr.", whole, "house"],
      ["Pašto kodas", postcode, "postcode"],
      ["X", north, "east"],
      ["Y", east, "north"],
    ],
  },
  {
    name: "lv",
    country: "LV",
    delimiter: ";",
    columns: [
      ["Novads", (row) => `${row.town} novads`, "county"],
      ["Pilsēta", town, "town"],
      ["Iela", street, "street"],
      ["Māja", whole, "house"],
      ["Pasta indekss", postcode, "postcode"],
      ["KOORD_X", north],
      ["KOORD_Y", east],
      ["DD_E", lon, "lon"],
      ["DD_N", lat, "lat"],
    ],
  },
  {
    name: "si",
    country: "SI",
    columns: [
      ["NASELJE_NAZIV", town, "town"],
      ["ULICA_NAZIV", street, "street"],
      ["HS_STEVILKA", house, "house"],
      ["HS_DODATEK", suffix, "suffix"],
      ["POSTNI_OKOLIS_SIFRA", postcode, "postcode"],
      ["POSTNI_OKOLIS_NAZIV", town],
      ["E", east, "east"],
      ["N", north, "north"],
    ],
  },
  {
    name: "hr",
    country: "HR",
    delimiter: ";",
    columns: [
      ["Naselje", town, "town"],
      ["Ulica", street, "street"],
      ["Kućni broj", house, "house"],
      ["Dodatak", suffix, "suffix"],
      ["Poštanski broj", postcode, "postcode"],
      ["Županija", always("Lipova županija"), "county"],
      ["E (HTRS96)", withComma(east), "east"],
      ["N (HTRS96)", withComma(north), "north"],
    ],
  },
  {
    name: "ro",
    country: "RO",
    columns: [
      ["judet", always("Teiului"), "county"],
      ["localitate", town, "town"],
      ["tip artera", always("Strada"), "way"],
      ["denumire artera", street, "street"],
      ["numar", whole, "house"],
      ["cod postal", postcode, "postcode"],
      ["latitudine", lat, "lat"],
      ["longitudine", lon, "lon"],
    ],
  },
  {
    name: "gr",
    country: "GR",
    delimiter: ";",
    columns: [
      ["ΔΗΜΟΣ", town, "town"],
      ["ΟΔΟΣ", street, "street"],
      ["ΑΡΙΘΜΟΣ", house, "house"],
      ["ΤΚ", postcode, "postcode"],
      ["X_ΕΓΣΑ", east, "east"],
      ["Y_ΕΓΣΑ", north, "north"],
    ],
  },
  {
    name: "il",
    country: "IL",
    columns: [
      ["שם ישוב", town, "town"],
      ["שם רחוב", street, "street"],
      ["מספר בית", house, "house"],
      ["מיקוד", postcode, "postcode"],
      ["X", east, "east"],
      ["Y", north, "north"],
    ],
  },
  {
    name: "tw",
    country: "TW",
    isAsked: true,
    columns: [
      ["縣市", always("青縣"), "region"],
      ["鄉鎮市區", town, "town"],
      ["街、路段", street, "street"],
      ["號", (row) => `${row.house}號`, "house"],
      ["橫座標", east, "east"],
      ["縱座標", north, "north"],
    ],
  },
  {
    name: "au",
    country: "AU",
    delimiter: "|",
    columns: [
      ["ADDRESS_DETAIL_PID", (_, n) => `VIC${n}`],
      ["NUMBER_FIRST", house, "house"],
      ["NUMBER_FIRST_SUFFIX", suffix, "suffix"],
      ["FLAT_TYPE", (_, n) => (n % 5 ? "" : "UNIT")],
      ["FLAT_NUMBER", (_, n) => (n % 5 ? "" : "3"), "unit"],
      ["STREET_NAME", street, "street"],
      ["STREET_TYPE_CODE", always("ROAD"), "way"],
      ["STREET_SUFFIX_CODE", always("")],
      ["LOCALITY_NAME", town, "town"],
      ["STATE_ABBREVIATION", always("VIC"), "region"],
      ["POSTCODE", postcode, "postcode"],
      ["LONGITUDE", lon, "lon"],
      ["LATITUDE", lat, "lat"],
    ],
  },
  {
    name: "nz",
    country: "NZ",
    columns: [
      ["address_id", (_, n) => 2000 + n, "id"],
      ["full_address_number", whole, "house"],
      ["full_road_name", street, "street"],
      ["suburb_locality", town],
      ["town_city", town, "town"],
      ["territorial_authority", always("Fern District")],
      ["gd2000_xcoord", lon, "lon"],
      ["gd2000_ycoord", lat, "lat"],
    ],
  },
  {
    name: "ca",
    country: "CA",
    columns: [
      ["LON", lon, "lon"],
      ["LAT", lat, "lat"],
      ["NUMBER", whole, "house"],
      ["STREET", street, "street"],
      ["CITY", town, "town"],
      ["REGION", always("QC"), "region"],
      ["POSTCODE", postcode, "postcode"],
      ["HASH", (_, n) => `a83f${n}`],
    ],
  },
  {
    name: "tr",
    country: "TR",
    delimiter: ";",
    columns: [
      ["İLÇE", town, "town"],
      ["MAHALLE", (_, n) => ["Merkez Mah.", "Bahçe Mah."][n % 2], "district"],
      ["CADDE/SOKAK", street, "street"],
      ["KAPI NO", whole, "house"],
      ["POSTA KODU", postcode, "postcode"],
      ["ENLEM", withComma(lat), "lat"],
      ["BOYLAM", withComma(lon), "lon"],
    ],
  },
  {
    name: "mx",
    country: "MX",
    columns: [
      ["nom_vial", street, "street"],
      ["numero_ext", house, "house"],
      ["letra_ext", suffix, "suffix"],
      ["nomb_asent", always("Centro"), "district"],
      ["cod_postal", postcode, "postcode"],
      ["entidad", always("Querétaro"), "region"],
      ["municipio", town],
      ["localidad", town, "town"],
      ["latitud", lat, "lat"],
      ["longitud", lon, "lon"],
    ],
  },
  {
    name: "in",
    country: "IN",
    columns: [
      ["House No", whole, "house"],
      ["Street", street, "street"],
      ["Locality", (_, n) => `Ward ${n % 2 ? "North" : "South"}`, "district"],
      ["City", town, "town"],
      ["State", always("Maharashtra"), "region"],
      ["PIN Code", postcode, "postcode"],
      ["Lat", lat, "lat"],
      ["Long", lon, "lon"],
    ],
  },
  {
    name: "id",
    country: "ID",
    columns: [
      ["alamat", street, "line"],
      ["nomor", whole, "house"],
      ["kota", town, "town"],
      ["provinsi", always("Jawa Tengah"), "region"],
      ["kode_pos", postcode, "postcode"],
      ["lintang", lat, "lat"],
      ["bujur", lon, "lon"],
    ],
  },
  {
    name: "ua",
    country: "UA",
    delimiter: ";",
    columns: [
      ["Місто", town, "town"],
      ["Вулиця", street, "street"],
      ["Номер будинку", house, "house"],
      ["Поштовий індекс", postcode, "postcode"],
      ["Широта", lat, "lat"],
      ["Довгота", lon, "lon"],
    ],
  },
  {
    name: "shop",
    country: "CH",
    columns: [
      ["Store", (_, n) => `Shop ${n}`],
      ["Address", (row) => `${row.street} ${whole(row)}, ${row.postcode} ${row.town}`, "line"],
      ["Latitude/Longitude", (row) => `${lat(row)}, ${lon(row)}`, "position"],
    ],
  },
  {
    name: "office",
    country: "CH",
    delimiter: ";",
    columns: [
      ["Kunde", (_, n) => `K${n}`],
      ["Straße und Nr.", (row) => `${row.street} ${whole(row)}`, "line"],
      ["PLZ Ort", (row) => `${row.postcode} ${row.town}`, "postcode"],
      ["Breitengrad", withComma(lat), "lat"],
      ["Längengrad", withComma(lon), "lon"],
    ],
  },
  {
    name: "branches",
    country: "NZ",
    columns: [
      ["Street 1", (row) => `${whole(row)} ${row.street}`, "line"],
      ["Street 2", (_, n) => (n % 5 ? "" : "Flat 2"), "unit"],
      ["City", town, "town"],
      ["ZIP", postcode, "postcode"],
      ["Country", always("New Zealand"), "country"],
      ["lng", lon, "lon"],
      ["lat", lat, "lat"],
    ],
  },
  {
    name: "sucursales",
    country: "MX",
    columns: [
      ["dirección", (row) => `${row.street}, ${whole(row)}, ${row.postcode} ${row.town}`, "line"],
      ["coordenadas", (row) => `POINT(${lon(row)} ${lat(row)})`, "position"],
    ],
  },
  {
    name: "heads that say nothing",
    country: "NO",
    columns: [
      ["f1", street, "street"],
      ["f2", whole, "house"],
      ["f3", postcode, "postcode"],
      ["f4", town, "town"],
      ["f5", lat, "lat"],
      ["f6", lon, "lon"],
    ],
  },
  {
    name: "heads of nobody's language",
    country: "HR",
    columns: [
      ["ABC_ULX", street, "street"],
      ["QQ", whole, "house"],
      ["WW", postcode, "postcode"],
      ["ZZ_NM", town, "town"],
      ["RR", lat, "lat"],
      ["TT", lon, "lon"],
    ],
  },
];

/** Rows of a country, each with another number. @param seed of what is random in them */
export function rowsOf(country: string, count: number, seed: number): Meant[] {
  const random = new Random(seed);
  const { at, towns, streets, postcode, grid } = LANDS[country];
  const project = grid ? proj4("WGS84", grid) : undefined;
  return Array.from({ length: count }, (_, n) => {
    const ofTown = n % towns.length;
    const [lon, lat] = [at[0] + ofTown * 0.12 + random.next() * 0.04, at[1] + ofTown * 0.08 + random.next() * 0.03];
    const [east, north] = project?.forward([lon, lat]) ?? [0, 0];
    return {
      town: towns[ofTown],
      street: streets[Math.floor(n / towns.length) % streets.length],
      house: 1 + Math.floor(n / (towns.length * streets.length)) * 2 + random.integer(0, 1),
      suffix: random.next() < 0.15 ? "B" : "",
      postcode: postcode(ofTown),
      ...{ lat, lon, east, north },
    };
  });
}

/** The table that a manner makes of rows, as text. */
export function tableOf({ columns, delimiter = "," }: Manner, rows: readonly Meant[]): string {
  const quoted = (cell: string) =>
    cell.includes(delimiter) || cell.includes('"') ? `"${cell.replaceAll('"', '""')}"` : cell;
  const lines = rows.map((row, n) => columns.map(([, cell]) => quoted(String(cell(row, n)))).join(delimiter));
  return [columns.map(([head]) => quoted(head)).join(delimiter), ...lines].join("\n");
}
