import { describeLanguage } from "../../../testing/language.ts";
import { SLOVENE } from "./slovene.ts";

describeLanguage(SLOVENE, {
  short: [
    ["ul", "ulica"],
    ["c", "cesta"],
  ],
  small: ["pri", "ob"],
  numbers: [
    ["stanovanje 3", "unit"],
    ["stevilka 12", "house"],
    ["2 nadstropje", "floor"],
    ["predal 7", "box"],
  ],
  ways: ["ulica", "trg"],
});
