import { describeLanguage } from "../../../testing/language.ts";
import { FINNISH } from "./finnish.ts";

describeLanguage(FINNISH, {
  short: [
    ["k", "katu"],
    ["kj", "kuja"],
  ],
  small: ["ja"],
  numbers: [
    ["as 3", "unit"],
    ["nro 12", "house"],
    ["2 krs", "floor"],
    ["pl 7", "box"],
  ],
  ways: ["katu", "koivukuja"],
});
