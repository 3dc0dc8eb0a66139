import type { LanguagePack } from "./pack.ts";

export const SLOVENE: LanguagePack = {
  lang: "sl",
  abbreviations: [
    ["ul", "ulica"],
    ["c", "cesta"],
  ],
  ways: ["ulica", "cesta", "trg", "pot", "steza", "naselje", "nabrezje", "drevored"],
  small: ["na", "pri", "v", "pod", "ob"],
  before: {
    house: ["stevilka"],
    unit: ["stanovanje"],
    floor: ["nadstropje"],
    box: ["predal"],
    telephone: ["tel", "telefon", "mobil"],
  },
  after: { floor: ["nadstropje"] },
  within: { before: ["vhod"], alone: ["pritlicje", "mansarda", "klet"] },
  partNames: {
    street: "ulica",
    house: "hisna stevilka",
    town: "naselje, obcina",
    postcode: "postna stevilka",
    country: "drzava",
    line: "naslov",
  },
};
