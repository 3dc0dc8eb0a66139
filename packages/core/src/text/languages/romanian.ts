import type { LanguagePack } from "./pack.ts";

export const ROMANIAN: LanguagePack = {
  lang: "ro",
  abbreviations: [
    ["str", "strada"],
    ["bd", "bulevardul"],
    ["bdul", "bulevardul"],
    ["al", "aleea"],
    ["sos", "soseaua"],
    ["cal", "calea"],
    ["spl", "splaiul"],
    ["pta", "piata"],
    ["int", "intrarea"],
    ["gen", "general"],
    ["sf", "sfantul"],
    ["dr", "doctor"],
  ],
  ways: ["strada", "bulevardul", "aleea", "soseaua", "calea", "splaiul", "piata", "intrarea", "drumul", "fundatura"],
  small: ["de", "din", "la", "si", "lui", "cel"],
  before: {
    house: ["nr", "numarul"],
    unit: ["ap", "apartament", "apartamentul", "sc", "scara"],
    floor: ["et", "etaj"],
    box: ["casuta"],
    telephone: ["tel", "telefon", "mobil"],
  },
  within: { before: ["bl", "bloc"], alone: ["parter", "demisol", "mansarda"] },
  partNames: {
    street: "strada",
    house: "numar",
    unit: "apartament",
    town: "oras, localitate",
    county: "judet",
    postcode: "cod postal",
    country: "tara",
    line: "adresa",
  },
};
