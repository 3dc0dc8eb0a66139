import { describeLanguage } from "../../../testing/language.ts";
import { LATVIAN } from "./latvian.ts";

describeLanguage(LATVIAN, {
  short: [
    ["i", "iela"],
    ["bulv", "bulvaris"],
  ],
  small: ["pie"],
  numbers: [
    ["dz 3", "unit"],
    ["nr 12", "house"],
    ["2 stavs", "floor"],
  ],
  ways: ["iela", "laukums"],
});
