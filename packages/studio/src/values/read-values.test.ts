import { describe, expect, it } from "vitest";
import { NotShown, readValues, textOf } from "./read-values.ts";

describe("a file of values", () => {
  it.each([
    ["commas", "town,lat,lon,price\nTidewell,-35.18,-21.62,300\nMarket Lorne,-35.5,-21.4,\n"],
    [
      "semicolons and decimal commas",
      "town;Breite;Länge;price\nTidewell;-35,18;-21,62;300\nMarket Lorne;-35,5;-21,4;\n",
    ],
    ["a position in one cell", 'town,position,price\nTidewell,"-35.18,-21.62",300\nMarket Lorne,"-35.5,-21.4",\n'],
    [
      "a byte order mark",
      "\ufefftown,latitude,longitude,price\nTidewell,-35.18,-21.62,300\nMarket Lorne,-35.5,-21.4,\n",
    ],
  ])("is read with %s", (_, text) => {
    const { heads, columns, at } = readValues(text);
    expect(at).toEqual([
      { lat: -35.18, lon: -21.62 },
      { lat: -35.5, lon: -21.4 },
    ]);
    expect(columns[heads.indexOf("price")]).toEqual(["300", ""]);
    expect(heads[0]).toBe("town");
  });

  it("may be GeoJSON; what is no point lies nowhere", () => {
    const point = { type: "Feature", geometry: { type: "Point", coordinates: [-21.62, -35.18] }, properties: { a: 1 } };
    const line = { type: "Feature", geometry: { type: "LineString", coordinates: [] }, properties: { b: [2] } };
    expect(readValues(JSON.stringify({ type: "FeatureCollection", features: [point, line] }))).toEqual({
      heads: ["a", "b"],
      columns: [
        ["1", ""],
        ["", "[2]"],
      ],
      at: [{ lat: -35.18, lon: -21.62 }, undefined],
    });
  });

  it("of any bytes is shown or refused in words", () => {
    expect(textOf(new Uint8Array([0x4d, 0xfc, 0x68, 0x6c]))).toBe("Mühl");
    expect(textOf(new Uint8Array([0x4d, 0xc3, 0xbc]))).toBe("Mü");
  });

  it.each([
    ["nothing", "", "no rows"],
    ["heads alone", "lat,lon\n", "no rows"],
    ["no positions", "town,price\nTidewell,300\n", "No row has a position"],
    ["positions beyond the world", "lat,lon\n95,10\n", "No row has a position"],
    ["an open quote", 'lat,lon,a\n1,2,"b\n', "never closed"],
    ["broken JSON", '{"features":', "is not valid"],
    ["other JSON", '{"a":1}', "not GeoJSON"],
    ["too many columns", `${"a,".repeat(600)}b\n1\n`, "the limit is 500"],
    ["too many rows", `lat,lon\n${"1,2\n".repeat(50_001)}`, "more than 50,000 rows"],
    ["a cell of 100,000 characters", `lat,lon,a\n1,2,${"x".repeat(100_000)}\n`, "longer than 64,000 characters"],
    [
      "too many properties",
      JSON.stringify({ features: [{ properties: Object.fromEntries(Array.from({ length: 501 }, (_, i) => [i, 1])) }] }),
      "500 properties",
    ],
    ["features that are none", '{"features":[null,3]}', "not GeoJSON"],
  ])("with %s is refused", (_, text, words) => {
    expect(() => readValues(text)).toThrow(NotShown);
    expect(() => readValues(text)).toThrow(words);
  });
});
