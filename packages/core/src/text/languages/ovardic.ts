import type { LanguagePack } from "./pack.ts";

export const OVARDIC: LanguagePack = {
  lang: "qov",
  abbreviations: [
    ["gr", "grand"],
    ["vg", "veg"],
    ["vg", "vegen"],
    ["st", "straede"],
    ["str", "straede"],
    ["tg", "torg"],
    ["k", "kust"],
    ["sk", "sankt"],
    ["n", "nord"],
    ["s", "sud"],
    ["o", "ost"],
    ["v", "vest"],
    ["st", "stor"],
    ["l", "lill"],
  ],
  ways: ["veg", "vegen", "straede", "grand", "gatan", "torg", "alle", "brygga", "bakke"],
  small: ["i", "av", "og", "der", "det", "pa"],
  before: { house: ["nr", "no"], unit: ["leil", "leilig", "lght"], floor: ["etg", "hoj"], box: ["pbox"] },
  after: { floor: ["etg"] },
};
