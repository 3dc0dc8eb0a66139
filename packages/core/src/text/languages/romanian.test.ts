import { describeLanguage } from "../../../testing/language.ts";
import { ROMANIAN } from "./romanian.ts";

describeLanguage(ROMANIAN, {
  short: [
    ["str", "strada"],
    ["bd", "bulevardul"],
  ],
  small: ["din", "la"],
  numbers: [
    ["ap 3", "unit"],
    ["nr 12", "house"],
    ["et 2", "floor"],
  ],
  ways: ["strada", "piata"],
});
