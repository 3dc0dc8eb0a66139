import type { LanguagePack } from "./pack.ts";

export const FINNISH: LanguagePack = {
  lang: "fi",
  abbreviations: [
    ["k", "katu"],
    ["t", "tie"],
    ["kj", "kuja"],
    ["pk", "polku"],
    ["tr", "tori"],
    ["auk", "aukio"],
  ],
  ways: ["katu", "tie", "kuja", "polku", "tori", "aukio", "vayla", "kaari", "raitti", "rinne", "ranta"],
  small: ["ja"],
  before: {
    house: ["nro", "numero"],
    unit: ["as", "asunto", "huoneisto"],
    floor: ["kerros", "krs"],
    box: ["pl", "postilokero"],
    telephone: ["puh", "puhelin"],
  },
  after: { floor: ["kerros", "krs"] },
  within: { before: ["rappu", "porras", "rp", "h"], alone: ["katutaso", "kellari"] },
  partNames: {
    street: "katu, kadunnimi",
    house: "talonumero",
    unit: "asunto",
    floor: "kerros",
    building: "rakennus",
    district: "kaupunginosa",
    town: "kaupunki, postitoimipaikka, kunta",
    region: "maakunta",
    postcode: "postinumero",
    country: "maa",
    line: "osoite, katuosoite, lahiosoite",
  },
};
