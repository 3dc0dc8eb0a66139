import { expect, it } from "vitest";
import { nameKey } from "./name-key.ts";

it.each([
  ["Iris Edit", "  iris   EDIT "],
  ["Ｉｒｉｓ", "iris"],
  ["ÅSA", "a\u030asa"],
  ["Strauß", "strauß"],
])("%s is %s", (one, other) => {
  expect(nameKey(one)).toBe(nameKey(other));
});

it.each([
  ["İris edit", "Iris edit"],
  ["Ivo", "Iva"],
])("%s is not %s, at the door as in the list", (one, other) => {
  expect(nameKey(one)).not.toBe(nameKey(other));
});
