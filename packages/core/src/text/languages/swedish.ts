import type { LanguagePack } from "./pack.ts";

export const SWEDISH: LanguagePack = {
  lang: "sv",
  abbreviations: [
    ["g", "gatan"],
    ["g", "gata"],
    ["v", "vagen"],
    ["v", "vag"],
    ["pl", "plan"],
    ["pl", "plats"],
    ["t", "torg"],
    ["st", "stora"],
    ["l", "lilla"],
    ["n", "norra"],
    ["s", "sodra"],
    ["o", "ostra"],
    ["v", "vastra"],
    ["gr", "grand"],
    ["st", "sankt"],
    ["allen", "alle"],
    ["br", "bro"],
  ],
  ways: ["gatan", "vagen", "gata", "vag", "torg", "grand", "allen", "stigen", "backen", "plan"],
  small: ["i", "pa", "vid", "av", "och", "den", "det"],
  before: {
    house: ["nr", "nummer"],
    unit: ["lgh", "lagenhet", "lag"],
    floor: ["van", "vaning", "tr"],
    box: ["box"],
    telephone: ["tel", "telefon", "mobil", "fax"],
  },
  after: { floor: ["tr", "trappor", "van", "vaning"] },
  ordinals: [
    ["1a", "forsta"],
    ["2a", "andra"],
    ["3e", "tredje"],
  ],
};
