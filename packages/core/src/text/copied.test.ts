import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addressIn } from "./copied.ts";
import { tokenize } from "./tokens.ts";

const isBlank = (character: string) => ", \n\u2060".includes(character);
/** True for a place in bytes as an address of the web has them. */
const isDecoded = (text: string, at: number) =>
  [...text.matchAll(/(?:%[\da-f]{2})+|[Â-Å].|[á-ã]../gi)].some(
    ({ index, 0: bytes }) => index <= at && at < index + bytes.length,
  );
const wordsOf = (text: string) => tokenize(addressIn(text)).map(({ text }) => text);

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
    ["street=Pond+Road&number=15&city=Oak%20Grove", "pond road 15 oak grove"],
    ["12%20Pont%20de%20l%27%C3%89glise%2C%20Pr%C3%A9", "12 pont de l eglise pre"],
    ["https://example.org/search?q=4+Lindenstra%C3%9Fe", "4 lindenstrasse"],
    ["https://example.org/12+Pond+Road", "12 pond road"],
    ["Pond Road 15\\nOak Grove", "pond road 15 oak grove"],
    ["3) Pond Road 15", "pond road 15"],
    ["2. 15 Pond Road", "15 pond road"],
    ["Pond Road 15, Oak Grove (51.50142, -0.14189)", "pond road 15 oak grove"],
    ["Where is 15 Pond Road?", "15 pond road"],
    ["Lin\u00ADden\u2060weg 4", "lindenweg 4"],
    ["LindenstraÃŸe 4, MÃ¼hldorf", "lindenstrasse 4 muhldorf"],
    ["Rue de lâ€™Ã‰glise 4", "rue de l eglise 4"],
    ["KvÄ›tnÃ¡ 16", "kvetna 16"],
    ["Lindenstra?e 4", "lindenstrae 4"],
    ["Ångström Ääkkönen", "angstrom aakkonen"],
    // what is no label, no place of a list and no position stays
    ["2. May Street 15", "2 may street 15"],
    ["Pond Road 15, Oak Grove 51.5, 0.1", "pond road 15 oak grove 51 5 0 1"],
    ["100%25 Pond Road", "100 25 pond road"],
    ["%E9%FF", "e9 ff"],
    ["Tidewell: Mill Lane 12", "tidewell mill lane 12"],
    ["Tidewell Street: 12", "tidewell street 12"],
    ["Oak Grove Road, Oak Grove Road", "oak grove road oak grove road"],
    ["a < b: c", "a b c"],
  ])("%j is read as what it says", (text, expected) => {
    expect(wordsOf(text).join(" ")).toBe(expected);
  });

  it("has a slash with room around it for a separator before a postcode, and in a house's number nowhere else", () => {
    const parted = (text: string) =>
      tokenize(addressIn(text)).map(({ text, isParted }) => (isParted ? `, ${text}` : text));
    expect(parted("Lindenweg 4b / 10087 Birkenau")).toEqual(["lindenweg", "4b", ", 10087", "birkenau"]);
    expect(parted("ulica Polna 3/4 / 10-056 Lipowo").slice(2)).toEqual(["3/4", ", 10-056", "lipowo"]);
    expect(parted("Lindenweg 12 / 3")).toEqual(["lindenweg", "12/3"]);
  });

  it("keeps its length, and every character that stays its place", () => {
    const piece = fc.oneof(
      fc.constantFrom(
        "Street: ",
        "City:",
        "%C3%A9",
        "%20",
        "https://a.example/?q=",
        "&zip=",
        "Where is ",
        "\\n",
        "3) ",
        "Ã¤",
        "a?b",
        " (51.50142, -0.14189)",
        "<br>",
        " / ",
        "12",
        ", ",
        ":",
        "<",
        '"',
        "Ort: ",
        "Mill Lane ",
      ),
      fc.string({ maxLength: 8 }),
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 14 }), (pieces) => {
        const text = pieces.join("");
        const bare = addressIn(text);
        expect(bare).toHaveLength(text.length);
        for (let i = 0; i < text.length; i++)
          if (bare[i] !== text[i]) expect(isBlank(bare[i]) || isDecoded(text, i)).toBe(true);
      }),
    );
  });
});
