import { describeLanguage } from "../../../testing/language.ts";
import { LITHUANIAN } from "./lithuanian.ts";

describeLanguage(LITHUANIAN, {
  short: [
    ["g", "gatve"],
    ["pr", "prospektas"],
  ],
  small: ["prie"],
  numbers: [
    ["bt 3", "unit"],
    ["nr 12", "house"],
    ["2 aukstas", "floor"],
  ],
  ways: ["gatve", "aleja"],
});
