import { describeLanguage } from "../../../testing/language.ts";
import { GERMAN } from "./german.ts";

describeLanguage(GERMAN, {
  short: [
    ["str", "strasse"],
    ["pl", "platz"],
    ["st", "sankt"],
    ["bhf", "bahnhof"],
  ],
  small: ["der", "am"],
  numbers: [
    ["wohnung 3", "unit"],
    ["nr 12", "house"],
    ["postfach 7", "box"],
    ["stock 2", "floor"],
  ],
  ways: ["gasse", "lindenstrasse"],
});
