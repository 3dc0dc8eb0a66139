import { describeLanguage } from "../../../testing/language.ts";
import { ENGLISH } from "./english.ts";

describeLanguage(ENGLISH, {
  short: [
    ["rd", "road"],
    ["st", "street"],
    ["st", "saint"],
    ["blvd", "boulevard"],
    ["3rd", "third"],
  ],
  small: ["the", "of"],
  numbers: [
    ["flat 3", "unit"],
    ["no 12", "house"],
    ["po box 7", "box"],
    ["floor 2", "floor"],
    ["apt 4", "unit"],
  ],
  ways: ["street", "lane"],
});
