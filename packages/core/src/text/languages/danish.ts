import type { LanguagePack } from "./pack.ts";

export const DANISH: LanguagePack = {
  lang: "da",
  abbreviations: [
    ["gd", "gade"],
    ["vj", "vej"],
    ["pl", "plads"],
    ["st", "store"],
    ["ll", "lille"],
    ["ndr", "nordre"],
    ["sdr", "sondre"],
    ["kgs", "kongens"],
    ["skt", "sankt"],
    ["str", "straede"],
  ],
  ways: ["gade", "gaden", "vej", "vejen", "alle", "plads", "torv", "torvet", "straede", "stien", "bakken", "parken"],
  small: ["i", "pa", "ved", "af", "og", "den", "det"],
  before: {
    house: ["nr", "nummer"],
    unit: ["lejl", "lejlighed", "dor"],
    floor: ["sal", "etage"],
    box: ["postboks", "boks"],
    telephone: ["tlf", "telefon", "mobil"],
  },
  after: { floor: ["sal", "etage"] },
  within: {
    after: ["th", "tv", "mf"],
    alone: ["st", "stuen", "kl", "kaelder", "kld", "baghuset", "forhuset", "th", "tv", "mf"],
  },
  partNames: {
    street: "vej, vejnavn, gade",
    house: "husnummer, husnr",
    unit: "lejlighed",
    floor: "etage",
    building: "bygning",
    district: "bydel",
    town: "by, kommune",
    county: "amt",
    postcode: "postnummer, postnr",
    country: "land",
    line: "adresse, vejnavn og nummer",
  },
};
