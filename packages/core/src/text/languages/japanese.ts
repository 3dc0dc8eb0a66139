import type { LanguagePack } from "./pack.ts";

/** Japanese: what is behind the numbers of a quarter, a block and a house. */
export const JAPANESE: LanguagePack = {
  lang: "ja",
  abbreviations: [],
  ways: ["通り", "大通り", "街道"],
  small: ["の", "大字", "字"],
  before: { floor: ["地下"], telephone: ["電話", "tel"], box: ["私書箱"] },
  after: { house: ["番", "番地", "号"], unit: ["号室"], floor: ["階"] },
  partNames: {
    house: "番地",
    building: "建物名",
    town: "市区町村, 市町村",
    region: "都道府県",
    postcode: "郵便番号",
    country: "国",
    line: "住所",
  },
};
