import type { LanguagePack } from "./pack.ts";

/** Folding takes syllables apart into their letters. */
const folded = (...words: string[]) => words.map((word) => word.normalize("NFD"));

/** Korean: roads by their size, and what is behind the numbers of a building's parts. */
export const KOREAN: LanguagePack = {
  lang: "ko",
  abbreviations: [],
  ways: folded("대로", "로", "길"),
  small: [],
  before: { floor: folded("지하"), box: folded("사서함"), telephone: folded("전화") },
  after: { house: folded("번지"), unit: folded("호", "동"), floor: folded("층") },
  partNames: {
    street: "도로명",
    house: "건물번호",
    building: "건물명",
    district: "읍면동",
    town: "시군구",
    region: "시도",
    postcode: "우편번호",
    country: "국가",
    line: "주소, 도로명주소",
  },
};
