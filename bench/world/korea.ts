import type { Ways } from "./countries.ts";

/** Road addresses: the road's name and the building's number, behind region and town. */
export const KOREA: Ways = {
  code: "KR",
  lang: "ko",
  names: ["대한민국", "South Korea"],
  box: [127.2, 35.6, 128.8, 37.4],
  regions: [
    ["가람도", "가람"],
    ["한솔도", "한솔"],
  ],
  towns: { beginnings: "한빛 새벽 푸른 맑은 해돋 달빛 구름 가온".split(" "), ends: ["시", "군"] },
  streets: {
    words: "장미 은행 소나무 단풍 별빛 시장 학교 공원 강변 매화 동백 들꽃 느티나무 솔밭 호수 언덕 무지개 은하수".split(
      " ",
    ),
    kinds: [
      ["로", "로"],
      ["길", "길"],
      ["대로", "대로"],
    ],
    kind: "glued",
  },
  number: "after",
  suffixes: ["-1", "-2", "-12"],
  postcode: (town, random) => `${String(10 + ((town * 37) % 53))}${String(random.integer(0, 999)).padStart(3, "0")}`,
  loosely: (postcode) => `${postcode.slice(0, 3)}-${postcode.slice(3)}`,
  tail: "{region} {town} {postcode}",
  isBroadestFirst: true,
  units: ["{n}0{n}호", "{n}동 {n}0{n}호"],
  floors: ["{n}층"],
  poBox: "사서함 {n}",
  numberWord: "",
};
