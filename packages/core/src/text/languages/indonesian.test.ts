import { describeLanguage } from "../../../testing/language.ts";
import { INDONESIAN } from "./indonesian.ts";

describeLanguage(INDONESIAN, {
  short: [
    ["jl", "jalan"],
    ["gg", "gang"],
  ],
  small: ["dan"],
  numbers: [
    ["unit 3", "unit"],
    ["no 12", "house"],
    ["lantai 2", "floor"],
  ],
  ways: ["jalan", "gang"],
});
