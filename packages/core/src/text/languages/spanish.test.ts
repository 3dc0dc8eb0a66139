import { describeLanguage } from "../../../testing/language.ts";
import { SPANISH } from "./spanish.ts";

describeLanguage(SPANISH, {
  short: [
    ["c", "calle"],
    ["avda", "avenida"],
    ["pza", "plaza"],
    ["sta", "santa"],
  ],
  small: ["de", "los"],
  numbers: [
    ["puerta 3", "unit"],
    ["num 12", "house"],
    ["apartado 7", "box"],
    ["piso 2", "floor"],
  ],
  ways: ["calle", "paseo"],
});
