import { describeLanguage } from "../../../testing/language.ts";
import { ESTONIAN } from "./estonian.ts";

describeLanguage(ESTONIAN, {
  short: [
    ["tn", "tanav"],
    ["mnt", "maantee"],
  ],
  small: ["ja"],
  numbers: [
    ["krt 3", "unit"],
    ["nr 12", "house"],
    ["2 korrus", "floor"],
  ],
  ways: ["tanav", "puiestee"],
});
