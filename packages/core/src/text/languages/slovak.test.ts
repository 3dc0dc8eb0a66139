import { describeLanguage } from "../../../testing/language.ts";
import { SLOVAK } from "./slovak.ts";

describeLanguage(SLOVAK, {
  short: [
    ["ul", "ulica"],
    ["nam", "namestie"],
  ],
  small: ["pod", "pri"],
  numbers: [
    ["byt 3", "unit"],
    ["cislo 12", "house"],
    ["2 poschodie", "floor"],
  ],
  ways: ["namestie", "trieda"],
});
