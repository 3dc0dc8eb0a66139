import { describeLanguage } from "../../../testing/language.ts";
import { POLISH } from "./polish.ts";

describeLanguage(POLISH, {
  short: [
    ["ul", "ulica"],
    ["al", "aleja"],
    ["os", "osiedle"],
    ["sw", "swietego"],
  ],
  small: ["na", "przy"],
  numbers: [
    ["m 3", "unit"],
    ["nr 12", "house"],
    ["skrytka 7", "box"],
    ["pietro 2", "floor"],
  ],
  ways: ["ulica", "rynek"],
});
