import type { LanguagePack } from "./pack.ts";

export const LATVIAN: LanguagePack = {
  lang: "lv",
  abbreviations: [
    ["i", "iela"],
    ["pr", "prospekts"],
    ["bulv", "bulvaris"],
    ["lauk", "laukums"],
  ],
  ways: ["iela", "prospekts", "bulvaris", "laukums", "gatve", "cels", "soseja", "aleja"],
  small: ["un", "pie"],
  before: {
    house: ["nr"],
    unit: ["dz", "dzivoklis"],
    floor: ["stavs"],
    box: ["kastite"],
    telephone: ["tel", "talrunis", "mob"],
  },
  after: { floor: ["stavs"] },
  within: { alone: ["pagrabs"] },
  partNames: {
    street: "iela",
    house: "majas numurs",
    town: "pilseta",
    county: "novads",
    postcode: "pasta indekss",
    country: "valsts",
    line: "adrese",
  },
};
