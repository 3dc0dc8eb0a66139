import { describeLanguage } from "../../../testing/language.ts";
import { DUTCH } from "./dutch.ts";

describeLanguage(DUTCH, {
  short: [
    ["str", "straat"],
    ["ln", "laan"],
    ["st", "sint"],
    ["pl", "plein"],
  ],
  small: ["van", "het"],
  numbers: [
    ["appartement 3", "unit"],
    ["nr 12", "house"],
    ["postbus 7", "box"],
    ["verdieping 2", "floor"],
  ],
  ways: ["gracht", "molenstraat"],
});
