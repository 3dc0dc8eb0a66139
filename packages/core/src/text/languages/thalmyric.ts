import type { LanguagePack } from "./pack.ts";

export const THALMYRIC: LanguagePack = {
  lang: "qth",
  abbreviations: [
    ["tetr", "tetragono"],
    ["pl", "plateia"],
    ["ag", "agios"],
    ["ag", "agia"],
    ["an", "ano"],
    ["k", "kato"],
    ["par", "parodos"],
    ["l", "leoforos"],
    ["n", "nea"],
  ],
  ways: ["tetragono", "odos", "plateia"],
  small: ["o", "i", "to", "tou", "tis", "ton"],
  before: { house: ["ar", "no"], unit: ["diam"], floor: ["orofos"], box: ["tth"] },
  after: { floor: ["orofos"] },
};
