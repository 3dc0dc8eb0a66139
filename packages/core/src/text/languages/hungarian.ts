import type { LanguagePack } from "./pack.ts";

export const HUNGARIAN: LanguagePack = {
  lang: "hu",
  abbreviations: [
    ["u", "utca"],
    ["krt", "korut"],
    ["rkp", "rakpart"],
    ["stny", "setany"],
    ["sgt", "sugarut"],
  ],
  ways: ["utca", "ut", "ter", "korut", "koz", "fasor", "setany", "rakpart", "sor", "dulo", "sugarut"],
  small: ["a", "az", "es"],
  before: {
    house: ["hsz", "szam"],
    unit: ["ajto", "lakas"],
    floor: ["emelet", "em"],
    box: ["pf", "postafiok"],
    telephone: ["tel", "telefon", "mobil"],
  },
  after: { house: ["szam"], unit: ["ajto"], floor: ["emelet", "em"] },
  within: {
    before: ["lh", "lepcsohaz"],
    alone: ["fszt", "fsz", "foldszint", "magasfoldszint", "pince", "tetoter", "felemelet"],
  },
  partNames: {
    street: "utca, kozterulet neve",
    house: "hazszam",
    town: "telepules, varos",
    district: "varosresz",
    county: "varmegye",
    postcode: "iranyitoszam",
    country: "orszag",
    line: "cim",
  },
};
