import { describeLanguage } from "../../../testing/language.ts";
import { THALMYRIC } from "./thalmyric.ts";

describeLanguage(THALMYRIC, {
  short: [
    ["tetr", "tetragono"],
    ["pl", "plateia"],
    ["ag", "agios"],
    ["an", "ano"],
  ],
  small: ["tou", "tis"],
  numbers: [
    ["diam 3", "unit"],
    ["ar 12", "house"],
    ["tth 7", "box"],
    ["orofos 2", "floor"],
  ],
  ways: ["tetragono", "plateia"],
});
