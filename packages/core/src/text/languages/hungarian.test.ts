import { describeLanguage } from "../../../testing/language.ts";
import { HUNGARIAN } from "./hungarian.ts";

describeLanguage(HUNGARIAN, {
  short: [
    ["u", "utca"],
    ["krt", "korut"],
  ],
  small: ["az", "es"],
  numbers: [
    ["ajto 3", "unit"],
    ["12 szam", "house"],
    ["2 em", "floor"],
    ["pf 7", "box"],
  ],
  ways: ["utca", "ter"],
});
