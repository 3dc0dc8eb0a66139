import type { LanguagePack } from "./pack.ts";

export const CROATIAN: LanguagePack = {
  lang: "hr",
  abbreviations: [
    ["ul", "ulica"],
    ["c", "cesta"],
    ["nas", "naselje"],
    ["sv", "sveti"],
    ["bul", "bulevar"],
  ],
  ways: ["ulica", "trg", "cesta", "put", "setaliste", "naselje", "obala", "prilaz", "avenija", "bulevar", "odvojak"],
  small: ["na", "u", "kod", "pod", "i"],
  before: {
    house: ["br", "broj", "kbr"],
    unit: ["stan"],
    floor: ["kat"],
    box: ["pretinac"],
    telephone: ["tel", "telefon", "mob", "mobitel"],
  },
  after: { floor: ["kat"] },
  within: { before: ["ulaz"], alone: ["prizemlje", "potkrovlje", "suteren"] },
  partNames: {
    street: "ulica",
    house: "kucni broj",
    town: "naselje, mjesto",
    county: "zupanija",
    postcode: "postanski broj",
    country: "drzava",
    line: "adresa",
  },
};
