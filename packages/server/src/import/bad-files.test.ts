import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type ImportRow, RowReader } from "@bibliotope/core/import";
import { afterAll, describe, expect, it } from "vitest";
import { inspect } from "./inspect.ts";
import { readTable } from "./table.ts";

const folder = mkdtempSync(join(tmpdir(), "bibliotope-bad-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Looks at a file of forty rows, and reads it as it would be loaded with nothing said by hand. */
const read = (head: string, rowOf: (i: number) => string) =>
  readFile([head, ...Array.from({ length: 40 }, (_, i) => rowOf(i))].join("\n"));

async function readFile(text: string) {
  const path = join(folder, "file.csv");
  writeFileSync(path, text);
  const { reading, format, heads, columns, countryWhy } = await inspect({
    path,
    params: {},
    country: "QR",
    readings: [],
  });
  const reader = new RowReader(reading);
  const rows: ImportRow[] = [];
  const refused = new Set<string>();
  for await (const batch of readTable(path, format, heads ?? undefined, () => undefined))
    for (const { cells } of batch) {
      const one = reader.read(cells);
      if (one.row) rows.push(one.row);
      else refused.add(one.refused!.words);
    }
  const whyOf = (head: string) => columns[heads!.indexOf(head)].why;
  const meanings = columns.map(({ use }) => use?.meaning);
  return { country: reading.country, countryWhy, rows, refused: [...refused], whyOf, meanings };
}

/** Metres that are in Germany in the zone 33 of UTM alone. */
const IN_33 = (i: number) => [339_775.93 + i * 10, 5_683_486.97 + i * 10] as const;

describe("positions in the system that a file names", () => {
  const isNear = ({ at }: ImportRow) => Math.abs(at.lat - 51.28) < 0.01 && Math.abs(at.lon - 12.7) < 0.02;

  it("are read by the number that each point has", async () => {
    const { rows, meanings } = await read("strasse,hausnummer,ort,geom", (i) =>
      germanRow(i, `SRID=25833;POINT(${IN_33(i).join(" ")})`),
    );
    expect(meanings).toEqual(["street", "house", "town", "position"]);
    expect(rows.filter(isNear)).toHaveLength(40);
  });

  it("are asked about where points are metres and no number says of what", async () => {
    const { rows, refused } = await read("strasse,hausnummer,ort,geom", (i) =>
      germanRow(i, `POINT(${IN_33(i).join(" ")})`),
    );
    expect({ rows, refused }).toEqual({ rows: [], refused: ["metres without a zone or projection"] });
  });

  it("are read by the number that a GeoJSON has for all of it", async () => {
    const features = Array.from({ length: 40 }, (_, i) => ({
      type: "Feature",
      properties: { strasse: "Lindenweg", hnr: i + 1, ort: "Karsheim" },
      geometry: { type: "Point", coordinates: IN_33(i) },
    }));
    const crs = (name: string) => ({ type: "name", properties: { name } });
    for (const name of ["urn:ogc:def:crs:EPSG::25833", "EPSG:25833", "urn:ogc:def:crs:EPSG:9.9:25833"]) {
      const { rows } = await readFile(JSON.stringify({ type: "FeatureCollection", crs: crs(name), features }));
      expect(rows.filter(isNear)).toHaveLength(40);
    }
    const { rows, refused } = await readFile(JSON.stringify({ type: "FeatureCollection", features }));
    expect({ rows, refused }).toEqual({ rows: [], refused: ["metres without a zone or projection"] });
  });

  it("are turned where nothing names their order and only that is in the country of the streets", async () => {
    const pair = (i: number) => [`12.7${100 + i}`, `51.2${100 + i}`];
    const turned = await read("strasse,hausnummer,plz,ort,koordinaten", (i) =>
      ["Lindenweg", i + 1, "04799", "Karsheim", `"[${pair(i)}]"`].join(","),
    );
    expect([turned.meanings.at(-1), turned.rows.length]).toEqual(["lonlat", 40]);
    expect(turned.rows[0].at).toEqual({ lat: 51.21, lon: 12.71 });
    // one that names the order is not doubted without a person
    const named = await read("strasse,hausnummer,plz,ort,latlon", (i) =>
      ["Lindenweg", i + 1, "04799", "Karsheim", `"${pair(i)}"`].join(","),
    );
    expect([named.meanings.at(-1), named.rows.length]).toEqual(["position", 0]);
    expect(named.countryWhy).toMatch(/swapped, in DE/);
  });
});

const germanRow = (i: number, ...more: (string | number)[]) => ["Lindenweg", i + 1, "Karsheim", ...more].join(",");

describe("a file that something is wrong with", () => {
  it("has one column: every row is refused for what it lacks", async () => {
    const { rows, refused, countryWhy } = await read("name", (i) => `Town ${i}`);
    expect({ rows, refused, countryWhy }).toEqual({
      rows: [],
      refused: ["no position"],
      countryWhy: "no rows with a position",
    });
  });

  it("has two heads alike: the first is taken, and the other says why not", async () => {
    const { rows, meanings } = await read(
      "street,street,number,city,lat,lon",
      (i) => `Linden Row,Alder Row,${i + 1},Karsheim,50.${100 + i},9.${100 + i}`,
    );
    expect(meanings).toEqual(["street", undefined, "house", "town", "lat", "lon"]);
    expect(new Set(rows.map(({ street }) => street?.names[0].name))).toEqual(new Set(["Linden Row"]));
  });

  it("is half in degrees and half in metres: somebody is asked, and nothing is placed", async () => {
    const { rows, refused, country } = await read("strasse,hausnummer,ort,x,y", (i) =>
      i % 2 ? germanRow(i, `9.${100 + i}`, `50.${100 + i}`) : germanRow(i, 500_000 + i, 5_550_000 + i),
    );
    expect({ rows, country }).toEqual({ rows: [], country: undefined });
    expect(refused).toEqual(["metres without a zone or projection"]);
  });

  it("is half of one zone and half of another: somebody is asked, and nothing is placed", async () => {
    const { rows, whyOf } = await read("strasse,hausnummer,ort,zone,x,y", (i) =>
      germanRow(i, i % 2 ? 32 : 33, 500_000 + i, 5_550_000 + i),
    );
    expect(rows).toEqual([]);
    expect(whyOf("x")).toBe("metres, and rows in several zones, 33, 32: choose one, and import each zone separately");
  });

  it("has latitude and longitude changed over: somebody is asked, and nothing is placed", async () => {
    const { rows, country, countryWhy } = await read("strasse,hausnummer,ort,lat,lon", (i) =>
      germanRow(i, `9.${100 + i}`, `50.${100 + i}`),
    );
    expect({ rows, country }).toEqual({ rows: [], country: undefined });
    expect(countryWhy).toMatch(
      /^positions are in SO, or, with latitude and longitude swapped, in (?:DE|AT|CH|LI), which matches the street names/,
    );
  });

  it.each([
    ["behind", "50.1N", "9.1E"],
    ["in front", "N 50.1", "E 9.1"],
    ["with minutes and seconds", "50°06'00''N", "9°06'00''E"],
  ])("has degrees with letters %s: they are read", async (_, lat, lon) => {
    const { rows, refused } = await read("strasse,hausnummer,ort,lat,lon", (i) => germanRow(i, lat, lon));
    expect(refused).toEqual([]);
    expect(rows[0].at.lat).toBeCloseTo(50.1, 9);
    expect(rows[0].at.lon).toBeCloseTo(9.1, 9);
    expect(rows[0].country).toBe("DE");
  });

  it("has a zone that cannot be: it is named, and nothing is placed", async () => {
    const { rows, whyOf } = await read("strasse,hausnummer,ort,zone,x,y", (i) =>
      germanRow(i, "99N", 500_000 + i, 5_550_000 + i),
    );
    expect(rows).toEqual([]);
    expect(whyOf("x")).toBe("metres, and “99N” is not a zone from 1 to 60: choose the zone or projection");
  });

  it("has a zone that can be: it is taken", async () => {
    const { rows, whyOf } = await read("strasse,hausnummer,ort,zone,x,y", (i) =>
      germanRow(i, "32U", 500_000 + i, 5_550_000 + i),
    );
    expect(rows[0].at.lat).toBeCloseTo(50.1, 2);
    expect(whyOf("x")).toBe("metres in UTM 32N: as the file says; the rows are then in DE");
  });

  it("is a list of towns, each twice: they are read as often as they stand there", async () => {
    const { rows, refused } = await read(
      "name,population,lat,lon",
      (i) => `Karsheim ${i % 20},${1000 + i},50.${100 + (i % 20)},9.${100 + (i % 20)}`,
    );
    expect(refused).toEqual([]);
    expect(new Set(rows.map(({ areas }) => areas[0].names[0].name)).size).toBe(20);
  });

  it("has names in forty languages: all are kept", async () => {
    const langs = Array.from({ length: 40 }, (_, i) => `${"abcdefgh"[i % 8]}${"klmno"[Math.floor(i / 8)]}`);
    const { rows, refused } = await read(["lat", "lon", ...langs.map((lang) => `town:${lang}`)].join(","), (i) =>
      [`50.${100 + i}`, `9.${100 + i}`, ...langs.map((lang) => `Karsheim ${lang}`)].join(","),
    );
    expect(refused).toEqual([]);
    expect(rows[0].areas[0].names).toEqual(langs.map((lang) => ({ lang, name: `Karsheim ${lang}` })));
  });
});
