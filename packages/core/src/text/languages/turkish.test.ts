import { describeLanguage } from "../../../testing/language.ts";
import { TURKISH } from "./turkish.ts";

describeLanguage(TURKISH, {
  short: [
    ["cad", "caddesi"],
    ["sok", "sokak"],
  ],
  small: ["ve"],
  numbers: [
    ["daire 3", "unit"],
    ["no 12", "house"],
    ["kat 2", "floor"],
  ],
  ways: ["caddesi", "sokak"],
});
