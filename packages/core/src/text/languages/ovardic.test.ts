import { describeLanguage } from "../../../testing/language.ts";
import { OVARDIC } from "./ovardic.ts";

describeLanguage(OVARDIC, {
  short: [
    ["vg", "vegen"],
    ["tg", "torg"],
    ["gr", "grand"],
    ["str", "straede"],
  ],
  small: ["av", "det"],
  numbers: [
    ["leil 3", "unit"],
    ["nr 12", "house"],
    ["pbox 7", "box"],
    ["etg 2", "floor"],
  ],
  ways: ["veg", "brannvegen"],
});
