import { describe, expect, it } from "vitest";
import { LANGUAGES, lexiconOf, tokenize } from "../text/index.ts";
import { type Role, readWithin } from "./within.ts";

const lexicon = lexiconOf(LANGUAGES.map(({ lang }) => lang));

/** Words that are of a house's inside, those that only lead up to it in brackets. */
function within(text: string): string {
  const words = tokenize(text);
  const roles: Role[] = words.map(() => ({}));
  readWithin(words, roles, lexicon);
  return words.flatMap(({ text }, i) => (roles[i].role ? [roles[i].isLabel ? `(${text})` : text] : [])).join(" ");
}

describe("what of a house is meant", () => {
  it.each([
    ["Lindenweg 9 Hinterhaus", "hinterhaus"],
    ["Lindenweg 9 EG links", "eg (links)"],
    ["Lindenweg 9 Haus 3", "(haus) 3"],
    ["Haus 3, Lindenweg 9", "(haus) 3"],
    ["Calle Mayor, 17 bajo A", "(bajo) a"],
    ["Calle Mayor 17 3º B", "3o b"],
    ["Via Roma 14 scala B int. 4", "(scala) (b) (int) 4"],
    ["20 Mill Drive Rear", "rear"],
    ["20 Rue de la Cour fond de cour", "fond (de) (cour)"],
    ["12 Castle Road First Floor Flat", "first (floor) (flat)"],
    ["Havnegade 5 st tv", "(st) tv"],
  ])("%s: %s", (text, expected) => {
    expect(within(text)).toBe(expected);
  });

  it.each([
    // of a name, since the number is before it
    "17 Calle Principal",
    "12 Mill St",
    "5 Rua da Frente",
    // nothing is before it
    "Rear Street 20",
    "Bajo 17",
    "Lindenweg links",
    "Hinterhaus",
    "12 Rear",
  ])("is nothing in %s", (text) => {
    expect(within(text)).toBe("");
  });
});
