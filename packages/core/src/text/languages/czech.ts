import type { LanguagePack } from "./pack.ts";

export const CZECH: LanguagePack = {
  lang: "cs",
  abbreviations: [
    ["ul", "ulice"],
    ["nam", "namesti"],
    ["tr", "trida"],
    ["nabr", "nabrezi"],
    ["sidl", "sidliste"],
    ["gen", "generala"],
    ["dr", "doktora"],
  ],
  ways: ["ulice", "namesti", "trida", "nabrezi", "sidliste", "cesta", "alej"],
  small: ["pod", "nad"],
  before: {
    house: ["cp", "cislo", "popisne"],
    unit: ["byt"],
    floor: ["patro"],
    box: ["prihradka"],
    telephone: ["tel", "telefon", "mobil"],
  },
  after: { floor: ["patro"] },
  within: { before: ["bytu", "vchod", "dvere", "kancelar"], after: ["p"], alone: ["prizemi", "suteren", "podkrovi"] },
  partNames: {
    street: "ulice",
    house: "cislo popisne, cislo domu, cislo domovni, cislo orientacni",
    unit: "byt",
    floor: "patro",
    building: "budova",
    town: "mesto, obec",
    county: "okres",
    postcode: "psc",
    country: "zeme",
    line: "adresa, ulice a cislo",
  },
};
