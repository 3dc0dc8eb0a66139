import type { LanguagePack } from "./pack.ts";

export const INDONESIAN: LanguagePack = {
  lang: "id",
  abbreviations: [
    ["jl", "jalan"],
    ["jln", "jalan"],
    ["gg", "gang"],
  ],
  ways: ["jalan", "gang"],
  small: ["dan", "di"],
  before: {
    house: ["no", "nomor"],
    unit: ["unit", "kamar"],
    floor: ["lantai", "lt"],
    box: ["kotak"],
    telephone: ["telp", "telepon", "hp"],
  },
};
