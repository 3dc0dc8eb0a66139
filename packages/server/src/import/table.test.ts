import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { describe, expect, it } from "vitest";
import { inspectTable } from "./inspect-table.ts";
import { readTable } from "./table.ts";

const folder = mkdtempSync(join(tmpdir(), "bibliotope-table-"));
let files = 0;
function file(content: string | Buffer): string {
  const path = join(folder, `file-${++files}`);
  writeFileSync(path, content);
  return path;
}

const look = (content: string | Buffer, wanted = {}) => inspectTable(file(content), wanted);
async function all(content: string | Buffer) {
  const path = file(content);
  const { format, heads } = await inspectTable(path);
  const rows: { number: number; cells: string[] }[] = [];
  for await (const batch of readTable(path, format, heads)) rows.push(...batch);
  return rows;
}
/** The words with which reading ends, at the first look or on the way. */
const wrong = (content: string | Buffer) =>
  all(content).then(
    () => "nothing is wrong",
    (error: Error) => `${error.constructor.name}: ${error.message}`,
  );

const CSV = "street;house;town\nHarbour Row;12;Tidewell\n";
const feature = (more: object = {}) => ({
  type: "Feature",
  id: 7,
  geometry: { type: "Point", coordinates: [-21.4, -35.2] },
  properties: { street: 'Harbour "Row" {a}]', house: 12 },
  ...more,
});
const collection = (...features: object[]) => JSON.stringify({ type: "FeatureCollection", name: "features", features });

describe("a table", () => {
  it.each([
    [CSV, { delimiter: ";", encoding: "utf-8", hasHead: true }],
    ["a\tb\n1\t2\n", { delimiter: "\t", hasHead: true }],
    ["'a,b','c'\n'1','2'\n", { delimiter: ",", quote: "'" }],
    ["1,2,3\n4,5,6\n", { hasHead: false }],
    ["Harbour Row\nMill Lane\n", { hasHead: false }],
    ["text\nHarbour Row\n", { hasHead: true }],
    [gzipSync(CSV), { delimiter: ";" }],
    [Buffer.from(`\ufeff${CSV}`, "utf16le"), { encoding: "utf-16le", delimiter: ";" }],
    [Buffer.from("straße;hausnr\nHøvej;1\n", "latin1"), { encoding: "windows-1252" }],
    [collection(feature()), { kind: "geojson" }],
    [`${JSON.stringify(feature())}\n${JSON.stringify(feature())}\n`, { kind: "geojsonseq" }],
    [`\u001e${JSON.stringify(feature())}\n`, { kind: "geojsonseq" }],
  ])("is recognised %#", async (content, format) => {
    expect((await look(content)).format).toMatchObject(format);
  });

  const ROWS = "Harbour Row;12;Tidewell;-35,2;-21,4\nMill Lane;4;Pellby;-35,1;-21,5\n";
  const HEAD = "street;house;town;lat;lon\n";
  it.each([
    ["a title and an empty line", `Members, 1 December 2026;;;;\n;;;;\n${HEAD}${ROWS}`, 2],
    ["a title of one cell", `Members\n\n${HEAD}${ROWS}`, 2],
    ["a head of groups", `Address;;;Position;\n${HEAD}${ROWS}`, 1],
    ["what a spreadsheet says of the delimiter", `sep=;\n${HEAD}${ROWS}`, 1],
    ["that, and a title", `sep=;\nMembers;;;;\n${HEAD}${ROWS}`, 2],
  ])("has its head below %s", async (_, text, skipped) => {
    const { format, heads, numbers } = await look(text);
    expect(format).toMatchObject({ delimiter: ";", hasHead: true, skipped });
    expect(heads).toEqual(["street", "house", "town", "lat", "lon"]);
    expect(numbers).toEqual([skipped + 2, skipped + 3]);
    expect(await all(text)).toMatchObject([
      { number: skipped + 2, cells: ["Harbour Row", "12", "Tidewell", "-35,2", "-21,4"] },
      { number: skipped + 3 },
    ]);
  });

  it.each([
    ["a first row with gaps", `Harbour Row;;;;\n${ROWS}`, 3],
    ["a head with gaps", `street;;town;;\nHarbour Row;twelve;Tidewell;none;none\n${ROWS}`, 3],
    ["words alone", "street;town;code\nHarbour Row;;\nMill Lane;Pellby;A\n", 2],
  ])("loses no row to %s", async (_, text, rows) => {
    expect((await look(text)).format.skipped).toBe(undefined);
    expect(await all(text)).toHaveLength(rows);
  });

  it("has its head where the person says", async () => {
    const text = `Address;;;Position;\n${HEAD}${ROWS}`;
    expect((await look(text, { skipped: 0 })).heads?.[0]).toBe("Address");
    expect((await look(text, { skipped: 2, hasHead: false })).rows).toHaveLength(2);
  });

  it.each([
    ["a list", (objects: object[]) => JSON.stringify(objects, null, 2)],
    ["lines", (objects: object[]) => objects.map((one) => `${JSON.stringify(one)}\n`).join("")],
  ])("is made of objects that are no features, as %s, those within them as columns", async (_, write) => {
    const objects = [
      { id: 1, at: { lat: -35.2, lon: -21.4 }, address: { street: "Harbour Row", within: { town: "Tidewell" } } },
      { id: 2, address: { street: "Mill Lane" }, tags: ["a", { b: 1 }], __proto__of: null },
    ];
    const text = write(objects);
    expect((await look(text)).heads).toEqual([
      ...["id", "at.lat", "at.lon", "address.street", "address.within.town", "tags", "__proto__of"],
    ]);
    expect(await all(text)).toEqual([
      { number: 1, cells: ["1", "-35.2", "-21.4", "Harbour Row", "Tidewell", "", ""] },
      { number: 2, cells: ["2", "", "", "Mill Lane", "", '["a",{"b":1}]', ""] },
    ]);
  });

  it("has what lies deeper than five objects as text, however deep", async () => {
    expect((await look('[{"a":{"b":{"c":{"d":{"e":{"f":1}}}}}}]')).heads).toEqual(["a.b.c.d.e"]);
    expect(await wrong(`[{"a":${'{"a":'.repeat(100_000)}1${"}".repeat(100_001)}]`)).toContain("lie too deep");
  });

  it("has names that every object has for columns of their own only", async () => {
    const text = '[{"toString":"a","__proto__":"b","constructor":{"name":"c"}},{"town":"Tidewell"}]';
    expect(await all(text)).toEqual([
      { number: 1, cells: ["a", "b", "c", ""] },
      { number: 2, cells: ["", "", "", "Tidewell"] },
    ]);
  });

  const square = (west: number, south: number, size: number) =>
    [
      [0, 0],
      [size, 0],
      [size, size],
      [0, size],
      [0, 0],
    ].map(([x, y]) => [west + x, south + y]);
  it.each([
    ["an area by a point within it", { type: "Polygon", coordinates: [square(-21, -35, 0.5)] }, ["-34.75", "-20.75"]],
    [
      "several by one within the largest",
      { type: "MultiPolygon", coordinates: [[square(0, 0, 0.5)], [square(8, 8, 1)]] },
      ["8.5", "8.5"],
    ],
    ["a list of one point", { type: "MultiPoint", coordinates: [[-21, -35]] }, ["-35", "-21"]],
  ])("places %s", async (_, geometry, at) => {
    expect((await all(collection(feature({ geometry }))))[0].cells.slice(0, 2)).toEqual(at);
  });

  it("has the signs of windows-1252 that Latin 1 lacks", async () => {
    const bytes = Buffer.from("street;fee\nRue de l\x92\xc9cole;4 \x80\n", "latin1");
    expect((await look(bytes)).rows).toEqual([["Rue de l’École", "4 €"]]);
    expect((await all(bytes))[0]).toMatchObject({ cells: ["Rue de l’École", "4 €"] });
  });

  it("counts rows as an editor does: the head, empty lines, a cell of several lines as one", async () => {
    const rows = await all('\n\r\na,b\n\n1,2\n\r\n\n"3\n\n",4\n5,6');
    expect(rows).toEqual([
      { number: 5, cells: ["1", "2"] },
      { number: 8, cells: ["3\n\n", "4"] },
      { number: 9, cells: ["5", "6"] },
    ]);
  });

  it("takes line ends of every kind, mixed too, and quotes within cells as they are", async () => {
    expect(await all('a,b\r\n1,"2"\r\n3,4\n')).toEqual([
      { number: 2, cells: ["1", "2"] },
      { number: 3, cells: ["3", "4"] },
    ]);
    expect(await all("a,b\r1,2\r3,4")).toHaveLength(2);
    expect(await all('a,b\n5" pipe,2\n3,4"\n')).toEqual([
      { number: 2, cells: ['5" pipe', "2"] },
      { number: 3, cells: ["3", '4"'] },
    ]);
  });

  it("is looked at though what is looked at ends within quotes, and read on across pieces", async () => {
    const cell = "a line of a cell\n".repeat(2000);
    const rows = Array.from({ length: 60 }, (_, i) => `${i},"${cell}","${i}, again"`);
    const content = `number,text,more\n${rows.join("\n")}\n`;
    expect((await look(content)).rows.length).toBeGreaterThan(20);
    const read = await all(content);
    expect(read.map(({ cells }) => cells[2])).toEqual(rows.map((_, i) => `${i}, again`));
    expect(new Set(read.map(({ cells }) => cells[1]))).toEqual(new Set([cell]));
  });

  it("keeps quoted delimiters, line ends and quotes in their cells", async () => {
    expect(await all('a,b\n"1, ""x""","line\nend"\n\n2,3\n')).toEqual([
      { number: 2, cells: ['1, "x"', "line\nend"] },
      { number: 4, cells: ["2", "3"] },
    ]);
  });

  it("has nothing where programs write that there is nothing, and texts without what makes them one for spreadsheets", async () => {
    const [{ cells }] = await all('a;b;c;d;e;f;g\nNULL;n/a;-;#N/A;="01234";="a ""b""";Nullweg\n');
    expect(cells).toEqual(["", "", "", "", "01234", 'a "b"', "Nullweg"]);
  });

  it("takes the head of a marked file without its mark", async () => {
    expect((await look(`\ufeff${CSV}`)).heads).toEqual(["street", "house", "town"]);
  });

  it("reads features as rows", async () => {
    const rows = await all(collection(feature(), feature({ properties: null, id: undefined, geometry: null })));
    expect((await look(collection(feature()))).heads).toEqual(["lat", "lon", "id", "street", "house"]);
    expect(rows).toEqual([
      { number: 1, cells: ["-35.2", "-21.4", "7", 'Harbour "Row" {a}]', "12"] },
      { number: 2, cells: ["", "", "", "", ""] },
    ]);
  });

  it("reads the list of objects that a service answered with, whatever it is called and stands beside it", async () => {
    const rows = [{ street: "Harbour Row", no: 12 }, { street: "Mill Lane" }];
    for (const answer of [
      { status: "ok", total: 2, links: [{ rel: "next" }], results: rows },
      { bbox: [[1, 2]], codes: [1, 2], items: rows, errors: [] },
      { rows, features: [{ street: "of something else" }] },
    ]) {
      const { heads, rows: read } = await look(JSON.stringify(answer));
      expect([heads, read]).toEqual([
        ["street", "no"],
        [
          ["Harbour Row", "12"],
          ["Mill Lane", ""],
        ],
      ]);
      expect(await all(JSON.stringify(answer))).toHaveLength(2);
    }
    expect(await wrong('{"a": [[{"x": 1}]], "b": {"c": [{"d": 1}]}}')).toMatch(/another one of objects, is missing/);
    // a feature's own lists are no rows
    expect(await wrong('{"type": "Feature",\n"tags": [{"x": 1}]}')).toMatch(/is missing/);
  });

  it("reads features however the file is cut into pieces", async () => {
    const many = collection(
      ...Array.from({ length: 9000 }, (_, i) => feature({ id: i, properties: { street: `"${i}\\` } })),
    );
    const rows = await all(many);
    expect(rows).toHaveLength(9000);
    expect(rows[8999].cells.slice(2)).toEqual(["8999", '"8999\\']);
  });

  it("reads a hundred thousand rows in order", async () => {
    const rows = await all(`a,b\n${Array.from({ length: 100_000 }, (_, i) => `${i},x`).join("\n")}\n`);
    expect(rows.every(({ number, cells }, i) => number === i + 2 && cells[0] === String(i))).toBe(true);
    expect(rows).toHaveLength(100_000);
  });
});

describe("a file that is no table", () => {
  it.each([
    ["", "TableError: The file is empty."],
    ["street;house\n", "TableError: The file has a header, but no rows below it."],
    [gzipSync(CSV.repeat(9000)).subarray(0, 900), "ends too early"],
    [Buffer.concat([gzipSync(CSV).subarray(0, 12), Buffer.from("zzzzzzzzzzzzzz")]), "The gzip file"],
    [gzipSync(Buffer.alloc(40 << 20, `${"x".repeat(900)},b\n`)), "more than 200 times its size"],
    [Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 0, 1, 2, 3, 0, 0, 0]), "NUL bytes"],
    [`a,b\n${"x,".repeat(3 << 19)}`, "columns. The limit is 500"],
    [`a,b\n${`${"x".repeat(9000)},`.repeat(300)}`, "longer than 1,048,576 characters"],
    [`a,b\n1,2\n"never closed, 3\n`, "never closed"],
    [JSON.stringify({ type: "Point", coordinates: [1, 2] }), "neither a GeoJSON FeatureCollection nor a list"],
    [collection({ type: "FeatureCollection", features: [] }), "Feature 1 is a nested collection"],
    [
      collection(feature(), { type: "Point", coordinates: [1, 2] }),
      "Feature 2 is a Point, where a Feature is expected",
    ],
    [collection(feature({ geometry: { type: "LineString", coordinates: [] } })), "Feature 1 is a LineString"],
    [collection(feature()).slice(0, -2), "ends too early, after 1 features"],
    [`${collection().slice(0, -2)}{"type":"Feature",x}]}`, "Feature 1 is not valid JSON"],
    [collection(), "contains no features"],
  ])("is told about in a sentence %#", async (content, words) => {
    expect(await wrong(content as string)).toContain(words);
  });
});
