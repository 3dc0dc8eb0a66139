import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { proposeColumns, type Reading, RowReader } from "./index.ts";
import { parseNumber } from "./numbers.ts";
import { pointIn } from "./points.ts";

/** Whole degrees, minutes and seconds of an angle, the seconds in hundredths. */
function inSeconds(angle: number) {
  const all = Math.round(Math.abs(angle) * 360_000);
  return { degrees: Math.floor(all / 360_000), minutes: Math.floor(all / 6000) % 60, seconds: (all % 6000) / 100 };
}
const two = (value: number) => String(value).padStart(2, "0");
const minutesOf = (angle: number) => {
  const tenThousandths = Math.round(Math.abs(angle) * 600_000);
  return [Math.floor(tenThousandths / 600_000), ((tenThousandths % 600_000) / 10_000).toFixed(4)] as const;
};
const ns = (lat: number) => (lat < 0 ? "S" : "N");
const ew = (lon: number) => (lon < 0 ? "W" : "E");
const comma = (value: number) => value.toFixed(6).replace(".", ",");

/** As people and programs write a position into one cell, and whether the longitude comes first. */
const WAYS: Readonly<Record<string, readonly [write: (lat: number, lon: number) => string, isLonFirst?: true]>> = {
  "in brackets": [(lat, lon) => `(${lat.toFixed(6)}, ${lon.toFixed(6)})`],
  "as a list": [(lat, lon) => `[${lat.toFixed(6)},${lon.toFixed(6)}]`],
  "as an object": [(lat, lon) => JSON.stringify({ lat: Number(lat.toFixed(6)), lng: Number(lon.toFixed(6)) })],
  "as a program prints an object": [(lat, lon) => `{'latitude': ${lat.toFixed(6)}, 'longitude': ${lon.toFixed(6)}}`],
  "with commas for the decimals": [(lat, lon) => `${comma(lat)} / ${comma(lon)}`],
  "with commas everywhere": [(lat, lon) => `${comma(lat)}, ${comma(lon)}`],
  "longitude first": [(lat, lon) => `${lon.toFixed(6)},${lat.toFixed(6)}`, true],
  "as GeoJSON": [(lat, lon) => `{"type":"Point","coordinates":[${lon.toFixed(6)}, ${lat.toFixed(6)}]}`],
  "as a database has it": [(lat, lon) => `SRID=4326;POINT Z (${lon.toFixed(6)} ${lat.toFixed(6)} 12)`],
  "letters before degrees and minutes": [
    (lat, lon) => `${ns(lat)}${minutesOf(lat).join(" ")} ${ew(lon)}${minutesOf(lon).join(" ")}`,
  ],
  "letters behind degrees and minutes": [
    (lat, lon) => `${minutesOf(lat).join("°")}'${ns(lat)}, ${minutesOf(lon).join("°")}'${ew(lon)}`,
  ],
  "seconds with dashes": [
    (lat, lon) => {
      const [a, b] = [inSeconds(lat), inSeconds(lon)];
      return `${a.degrees}-${two(a.minutes)}-${a.seconds}${ns(lat)} ${b.degrees}-${two(b.minutes)}-${b.seconds}${ew(lon)}`;
    },
  ],
};
const inWorld = {
  lat: fc.double({ min: -89, max: 89, noNaN: true }),
  lon: fc.double({ min: -179, max: 179, noNaN: true }),
};

describe("a position in one cell", () => {
  it.each(Object.entries(WAYS))("is read %s", (_, [write, isLonFirst = false]) => {
    fc.assert(
      fc.property(inWorld.lat, inWorld.lon, (lat, lon) => {
        const point = pointIn(write(lat, lon), isLonFirst);
        const at = point && "at" in point ? point.at : { lat: Number.NaN, lon: Number.NaN };
        expect(Math.abs(at.lat - lat)).toBeLessThan(4e-6);
        expect(Math.abs(at.lon - lon)).toBeLessThan(4e-6);
      }),
    );
  });

  it("is none where two whole numbers may be anything", () => {
    for (const text of ["12/34", "0341/10000", "12 34", "2026-11-28", "12 | 7", "{}", "[12]", "(Nr. 4)", "51-16"])
      expect([text, pointIn(text, false)]).toEqual([text, undefined]);
  });

  it("may be metres, with the number of their system or without", () => {
    expect(pointIn("SRID=25833;POINT(339775.93 5683486.97)", false)).toEqual({
      east: 339_775.93,
      north: 5_683_486.97,
      epsg: 25_833,
    });
    expect(pointIn("POINT (339775.93 5683486.97)", false)).toEqual({ east: 339_775.93, north: 5_683_486.97 });
  });
});

describe("a number of a table", () => {
  it("is read with its thousands apart, as every language writes them, and never a thousand times as large", () => {
    for (const lang of ["en", "de", "fr", "de-CH", "sv", "pl", "pt"]) {
      const format = new Intl.NumberFormat(lang, { minimumFractionDigits: 2, useGrouping: "always" as never });
      fc.assert(
        fc.property(fc.integer({ min: -900_000_000, max: 900_000_000 }), (hundredths) => {
          const written = format.format(hundredths / 100).replace("−", "-");
          expect(parseNumber(written)).toBe(hundredths / 100);
        }),
      );
    }
    expect(parseNumber("12.345")).toBe(12.345);
    expect(parseNumber("12,345")).toBe(12.345);
    expect([parseNumber("1.2345.678"), parseNumber("12.34.567"), parseNumber("1,234,56")]).toEqual([
      Number.NaN,
      Number.NaN,
      Number.NaN,
    ]);
  });
});

describe("an angle in several columns", () => {
  const heads = [
    "street",
    "no",
    "lat_deg",
    "lat_min",
    "lat_sec",
    "lat_dir",
    "lon_deg",
    "lon_min",
    "lon_sec",
    "lon_dir",
  ];
  const angle = (value: number, letter: string) => {
    const { degrees, minutes, seconds } = inSeconds(value);
    return [degrees, minutes, seconds, letter].map(String);
  };

  it("is put together, wherever in the world", () => {
    fc.assert(
      fc.property(inWorld.lat, inWorld.lon, (lat, lon) => {
        fc.pre(Math.abs(lat) > 1);
        const row = ["Karlshof", "1", ...angle(lat, ns(lat)), ...angle(lon, ew(lon))];
        const columns = proposeColumns(heads, [row, row, row]).map(({ use }) => use);
        const { row: read } = new RowReader({ columns, country: "DE" }).read(row);
        expect(Math.abs((read?.at.lat ?? Number.NaN) - lat)).toBeLessThan(4e-6);
        expect(Math.abs((read?.at.lon ?? Number.NaN) - lon)).toBeLessThan(4e-6);
      }),
    );
  });

  it("is none of whole degrees alone, and minutes say nothing beside complete degrees", () => {
    const whole = proposeColumns(
      ["street", "lat_deg", "lon_deg"],
      [
        ["a", "51", "12"],
        ["b", "51", "12"],
        ["c", "50", "12"],
      ],
    );
    expect(whole.map(({ use }) => use?.meaning)).toEqual(["street", undefined, undefined]);
    expect(whole[1].why).toMatch(/whole degrees/);
    const complete = proposeColumns(["lat", "lat_min", "lon"], [["51.2837", "17", "12.7021"]]);
    expect(complete.map(({ use }) => use?.meaning)).toEqual(["lat", undefined, "lon"]);
  });
});

describe("what else a cell may hold beside what is meant", () => {
  const read = (use: Partial<Record<string, string>>) => {
    const columns = Object.keys(use).map((meaning) => ({ meaning })) as Reading["columns"];
    const { row } = new RowReader({ columns: [...columns, { meaning: "position" }], country: "DE" }).read([
      ...(Object.values(use) as string[]),
      "51.28, 12.70",
    ]);
    return row;
  };

  it.each(["Nr. 33", "No 33", "#33", "N° 33", "33.0", "33,00", "HNr. 33"])("a house number is one in %j", (house) => {
    expect(read({ street: "Karlshof", house })?.house).toEqual({ number: 33, suffix: "" });
  });

  it("a postcode is none with decimals, and people are no parts of one", () => {
    expect(read({ town: "Hohnfelde", postcode: "24799.0" })?.postcode).toBe("24799");
    const importance = (text: string) => read({ town: "Hohnfelde", importance: text })?.importance;
    expect(importance("12.345")).toBe(importance("12345"));
    expect(importance("1,234,567")).toBe(importance("1234567"));
    expect(importance("0.873")).toBe(0.873);
  });
});
