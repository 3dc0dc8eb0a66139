import { describeLanguage } from "../../../testing/language.ts";
import { DANISH } from "./danish.ts";

describeLanguage(DANISH, {
  short: [
    ["gd", "gade"],
    ["skt", "sankt"],
  ],
  small: ["pa", "ved"],
  numbers: [
    ["lejl 3", "unit"],
    ["nr 12", "house"],
    ["2 sal", "floor"],
    ["postboks 7", "box"],
  ],
  ways: ["gade", "kongevejen"],
});
