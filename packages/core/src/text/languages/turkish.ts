import type { LanguagePack } from "./pack.ts";

export const TURKISH: LanguagePack = {
  lang: "tr",
  abbreviations: [
    ["cad", "caddesi"],
    ["cd", "caddesi"],
    ["sk", "sokak"],
    ["sok", "sokak"],
    ["sok", "sokagi"],
    ["blv", "bulvari"],
    ["bul", "bulvari"],
    ["mah", "mahallesi"],
    ["mh", "mahallesi"],
    ["apt", "apartmani"],
    ["meyd", "meydani"],
  ],
  ways: ["caddesi", "cadde", "sokak", "sokagi", "bulvari", "bulvar", "meydani", "yolu", "cikmazi"],
  small: ["ve"],
  before: {
    house: ["no", "numara"],
    unit: ["daire"],
    floor: ["kat"],
    box: ["pk"],
    telephone: ["tel", "telefon", "cep"],
  },
  after: { floor: ["kat"] },
  partNames: {
    street: "sokak, cadde",
    house: "kapi no, bina no, dis kapi no",
    unit: "daire, daire no, ic kapi no",
    district: "mahalle",
    county: "ilce",
    town: "sehir",
    postcode: "posta kodu",
    country: "ulke",
    line: "adres",
  },
};
