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
  partNames: {
    street: "jalan, nama jalan",
    house: "nomor rumah",
    district: "kecamatan, kelurahan",
    town: "kota, kabupaten",
    region: "provinsi",
    postcode: "kode pos",
    country: "negara",
    line: "alamat",
  },
};
