import { describeLanguage } from "../../../testing/language.ts";
import { FRENCH } from "./french.ts";

describeLanguage(FRENCH, {
  short: [
    ["bd", "boulevard"],
    ["av", "avenue"],
    ["imp", "impasse"],
    ["ste", "sainte"],
    ["1er", "premier"],
  ],
  small: ["de", "la", "l"],
  numbers: [
    ["appt 3", "unit"],
    ["numero 12", "house"],
    ["bp 7", "box"],
    ["etage 2", "floor"],
  ],
  ways: ["rue", "chemin"],
});
