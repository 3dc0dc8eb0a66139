import { describeLanguage } from "../../../testing/language.ts";
import { CZECH } from "./czech.ts";

describeLanguage(CZECH, {
  short: [
    ["ul", "ulice"],
    ["nam", "namesti"],
    ["tr", "trida"],
  ],
  small: ["pod", "nad"],
  numbers: [
    ["byt 3", "unit"],
    ["cislo 12", "house"],
    ["patro 2", "floor"],
  ],
  ways: ["namesti", "trida"],
});
