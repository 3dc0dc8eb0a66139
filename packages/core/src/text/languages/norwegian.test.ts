import { describeLanguage } from "../../../testing/language.ts";
import { NORWEGIAN } from "./norwegian.ts";

describeLanguage(NORWEGIAN, {
  short: [
    ["gt", "gate"],
    ["vn", "veien"],
  ],
  small: ["pa", "ved"],
  numbers: [
    ["leil 3", "unit"],
    ["nr 12", "house"],
    ["2 etg", "floor"],
    ["postboks 7", "box"],
  ],
  ways: ["gate", "storgata"],
});
