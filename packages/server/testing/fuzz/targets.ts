import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync, gzipSync } from "node:zlib";
import { readPosition } from "@bibliotope/core/geo";
import { formatPattern, parsePattern } from "@bibliotope/core/pattern";
import { formDefinitionSchema } from "@bibliotope/wire";
import { readOwnGrids } from "../../src/heights/own-grids.ts";
import { HttpProblem } from "../../src/http/problem.ts";
import { TableError } from "../../src/import/bytes.ts";
import { inspect } from "../../src/import/inspect.ts";
import { readTable } from "../../src/import/table.ts";
import { waysInto } from "../../src/services/answer.ts";
import { CallFailed } from "../../src/services/call-failed.ts";
import { readWsdl } from "../../src/services/wsdl.ts";
import type { Target } from "./guided.ts";

const folder = mkdtempSync(join(tmpdir(), "bibliotope-fuzz-"));
process.on("exit", () => rmSync(folder, { recursive: true, force: true }));

/** Lets the errors pass that say what is wrong with what was read. */
async function unless(kinds: readonly (new (...given: never[]) => Error)[], does: () => unknown): Promise<void> {
  try {
    await does();
  } catch (error) {
    if (!kinds.some((kind) => error instanceof kind)) throw error;
  }
}

const check = (holds: boolean, words: string) => {
  if (!holds) throw new Error(words);
};

/** Looks at a file as the workbench does, then reads all of it. */
const readFile = (name: string) => (bytes: Buffer) =>
  unless([TableError], async () => {
    const path = join(folder, name);
    writeFileSync(path, bytes);
    const { format, heads, rows } = await inspect({ path, params: {}, country: undefined, readings: [] });
    check(rows.length > 0, "it has no rows, and nothing was said");
    for await (const some of readTable(path, format, heads ?? undefined))
      for (const { number, cells } of some)
        check(number > 0 && cells.every((cell) => typeof cell === "string"), "no row");
  });

const TABLE = [
  'house,street,town,postcode,lat,lon\n12,Harbour Row,Tidewell,HT4 29,-35.18,-21.62\n"4 ""b""",Mill Hill,Sallow,HT1 02,-35.2,-21.4\n',
  "name;x;y;population\nTidewell;500000;6100000;4.100\n",
  "\uFEFFwkt\tname\nPOINT (-21.6 -35.18)\tQuay\n",
  "geo\n12°30'15\"N 8°05'W\n",
];
const FEATURES = [
  '{"type":"FeatureCollection","features":[{"type":"Feature","geometry":{"type":"Point","coordinates":[-21.6,-35.1]},"properties":{"street":"Mill Hill","house":12}}]}',
  '{"type":"Feature","geometry":null,"properties":{"name":"\\u00d8","tags":["a",{"b":null}]}}\n{"type":"Feature","geometry":{"type":"Polygon","coordinates":[[[0,0],[1,0],[1,1],[0,0]]]},"properties":{}}\n',
];

export const TARGETS: readonly Target[] = [
  {
    name: "tables",
    seeds: TABLE,
    words: [
      '"',
      '""',
      "\n",
      "\r\n",
      ",",
      ";",
      "\t",
      "\uFEFF",
      "lat",
      "lon",
      "house",
      "town",
      "country",
      "QR",
      "-35.1",
      "32N",
      "EPSG:25832",
    ],
    read: readFile("table.csv"),
  },
  {
    name: "features",
    seeds: FEATURES,
    words: [
      "{",
      "}",
      "[",
      "]",
      '"properties":',
      '"geometry":',
      '"coordinates":',
      "null",
      "true",
      "1e999",
      "\\u0000",
      "\\ud800",
      ",",
      "\u001e",
    ],
    read: readFile("features.geojson"),
  },
  {
    name: "gzip",
    seeds: TABLE,
    words: ["\u001f\u008b", "\u0000", "\u00ff"],
    // what is tried are bytes of a packed file: seeds are packed, others were
    read: (bytes) => readFile("packed.csv.gz")(isPacked(bytes) ? bytes : gzipSync(bytes)),
  },
  {
    name: "positions",
    seeds: [
      "-35.18, -21.62",
      "12°30'15\"N 8°05'W",
      "geo:48.2,16.3;u=20",
      "+48.2010+016.3695/",
      "N 48 12.5 E 16 22.1",
      "48,2 16,3",
    ],
    words: ["°", "'", '"', "N", "S", "E", "W", "geo:", "+", "-", ",", " ", "90", "180", "1e5", "′", "″"],
    read: (bytes) => {
      const at = readPosition(bytes.toString());
      check(!at || (Math.abs(at.lat) <= 90 && Math.abs(at.lon) <= 180), `it is at ${JSON.stringify(at)}`);
    },
  },
  {
    name: "patterns",
    seeds: ["{house} {street}[, {district or town:upper}]", "\\{ {fact.floor} {field.a}"],
    words: ["{", "}", "[", "]", "\\", " or ", ":upper", ":trim", "street", "fact.", "field.", "country.code"],
    read: (bytes) => {
      const source = bytes.toString();
      const read = parsePattern(source);
      if (read.ok) {
        // each value is either there or not: what comes of it is a text, and as long as its pieces
        for (const value of ["x", undefined])
          check(formatPattern(read.pattern, () => value).length <= source.length, "it writes what is not in it");
      } else check(read.error.column >= 1 && read.error.column <= source.length + 1, "the column is not in it");
    },
  },
  {
    name: "heights",
    seeds: [
      "ncols 3\nnrows 2\nxllcorner -21\nyllcorner -35\ncellsize 0.5\nNODATA_value -9999\n1 2 3\n4 5 -9999\n",
      "II*\u0000\u0008\u0000\u0000\u0000\u0001\u0000\u0000\u0001\u0003\u0000\u0001\u0000\u0000\u0000\u0003\u0000\u0000\u0000\u0000\u0000\u0000\u0000",
    ],
    words: [
      "ncols ",
      "nrows ",
      "cellsize ",
      "NODATA_value ",
      "xllcenter ",
      "1e9",
      "II*\u0000",
      "MM\u0000*",
      "\u0000\u0001\u0000\u0000",
    ],
    read: async (bytes) => {
      const said: string[] = [];
      const one = mkdtempSync(join(folder, "heights-"));
      writeFileSync(join(one, bytes[0] === 0x49 || bytes[0] === 0x4d ? "grid.tif" : "grid.asc"), bytes);
      const grids = await readOwnGrids(one, (words) => said.push(words));
      rmSync(one, { recursive: true });
      check(said.length === 1 && grids.length <= 1, `it said ${JSON.stringify(said)}`);
    },
  },
  {
    name: "answers",
    seeds: [
      '{"route":{"length":12.5,"days":["Mon","Tue"]}}',
      '<?xml version="1.0"?><a xmlns="urn:x"><b at="1">two</b><![CDATA[three]]></a>',
    ],
    words: [
      "<",
      ">",
      "</",
      "/>",
      "<!DOCTYPE a [",
      '<!ENTITY x "',
      "&x;",
      "&#0;",
      "<![CDATA[",
      "]]>",
      "<?",
      "xmlns:",
      "{",
      "[",
      '"',
      "null",
    ],
    read: (bytes) =>
      unless([CallFailed], () => {
        const text = bytes.toString();
        const follow = waysInto({
          status: 200,
          mediaType: text.startsWith("<") ? "application/xml" : "application/json",
          text,
        } as never);
        for (const way of ["/route/days/0", "//b", "//@at", "count(//*)", "/a[", ""]) follow(way);
      }),
  },
  {
    name: "descriptions of services",
    seeds: [
      '<definitions xmlns:soap="http://schemas.xmlsoap.org/wsdl/soap/"><message name="m"><part name="p" type="xs:string"/></message><portType name="t"><operation name="o"><input message="m"/></operation></portType><binding name="b" type="t"><soap:binding style="document"/><operation name="o"><soap:operation soapAction="a"/></operation></binding><service name="s"><port name="p" binding="b"><soap:address location="http://x.example/"/></port></service></definitions>',
    ],
    words: [
      "<",
      "/>",
      "element",
      "complexType",
      "sequence",
      'name="',
      'type="',
      'binding="',
      "soap:",
      "__proto__",
      "constructor",
    ],
    read: (bytes) => unless([HttpProblem], () => readWsdl(bytes.toString())),
  },
  {
    name: "definitions of forms",
    seeds: [
      '{"title":"A form","fields":[{"name":"street","label":"Street","binding":"{house} {street}","kind":"text"},{"name":"find","kind":"search","countries":["QR"]}]}',
    ],
    words: [
      '"fields":',
      '"name":',
      '"binding":',
      '"kind":',
      '"search"',
      '"map"',
      "[",
      "]",
      "{",
      "}",
      ",",
      "null",
      "1e9",
      "__proto__",
      "true",
    ],
    read: (bytes) => {
      let value: unknown;
      try {
        value = JSON.parse(bytes.toString());
      } catch {
        return;
      }
      const read = formDefinitionSchema.safeParse(value);
      if (read.success)
        check(formDefinitionSchema.safeParse(JSON.parse(JSON.stringify(read.data))).success, "read once, not twice");
    },
  },
];

function isPacked(bytes: Buffer): boolean {
  try {
    gunzipSync(bytes, { maxOutputLength: 1 << 20 });
    return true;
  } catch {
    return bytes[0] === 0x1f;
  }
}
