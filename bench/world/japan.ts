import type { Ways } from "./countries.ts";

const LATIN: Readonly<Record<string, string>> = {
  青葉山県: "Aobayama-ken",
  桜川市: "Sakuragawa-shi",
  松原市: "Matsubara-shi",
  梅田市: "Umeda-shi",
  竹林市: "Takebayashi-shi",
  森下市: "Morishita-shi",
  白石市: "Shiraishi-shi",
  川端市: "Kawabata-shi",
  山手市: "Yamate-shi",
  桜町: "Sakuramachi",
  本町: "Honcho",
  緑町: "Midoricho",
  栄町: "Sakaecho",
  若葉町: "Wakabacho",
  港町: "Minatomachi",
  朝日町: "Asahicho",
  東台: "Higashidai",
};
const CHOME = ["1丁目", "2丁目", "3丁目"];
const TOWNS = ["桜川", "松原", "梅田", "竹林", "森下", "白石", "川端", "山手"];
const QUARTERS = ["桜町", "本町", "緑町", "栄町", "若葉町", "港町", "朝日町", "東台"];

/** Names in Latin letters by the name in the own script; a quarter with its number as "Sakuramachi 1-chome". */
const latin = {
  ...LATIN,
  ...Object.fromEntries(
    QUARTERS.flatMap((quarter) => CHOME.map((chome) => [quarter + chome, `${LATIN[quarter]} ${chome[0]}-chome`])),
  ),
};

/** Quarters with numbers in the place of streets; block and house are one number: 2-3. */
export const JAPAN: Ways = {
  code: "JP",
  lang: "ja",
  names: ["日本", "Japan"],
  box: [136, 35.2, 138.5, 36.6],
  regions: [["青葉山県", "AY"]],
  towns: { beginnings: TOWNS, ends: ["市"] },
  streets: { words: QUARTERS, kinds: [["1丁目"], ["2丁目"], ["3丁目"]], kind: "glued" },
  number: "after",
  suffixes: ["-3", "-12", "-1"],
  postcode: (town, random) => `${100 + town}-${String(random.integer(0, 9999)).padStart(4, "0")}`,
  loosely: (postcode) => postcode.replace("-", ""),
  tail: "{postcode} {town}",
  units: ["{n}0{n}号室"],
  floors: ["{n}階"],
  poBox: "私書箱 {n}",
  numberWord: "",
  latin,
};
