import { describeLanguage } from "../../../testing/language.ts";
import { ITALIAN } from "./italian.ts";

describeLanguage(ITALIAN, {
  short: [
    ["cso", "corso"],
    ["pza", "piazza"],
    ["vle", "viale"],
    ["v", "via"],
  ],
  small: ["della", "dei"],
  numbers: [
    ["interno 3", "unit"],
    ["civico 12", "house"],
    ["casella 7", "box"],
    ["piano 2", "floor"],
  ],
  ways: ["via", "vicolo"],
});
