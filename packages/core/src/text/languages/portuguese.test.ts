import { describeLanguage } from "../../../testing/language.ts";
import { PORTUGUESE } from "./portuguese.ts";

describeLanguage(PORTUGUESE, {
  short: [
    ["r", "rua"],
    ["tv", "travessa"],
    ["pc", "praca"],
    ["sto", "santo"],
  ],
  small: ["da", "dos"],
  numbers: [
    ["sala 3", "unit"],
    ["numero 12", "house"],
    ["apartado 7", "box"],
    ["andar 2", "floor"],
  ],
  ways: ["rua", "estrada"],
});
