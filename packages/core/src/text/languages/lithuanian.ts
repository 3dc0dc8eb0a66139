import type { LanguagePack } from "./pack.ts";

export const LITHUANIAN: LanguagePack = {
  lang: "lt",
  abbreviations: [
    ["g", "gatve"],
    ["pr", "prospektas"],
    ["al", "aleja"],
    ["a", "aikste"],
    ["pl", "plentas"],
    ["skg", "skersgatvis"],
  ],
  ways: ["gatve", "prospektas", "aleja", "aikste", "plentas", "skersgatvis", "takas", "kelias"],
  small: ["ir", "prie"],
  before: {
    house: ["nr", "numeris"],
    unit: ["bt", "butas"],
    floor: ["aukstas"],
    box: ["dezute"],
    telephone: ["tel", "telefonas", "mob"],
  },
  after: { floor: ["aukstas"] },
  partNames: {
    street: "gatve",
    house: "namo numeris",
    town: "miestas, gyvenviete",
    postcode: "pasto kodas",
    country: "salis",
    line: "adresas",
  },
};
