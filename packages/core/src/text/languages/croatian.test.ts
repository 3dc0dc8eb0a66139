import { describeLanguage } from "../../../testing/language.ts";
import { CROATIAN } from "./croatian.ts";

describeLanguage(CROATIAN, {
  short: [
    ["ul", "ulica"],
    ["nas", "naselje"],
  ],
  small: ["kod", "pod"],
  numbers: [
    ["stan 3", "unit"],
    ["broj 12", "house"],
    ["2 kat", "floor"],
    ["pretinac 7", "box"],
  ],
  ways: ["ulica", "trg"],
});
