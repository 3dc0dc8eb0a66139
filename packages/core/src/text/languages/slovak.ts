import type { LanguagePack } from "./pack.ts";

export const SLOVAK: LanguagePack = {
  lang: "sk",
  abbreviations: [
    ["ul", "ulica"],
    ["nam", "namestie"],
    ["tr", "trieda"],
    ["nabr", "nabrezie"],
    ["gen", "generala"],
    ["dr", "doktora"],
  ],
  ways: ["ulica", "namestie", "trieda", "nabrezie", "cesta", "aleja"],
  small: ["pod", "nad", "pri", "na"],
  before: {
    house: ["cislo"],
    unit: ["byt"],
    floor: ["poschodie"],
    box: ["priecinok"],
    telephone: ["tel", "telefon", "mobil"],
  },
  after: { floor: ["poschodie"] },
  within: { before: ["bytu", "vchod", "dvere"], after: ["p"], alone: ["prizemie", "suteren", "podkrovie"] },
  partNames: {
    street: "ulica",
    house: "supisne cislo, orientacne cislo, cislo domu",
    town: "mesto, obec",
    county: "okres",
    postcode: "psc",
    country: "krajina",
    line: "adresa",
  },
};
