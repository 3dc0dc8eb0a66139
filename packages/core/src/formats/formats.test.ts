import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { smallWorld } from "../../testing/small-world.ts";
import {
  CSV_COLUMNS,
  csvOf,
  featureOf,
  geojsonSeqOf,
  gpxOf,
  type LookupFeature,
  rowOf,
  vcardOf,
  withoutGuard,
} from "./index.ts";

const engine = smallWorld();
const features: LookupFeature[] = ["12b Harbour Row", "Tidewell Branch Library", "Τετράγωνο 7 4"].map((q) =>
  featureOf(engine.forward({ q }).candidates[0]),
);
const [house] = features;

/** The same record with another name for its line and place. */
const named = (name: string): LookupFeature => ({
  ...house,
  properties: { ...house.properties, line: name, lines: [name], parts: { ...house.properties.parts, place: { name } } },
});

/** Reads a table back the way RFC 4180 says. */
function readCsv(text: string): string[][] {
  const rows: string[][] = [[]];
  for (const [, quoted, plain, end] of text.matchAll(/(?:"((?:[^"]|"")*)"|([^",\r\n]*))(,|\r\n|$)/gy)) {
    rows[rows.length - 1].push(quoted?.replaceAll('""', '"') ?? plain);
    if (end === "\r\n") rows.push([]);
  }
  return rows.slice(0, -1);
}

describe("a cell", () => {
  const written = (text: string) => readCsv(rowOf([text]))[0][0];

  it.each(["=1+1", "@SUM(A1)", "+A1", "-cmd|' /C calc'!A0", "\t=1", "\r=1", "'=1", "-2+3+cmd|' /C calc'!D2"])(
    "that begins like a formula is none: %j",
    (text) => {
      expect(written(text)).toBe(`'${text}`);
    },
  );

  it.each(["-35.184", "+990 1 668 1692", "-", "12-14", "'s-Gravenland", "O'Hara", "+49 (0)30/12", ""])(
    "of numbers and names stays as it is: %j",
    (text) => {
      expect(written(text)).toBe(text);
    },
  );

  it("is the same again when a table of ours is read, whatever it holds", () => {
    const hard = fc.string({ unit: fc.constantFrom("'", "=", "+", "-", "@", "\t", "a", "1", " ", "!") });
    void fc.assert(
      fc.property(fc.oneof(hard, fc.string()), (text) => {
        const [[cell]] = readCsv(rowOf([text, "end"]));
        expect(withoutGuard(cell)).toBe(text);
        expect(/^[=@\t\r]/.test(cell)).toBe(false);
      }),
    );
  });
});

describe("csvOf", () => {
  it("writes a header and a row for each record", () => {
    const [header, first, second] = readCsv(csvOf(features));
    expect(header).toEqual([...CSV_COLUMNS]);
    const value = (row: string[], column: (typeof CSV_COLUMNS)[number]) => row[CSV_COLUMNS.indexOf(column)];
    expect(value(first, "house")).toBe("12B");
    expect(value(first, "lat")).toBe(String(house.properties.at.lat));
    expect(value(first, "line")).toBe("12B Harbour Row, Tidewell, Sallow, HT4 29");
    expect(value(first, "unit")).toBe("");
    expect(value(second, "place")).toBe("Tidewell Branch Library");
  });

  it.each(['a "quoted" name', "a, comma", "two\nlines", "two\r\nlines", '"', ""])("keeps %j whole", (name) => {
    expect(readCsv(csvOf([named(name)]))[1][CSV_COLUMNS.indexOf("place")]).toBe(name);
  });
});

describe("gpxOf", () => {
  it("writes a waypoint for each record", () => {
    const text = gpxOf(features);
    expect(text.match(/<wpt /g)).toHaveLength(3);
    expect(text).toContain(`<wpt lat="${house.properties.at.lat}" lon="${house.properties.at.lon}">`);
    expect(text).toContain("<name>Tidewell Branch Library</name>");
    expect(text).toContain("Τετράγωνο 7");
  });

  it("takes no name for markup", () => {
    const text = gpxOf([named('</name><script>alert("1")</script>&\u0000\ud800')]);
    expect(text).not.toContain("<script>");
    expect(text).toContain("&lt;/name&gt;&lt;script&gt;alert(&quot;1&quot;)&lt;/script&gt;&amp;");
    expect(text).not.toContain("\u0000");
    expect(text.isWellFormed()).toBe(true);
  });
});

describe("vcardOf", () => {
  it("writes a card for each record, with its facts", () => {
    const text = vcardOf(features);
    expect(text.match(/BEGIN:VCARD\r\nVERSION:4.0\r\n/g)).toHaveLength(3);
    expect(text).toContain("ADR:;;12B Harbour Row;Tidewell;Sallow;HT4 29;Lorramere\r\n");
    expect(text).toContain("TEL;VALUE=uri:tel:+99012003000\r\n");
    expect(text).toContain("KIND:org\r\n");
  });

  it("escapes what would end a value, and folds long lines within no character", () => {
    const name = `one; two, three\\ four\nEND:VCARD ${"ø".repeat(120)}`;
    const text = vcardOf([named(name)]);
    expect(text.match(/^END:VCARD/gm)).toHaveLength(1);
    const lines = text.split("\r\n").slice(0, -1);
    for (const line of lines) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
    const unfolded = text.replaceAll("\r\n ", "");
    expect(unfolded).toContain(`FN:one\\; two\\, three\\\\ four\\nEND:VCARD ${"ø".repeat(120)}\r\n`);
  });
});

describe("geojsonSeqOf", () => {
  it("begins each Feature with a record separator and ends it with a line feed", () => {
    const read = geojsonSeqOf(features)
      .split("\u001e")
      .slice(1)
      .map((text) => {
        expect(text.endsWith("\n")).toBe(true);
        return JSON.parse(text);
      });
    expect(read).toEqual(features);
  });
});
