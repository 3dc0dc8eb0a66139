import { describeLanguage } from "../../../testing/language.ts";
import { GREEK } from "./greek.ts";

describeLanguage(GREEK, {
  short: [
    ["leof", "leoforos"],
    ["pl", "plateia"],
    ["ag", "agios"],
    ["od", "odos"],
  ],
  small: ["tou", "tis"],
  numbers: [
    ["diamerisma 3", "unit"],
    ["ar 12", "house"],
    ["thyrida 7", "box"],
    ["orofos 2", "floor"],
  ],
  ways: ["odos", "plateia"],
});
