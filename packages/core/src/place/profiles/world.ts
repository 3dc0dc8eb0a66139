import type { CountryProfile } from "../profile.ts";
import { FAMILIES } from "./families.ts";
import { FURTHER } from "./further.ts";
import type { Row } from "./row.ts";

const five = (examples: string[]) => ({ shape: "^\\d{5}$", examples });
const four = (examples: string[]) => ({ shape: "^\\d{4}$", examples });
const threeAndTwo = (examples: string[]) => ({ shape: "^\\d{3} ?\\d{2}$", examples });

/**
 * Countries by the way they write their addresses, from what their postal operators publish. A country is added by
 * adding a row; the examples are shapes, not addresses.
 */
const ROWS: readonly Row[] = [
  {
    code: "AR",
    langs: ["es"],
    family: "streetFirstState",
    areas: { region: "Provincia" },
    postcode: { label: "Código postal", shape: "^(?:[A-Z]\\d{4}[A-Z]{3}|\\d{4})$", examples: ["B1900ABC", "1900"] },
  },
  {
    code: "AT",
    langs: ["de"],
    family: "streetFirst",
    areas: { region: "Bundesland" },
    postcode: { label: "Postleitzahl", ...four(["1010", "5020"]) },
  },
  {
    code: "AU",
    langs: ["en"],
    family: "townStatePostcode",
    areas: { town: "Suburb", region: "State" },
    postcode: four(["2600", "0800"]),
  },
  {
    code: "BE",
    langs: ["nl", "fr", "de"],
    family: "streetFirst",
    areas: { town: "Gemeente, commune" },
    postcode: four(["1000", "9000"]),
  },
  { code: "BG", langs: ["bg"], family: "streetFirst", areas: { region: "Област" }, postcode: four(["1000", "4000"]) },
  {
    code: "BR",
    langs: ["pt"],
    family: "streetFirstState",
    areas: { district: "Bairro", town: "Município", region: "Estado" },
    levels: ["region", "town", "district"],
    postcode: { label: "CEP", shape: "^\\d{5}-?\\d{3}$", examples: ["70040-010", "01310-100"] },
  },
  {
    code: "CA",
    langs: ["en", "fr"],
    family: "townStatePostcode",
    areas: { region: "Province" },
    postcode: { label: "Postal code", shape: "^[A-Z]\\d[A-Z] ?\\d[A-Z]\\d$", examples: ["K1A 0B1", "H2X 1Y4"] },
  },
  {
    code: "CH",
    langs: ["de", "fr", "it", "rm"],
    family: "streetFirst",
    areas: { region: "Kanton" },
    postcode: { label: "Postleitzahl", ...four(["3000", "1200"]) },
  },
  {
    code: "CL",
    langs: ["es"],
    family: "streetFirst",
    areas: { town: "Comuna", region: "Región" },
    postcode: { label: "Código postal", shape: "^\\d{3}-?\\d{4}$", examples: ["8320000", "239-0000"] },
  },
  {
    code: "CZ",
    langs: ["cs"],
    family: "streetFirst",
    areas: { region: "Kraj" },
    postcode: { label: "PSČ", ...threeAndTwo(["110 00", "602 00"]) },
  },
  {
    code: "DE",
    langs: ["de"],
    family: "streetFirst",
    areas: { district: "Ortsteil", town: "Ort", region: "Land" },
    postcode: { label: "Postleitzahl", ...five(["10115", "01067"]) },
  },
  {
    code: "DK",
    langs: ["da"],
    family: "streetFirst",
    areas: { town: "By" },
    postcode: { label: "Postnummer", ...four(["1050", "8000"]) },
  },
  {
    code: "EE",
    langs: ["et"],
    family: "streetFirst",
    areas: { town: "Linn", county: "Maakond" },
    levels: ["county", "town"],
    postcode: { label: "Sihtnumber", ...five(["10111", "51003"]) },
  },
  {
    code: "ES",
    langs: ["es", "ca", "gl", "eu"],
    family: "streetFirst",
    areas: { town: "Municipio", county: "Provincia" },
    levels: ["county", "town"],
    postcode: { label: "Código postal", ...five(["28001", "08001"]) },
  },
  {
    code: "FI",
    langs: ["fi", "sv"],
    family: "streetFirst",
    areas: { town: "Postitoimipaikka" },
    postcode: { label: "Postinumero", ...five(["00100", "33100"]) },
  },
  {
    code: "FR",
    langs: ["fr"],
    family: "numberFirst",
    areas: { town: "Commune", county: "Département" },
    levels: ["county", "town"],
    postcode: { label: "Code postal", ...five(["75001", "13002"]) },
  },
  {
    code: "GB",
    langs: ["en", "cy", "gd"],
    family: "townThenPostcode",
    areas: { district: "Locality", town: "Post town", county: "County" },
    levels: ["county", "town", "district"],
    postcode: { shape: "^[A-Z]{1,2}\\d[A-Z\\d]? ?\\d[A-Z]{2}$", examples: ["SW1A 1AA", "M1 1AE"] },
  },
  {
    code: "GR",
    langs: ["el"],
    family: "streetFirst",
    areas: { town: "Πόλη" },
    postcode: { label: "Τ.Κ.", ...threeAndTwo(["104 31", "546 24"]) },
  },
  {
    code: "HR",
    langs: ["hr"],
    family: "streetFirst",
    areas: { county: "Županija" },
    levels: ["county", "town"],
    postcode: { label: "Poštanski broj", ...five(["10000", "21000"]) },
  },
  {
    code: "HU",
    langs: ["hu"],
    family: "townFirst",
    areas: { town: "Település", county: "Megye" },
    levels: ["county", "town"],
    postcode: { label: "Irányítószám", ...four(["1051", "4024"]) },
  },
  {
    code: "IE",
    langs: ["en", "ga"],
    family: "townThenPostcode",
    areas: { county: "County" },
    levels: ["county", "town"],
    postcode: { label: "Eircode", shape: "^[A-Z]\\d[\\dW] ?[A-Z\\d]{4}$", examples: ["D02 X285", "T12 AB34"] },
  },
  {
    code: "IN",
    langs: ["en", "hi"],
    family: "townStatePostcode",
    areas: { district: "Locality", region: "State" },
    levels: ["region", "town", "district"],
    postcode: { label: "PIN", shape: "^\\d{3} ?\\d{3}$", examples: ["110001", "560 001"] },
  },
  {
    code: "IS",
    langs: ["is"],
    family: "streetFirst",
    areas: {},
    postcode: { label: "Póstnúmer", shape: "^\\d{3}$", examples: ["101", "600"] },
  },
  {
    code: "IT",
    langs: ["it"],
    family: "streetFirstProvince",
    areas: { town: "Comune", county: "Provincia" },
    levels: ["county", "town"],
    postcode: { label: "CAP", ...five(["00184", "20121"]) },
  },
  {
    code: "JP",
    langs: ["ja"],
    family: "broadestFirst",
    areas: { region: "都道府県", town: "市区町村", district: "町域" },
    levels: ["region", "town", "district"],
    postcode: { label: "郵便番号", shape: "^〒?\\d{3}-?\\d{4}$", examples: ["100-0001", "530-0001"] },
  },
  {
    code: "LT",
    langs: ["lt"],
    family: "streetFirst",
    areas: { town: "Miestas" },
    postcode: { label: "Pašto kodas", shape: "^(?:LT-)?\\d{5}$", examples: ["LT-01100", "44001"] },
  },
  {
    code: "LU",
    langs: ["lb", "fr", "de"],
    family: "numberFirst",
    areas: {},
    postcode: { label: "Code postal", shape: "^(?:L-)?\\d{4}$", examples: ["L-1111", "2449"] },
  },
  {
    code: "LV",
    langs: ["lv"],
    family: "streetFirstTown",
    areas: { county: "Novads" },
    levels: ["county", "town"],
    postcode: { label: "Pasta indekss", shape: "^LV-\\d{4}$", examples: ["LV-1010", "LV-3001"] },
  },
  {
    code: "MX",
    langs: ["es"],
    family: "streetFirst",
    areas: { district: "Colonia", town: "Municipio", region: "Estado" },
    levels: ["region", "town", "district"],
    postcode: { label: "Código postal", ...five(["06000", "44100"]) },
  },
  {
    code: "NL",
    langs: ["nl"],
    family: "streetFirst",
    areas: { town: "Plaats" },
    postcode: { label: "Postcode", shape: "^\\d{4} ?[A-Z]{2}$", examples: ["1012 AB", "3511 CE"] },
  },
  {
    code: "NO",
    langs: ["nb", "nn"],
    family: "streetFirst",
    areas: { town: "Poststed" },
    postcode: { label: "Postnummer", ...four(["0150", "5003"]) },
  },
  {
    code: "NZ",
    langs: ["en", "mi"],
    family: "numberFirst",
    areas: { district: "Suburb" },
    levels: ["region", "town", "district"],
    postcode: four(["6011", "1010"]),
  },
  {
    code: "PL",
    langs: ["pl"],
    family: "streetFirst",
    areas: { town: "Miejscowość" },
    postcode: { label: "Kod pocztowy", shape: "^\\d{2}-\\d{3}$", examples: ["00-001", "31-002"] },
  },
  {
    code: "PT",
    langs: ["pt"],
    family: "streetFirst",
    areas: { town: "Localidade" },
    postcode: { label: "Código postal", shape: "^\\d{4}-\\d{3}$", examples: ["1000-001", "4000-123"] },
  },
  {
    code: "RO",
    langs: ["ro"],
    family: "streetFirst",
    areas: { county: "Județ" },
    levels: ["county", "town"],
    postcode: { label: "Cod poștal", shape: "^\\d{6}$", examples: ["010011", "400001"] },
  },
  {
    code: "SE",
    langs: ["sv"],
    family: "streetFirst",
    areas: { town: "Postort" },
    postcode: { label: "Postnummer", ...threeAndTwo(["111 20", "411 03"]) },
  },
  {
    code: "SI",
    langs: ["sl"],
    family: "streetFirst",
    areas: {},
    postcode: { label: "Poštna številka", ...four(["1000", "2000"]) },
  },
  {
    code: "SK",
    langs: ["sk"],
    family: "streetFirst",
    areas: { region: "Kraj" },
    postcode: { label: "PSČ", ...threeAndTwo(["811 01", "040 01"]) },
  },
  {
    code: "TR",
    langs: ["tr"],
    family: "streetFirst",
    areas: { district: "Mahalle", town: "İlçe", region: "İl" },
    levels: ["region", "town", "district"],
    postcode: { label: "Posta kodu", ...five(["06100", "34000"]) },
  },
  {
    code: "US",
    langs: ["en", "es"],
    family: "townStatePostcode",
    areas: { town: "City", region: "State" },
    postcode: { label: "ZIP code", shape: "^\\d{5}(?:-\\d{4})?$", examples: ["20500", "10001-0001"] },
  },
  {
    code: "ZA",
    langs: ["en", "af", "zu"],
    family: "townThenPostcode",
    areas: { district: "Suburb", region: "Province" },
    levels: ["region", "town", "district"],
    postcode: four(["0001", "8001"]),
  },
];

const COMMON: CountryProfile["labels"] = {
  house: "House number",
  unit: "Flat",
  street: "Street",
  town: "Town",
  region: "Region",
  postcode: "Postcode",
  country: "Country",
};

/** The profiles of real countries. */
export const WORLD: readonly CountryProfile[] = [...ROWS, ...FURTHER].map(
  ({ code, langs, family, areas, levels, postcode }) => {
    const { number } = FAMILIES[family];
    const { label, ...shape } = postcode ?? { shape: "", examples: [] };
    const own = number.part === "building" ? { building: "Building", block: "Block" } : {};
    return {
      ...FAMILIES[family],
      code,
      langs,
      levels: levels ?? ["region", "town"],
      labels: { ...COMMON, ...own, ...areas, ...(label ? { postcode: label } : {}) },
      ...(postcode ? { postcode: shape } : {}),
    };
  },
);
