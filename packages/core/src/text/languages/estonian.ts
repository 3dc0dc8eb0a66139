import type { LanguagePack } from "./pack.ts";

export const ESTONIAN: LanguagePack = {
  lang: "et",
  abbreviations: [
    ["tn", "tanav"],
    ["mnt", "maantee"],
    ["pst", "puiestee"],
  ],
  ways: ["tanav", "tee", "maantee", "puiestee", "plats", "valjak", "poik"],
  small: ["ja"],
  before: {
    house: ["nr"],
    unit: ["krt", "korter"],
    floor: ["korrus"],
    box: ["postkast"],
    telephone: ["tel", "telefon", "mob"],
  },
  after: { floor: ["korrus"] },
  partNames: {
    street: "tanav",
    house: "majanumber, maja number",
    town: "linn, asula",
    county: "maakond",
    postcode: "postiindeks, sihtnumber",
    country: "riik",
    line: "aadress",
  },
};
