import type { LanguagePack } from "./pack.ts";

export const GREEK: LanguagePack = {
  lang: "el",
  abbreviations: [
    ["od", "odos"],
    ["l", "leoforos"],
    ["leof", "leoforos"],
    ["pl", "plateia"],
    ["ag", "agios"],
    ["ag", "agia"],
    ["ag", "agiou"],
    ["ag", "agias"],
    ["an", "ano"],
    ["k", "kato"],
    ["n", "nea"],
    ["n", "neos"],
    ["par", "parodos"],
    ["ep", "eparchiaki"],
    ["str", "stratigou"],
    ["vas", "vasileos"],
    ["vas", "vasilissis"],
    ["eth", "ethniki"],
    ["tetr", "tetragono"],
  ],
  ways: ["odos", "leoforos", "plateia", "parodos"],
  small: ["o", "i", "to", "tou", "tis", "ton", "ta", "kai", "stin", "sto"],
  before: {
    house: ["ar", "arithmos", "no"],
    unit: ["diam", "diamerisma"],
    floor: ["orofos", "or"],
    box: ["tth", "thyrida"],
  },
  after: { floor: ["orofos"] },
  ordinals: [
    ["1i", "proti"],
    ["1os", "protos"],
  ],
};
