import { describeLanguage } from "../../../testing/language.ts";
import { SWEDISH } from "./swedish.ts";

describeLanguage(SWEDISH, {
  short: [
    ["g", "gatan"],
    ["v", "vagen"],
    ["st", "stora"],
    ["st", "sankt"],
  ],
  small: ["pa", "vid"],
  numbers: [
    ["lgh 3", "unit"],
    ["nr 12", "house"],
    ["box 7", "box"],
    ["vaning 2", "floor"],
  ],
  ways: ["gatan", "storgatan"],
});
