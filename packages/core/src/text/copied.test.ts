import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { withoutLabels } from "./copied.ts";
import { tokenize } from "./tokens.ts";

const wordsOf = (text: string) => tokenize(withoutLabels(text)).map(({ text }) => text);

describe("a text that was copied from elsewhere", () => {
  it.each([
    ["Address: Mill Lane 12, Tidewell", "mill lane 12 tidewell"],
    ["Adresse: Lindenweg 4 b", "lindenweg 4 b"],
    ["Street: 12th Street No: 13 City: Green Heights ZIP: 91026", "12th street 13 green heights 91026"],
    ["Zip Code: 12345, House Number: 4", "12345 4"],
    ["Straße: Lindenweg\nHausnummer: 4\nPLZ / Ort: 10087 Birkenau", "lindenweg 4 plz 10087 birkenau"],
    ['{"street":"Pond Road","number":"15","city":"Oak Grove"}', "pond road 15 oak grove"],
    ["<p>Mill Lane <b>12</b><br/>Tidewell</p>", "mill lane 12 tidewell"],
    ["住所: 桜町 12", "桜町 12"],
    ["Lindenweg 4, 10087 Birkenau, Lindenweg 4, 10087 Birkenau", "lindenweg 4 10087 birkenau"],
    // what is no label stays
    ["Tidewell: Mill Lane 12", "tidewell mill lane 12"],
    ["Tidewell Street: 12", "tidewell street 12"],
    ["Oak Grove Road, Oak Grove Road", "oak grove road oak grove road"],
    ["a < b: c", "a b c"],
  ])("%j is read as what it says", (text, expected) => {
    expect(wordsOf(text).join(" ")).toBe(expected);
  });

  it("has a slash with room around it for a separator before a postcode, and in a house's number nowhere else", () => {
    const parted = (text: string) =>
      tokenize(withoutLabels(text)).map(({ text, isParted }) => (isParted ? `, ${text}` : text));
    expect(parted("Lindenweg 4b / 10087 Birkenau")).toEqual(["lindenweg", "4b", ", 10087", "birkenau"]);
    expect(parted("ulica Polna 3/4 / 10-056 Lipowo").slice(2)).toEqual(["3/4", ", 10-056", "lipowo"]);
    expect(parted("Lindenweg 12 / 3")).toEqual(["lindenweg", "12/3"]);
  });

  it("keeps its length, and every character that stays its place", () => {
    const piece = fc.oneof(
      fc.constantFrom("Street: ", "City:", "<br>", " / ", "12", ", ", ":", "<", '"', "Ort: ", "Mill Lane "),
      fc.string({ maxLength: 8 }),
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 14 }), (pieces) => {
        const text = pieces.join("");
        const bare = withoutLabels(text);
        expect(bare).toHaveLength(text.length);
        for (let i = 0; i < text.length; i++) if (bare[i] !== text[i]) expect(", ").toContain(bare[i]);
      }),
    );
  });
});
