import { Random } from "@bibliotope/islands";
import proj4 from "proj4";
import type { Address } from "./make.ts";

/** A file as an authority would publish it. */
export interface Published {
  name: string;
  country: string;
  bytes: Uint8Array;
  /** The address of each row, in the order of the rows. */
  addresses: readonly Address[];
}

/** How an authority writes its file. */
interface Manner {
  name: string;
  country: string;
  encoding: "utf-8" | "latin1" | "utf-8 with mark";
  delimiter: string;
  /** Head of each column, and what stands in it. */
  columns: readonly [
    head: string,
    cell: (address: Address, metres: readonly [number, number], row: number) => string,
  ][];
  /** Terms of PROJ. */
  grid?: string;
  upper?: boolean;
}

const comma = (value: number, digits: number) => value.toFixed(digits).replace(".", ",");
const house = ({ house: { number } }: Address) => String(number);
const suffix = ({ house: held }: Address) => held.suffix.toUpperCase();
const street = (address: Address) => address.street.name;
const kind = (address: Address) => address.street.kind[0];
const called = (address: Address) => `${address.street.link}${address.street.word}`.trim();
const town = (address: Address) => address.town;
const postcode = (address: Address) => address.postcode;
const region = (address: Address) => address.region.name;
const lat = ({ at }: Address) => at.lat.toFixed(7);
const lon = ({ at }: Address) => at.lon.toFixed(7);
const row = (_: Address, __: readonly [number, number], n: number) => String(n + 1);

const utm = (zone: number, isSouth = false) =>
  `+proj=utm +zone=${zone} ${isSouth ? "+south " : ""}+ellps=GRS80 +units=m`;

/** As fifteen authorities might, each in its own language and habits. */
const MANNERS: readonly Manner[] = [
  {
    name: "us-county",
    country: "US",
    encoding: "utf-8",
    delimiter: ",",
    upper: true,
    grid: utm(14),
    columns: [
      ["OBJECTID", row],
      ["ADDNUM", house],
      ["ADDNUMSUF", suffix],
      ["FULLNAME", street],
      ["POSTCOMM", town],
      ["STATE", ({ region: { code } }) => code],
      ["ZIP5", postcode],
      ["POINT_X", (_, [x]) => x.toFixed(2)],
      ["POINT_Y", (_, [, y]) => y.toFixed(2)],
      ["LATITUDE", lat],
      ["LONGITUDE", lon],
    ],
  },
  {
    name: "gb-gazetteer",
    country: "GB",
    encoding: "utf-8",
    delimiter: ",",
    grid: "+proj=tmerc +lat_0=49 +lon_0=-2 +k=0.9996012717 +x_0=400000 +y_0=-100000 +ellps=airy +towgs84=446.448,-125.157,542.06,0.15,0.247,0.842,-20.489 +units=m",
    columns: [
      ["REFERENCE", row],
      ["BUILDING_NUMBER", (address) => address.number],
      ["THOROUGHFARE", street],
      ["POST_TOWN", town],
      ["POSTCODE", postcode],
      ["EASTING", (_, [x]) => x.toFixed(1)],
      ["NORTHING", (_, [, y]) => y.toFixed(1)],
    ],
  },
  {
    name: "ie-directory",
    country: "IE",
    encoding: "utf-8 with mark",
    delimiter: "\t",
    grid: "+proj=tmerc +lat_0=53.5 +lon_0=-8 +k=0.99982 +x_0=600000 +y_0=750000 +ellps=GRS80 +units=m",
    columns: [
      ["Building No", (address) => address.number],
      ["Street Name", street],
      ["Town", town],
      ["County", region],
      ["Post Code", postcode],
      ["ITM_E", (_, [x]) => x.toFixed(0)],
      ["ITM_N", (_, [, y]) => y.toFixed(0)],
    ],
  },
  {
    name: "de-hauskoordinaten",
    country: "DE",
    encoding: "latin1",
    delimiter: ";",
    grid: utm(32),
    columns: [
      ["oid", row],
      ["gemname", town],
      ["strname", street],
      ["hsnr", house],
      ["hsnrzus", suffix],
      ["plz", postcode],
      ["ostwert", (_, [x]) => comma(x, 3)],
      ["nordwert", (_, [, y]) => comma(y, 3)],
    ],
  },
  {
    name: "at-adressregister",
    country: "AT",
    encoding: "utf-8 with mark",
    delimiter: ";",
    grid: "+proj=lcc +lat_1=49 +lat_2=46 +lat_0=47.5 +lon_0=13.33333333333333 +x_0=400000 +y_0=400000 +ellps=bessel +towgs84=577.326,90.129,463.919,5.137,1.474,5.297,2.4232 +units=m",
    columns: [
      ["PLZ", postcode],
      ["ORTSNAME", town],
      ["STRASSENNAME", street],
      ["HAUSNR", (address) => address.number],
      ["RW", (_, [x]) => comma(x, 2)],
      ["HW", (_, [, y]) => comma(y, 2)],
    ],
  },
  {
    name: "nl-adressen",
    country: "NL",
    encoding: "utf-8",
    delimiter: ";",
    grid: "+proj=sterea +lat_0=52.15616055555555 +lon_0=5.38763888888889 +k=0.9999079 +x_0=155000 +y_0=463000 +ellps=bessel +towgs84=565.417,50.3319,465.552,-0.398957,0.343988,-1.8774,4.0725 +units=m",
    columns: [
      ["openbareruimte", street],
      ["huisnummer", house],
      ["huisletter", (address) => (/^\p{L}$/u.test(suffix(address)) ? suffix(address) : "")],
      [
        "huisnummertoevoeging",
        (address) => (/^\p{L}$/u.test(suffix(address)) ? "" : suffix(address).replace(/^-/, "")),
      ],
      ["postcode", (address) => postcode(address).replace(" ", "")],
      ["woonplaats", town],
      ["x", (_, [x]) => x.toFixed(0)],
      ["y", (_, [, y]) => y.toFixed(0)],
    ],
  },
  {
    name: "be-adressen",
    country: "BE",
    encoding: "utf-8",
    delimiter: ",",
    grid: "+proj=lcc +lat_1=51.16666723333333 +lat_2=49.8333339 +lat_0=90 +lon_0=4.367486666666666 +x_0=150000.013 +y_0=5400088.438 +ellps=intl +towgs84=-106.8686,52.2978,-103.7239,0.3366,-0.457,1.8422,-1.2747 +units=m",
    columns: [
      ["address_id", row],
      ["straatnaam", street],
      ["huisnummer", (address) => address.number],
      ["postcode", postcode],
      ["gemeentenaam", town],
      ["EPSG:31370_x", (_, [x]) => x.toFixed(2)],
      ["EPSG:31370_y", (_, [, y]) => y.toFixed(2)],
    ],
  },
  {
    name: "fr-adresses",
    country: "FR",
    encoding: "utf-8",
    delimiter: ";",
    grid: "+proj=lcc +lat_1=49 +lat_2=44 +lat_0=46.5 +lon_0=3 +x_0=700000 +y_0=6600000 +ellps=GRS80 +units=m",
    columns: [
      ["id", row],
      ["numero", house],
      ["rep", (address) => suffix(address).toLowerCase()],
      ["nom_voie", street],
      ["code_postal", postcode],
      ["code_insee", (address) => `${postcode(address).slice(0, 2)}001`],
      ["nom_commune", town],
      ["x", (_, [x]) => x.toFixed(2)],
      ["y", (_, [, y]) => y.toFixed(2)],
      ["lon", lon],
      ["lat", lat],
    ],
  },
  {
    name: "es-callejero",
    country: "ES",
    encoding: "latin1",
    delimiter: ";",
    upper: true,
    grid: utm(30),
    columns: [
      ["TIPO_VIA", kind],
      ["NOMBRE_VIA", called],
      ["NUMERO", house],
      ["EXTENSION", suffix],
      ["COD_POSTAL", postcode],
      ["MUNICIPIO", town],
      ["PROVINCIA", region],
      ["UTM30_X", (_, [x]) => comma(x, 2)],
      ["UTM30_Y", (_, [, y]) => comma(y, 2)],
    ],
  },
  {
    name: "it-civici",
    country: "IT",
    encoding: "utf-8",
    delimiter: ";",
    upper: true,
    columns: [
      ["CODICE", row],
      ["DUG", kind],
      ["DENOMINAZIONE", called],
      ["CIVICO", house],
      ["ESPONENTE", suffix],
      ["CAP", postcode],
      ["COMUNE", town],
      ["LONGITUDINE", ({ at }) => comma(at.lon, 6)],
      ["LATITUDINE", ({ at }) => comma(at.lat, 6)],
    ],
  },
  {
    name: "pt-moradas",
    country: "PT",
    encoding: "utf-8",
    delimiter: ",",
    grid: "+proj=tmerc +lat_0=39.66825833333333 +lon_0=-8.133108333333334 +k=1 +x_0=0 +y_0=0 +ellps=GRS80 +units=m",
    columns: [
      ["arruamento", street],
      ["num_porta", (address) => address.number],
      ["codigo_postal", postcode],
      ["localidade", town],
      ["m", (_, [x]) => x.toFixed(1)],
      ["p", (_, [, y]) => y.toFixed(1)],
    ],
  },
  {
    name: "br-enderecos",
    country: "BR",
    encoding: "utf-8",
    delimiter: ";",
    columns: [
      ["NOM_TIPO_SEGLOGR", kind],
      ["NOM_SEGLOGR", called],
      ["NUM_ENDERECO", (address) => address.number],
      ["CEP", (address) => postcode(address).replace("-", "")],
      ["MUNICIPIO", town],
      ["UF", ({ region: { code } }) => code],
      ["LATITUDE", lat],
      ["LONGITUDE", lon],
    ],
  },
  {
    name: "pl-punkty",
    country: "PL",
    encoding: "utf-8",
    delimiter: "\t",
    grid: "+proj=tmerc +lat_0=0 +lon_0=19 +k=0.9993 +x_0=500000 +y_0=-5300000 +ellps=GRS80 +units=m",
    columns: [
      ["ulica", street],
      ["numer", (address) => address.number],
      ["kod_pocztowy", postcode],
      ["miejscowosc", town],
      ["x", (_, [, y]) => y.toFixed(2)],
      ["y", (_, [x]) => x.toFixed(2)],
    ],
  },
  {
    name: "se-adresser",
    country: "SE",
    encoding: "utf-8",
    delimiter: ";",
    grid: utm(33),
    columns: [
      ["gatunamn", street],
      ["gatunummer", house],
      ["bokstav", suffix],
      ["postnr", postcode],
      ["postort", town],
      ["E", (_, [x]) => x.toFixed(1)],
      ["N", (_, [, y]) => y.toFixed(1)],
    ],
  },
  {
    name: "cz-mista",
    country: "CZ",
    encoding: "utf-8",
    delimiter: ";",
    grid: "+proj=krovak +lat_0=49.5 +lon_0=24.83333333333333 +alpha=30.28813972222222 +k=0.9999 +x_0=0 +y_0=0 +ellps=bessel +towgs84=589,76,480 +units=m",
    columns: [
      ["Kód ADM", row],
      ["Název obce", town],
      ["Název ulice", street],
      ["Číslo domovní", (address) => address.number],
      ["PSČ", (address) => postcode(address).replace(" ", "")],
      ["Souřadnice Y", (_, [x]) => (-x).toFixed(2)],
      ["Souřadnice X", (_, [, y]) => (-y).toFixed(2)],
    ],
  },
];

/** Rows of a file. */
const ROWS = 1500;

/** The files of all authorities, of addresses that a world holds. */
export function publishedFiles(addresses: readonly Address[], seed = 1): Published[] {
  return MANNERS.map((manner) => {
    const random = new Random(`${seed} ${manner.name}`);
    const its = addresses.filter(({ ways }) => ways.code === manner.country);
    const chosen = its.filter(() => random.chance(Math.min(1, ROWS / its.length)));
    return { ...manner, addresses: chosen, bytes: written(manner, chosen) };
  });
}

function written({ columns, delimiter, grid, upper, encoding }: Manner, addresses: readonly Address[]): Uint8Array {
  const project = grid ? proj4(grid) : undefined;
  const quoted = (cell: string) =>
    /["\n]/.test(cell) || cell.includes(delimiter) ? `"${cell.replaceAll('"', '""')}"` : cell;
  const rows = addresses.map((address, n) => {
    const [x, y] = project?.forward([address.at.lon, address.at.lat]) ?? [0, 0];
    const cells = columns.map(([, cell]) => cell(address, [x, y], n));
    return (upper ? cells.map((cell) => cell.toUpperCase()) : cells).map(quoted).join(delimiter);
  });
  const text = [columns.map(([head]) => quoted(head)).join(delimiter), ...rows, ""].join("\r\n");
  return Buffer.from(
    encoding === "utf-8 with mark" ? `\uFEFF${text}` : text,
    encoding === "latin1" ? "latin1" : "utf-8",
  );
}
