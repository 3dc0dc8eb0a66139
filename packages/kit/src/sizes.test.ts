import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync } from "node:zlib";
import { build, type Rolldown } from "vite";
import { describe, expect, it } from "vitest";

const HERE = import.meta.dirname;
const DOCS = join(HERE, "../../../docs/kit.md");

/** What may not grow: code that brings the piece into a page, what is counted elsewhere, and the most bytes it may take. */
const PIECES: { name: string; code: string; without?: RegExp[]; most: number }[] = [
  { name: "client", code: `export { Client } from "./client/client.ts"`, most: 3000 },
  {
    name: "search element, with the client",
    code: `import { SearchElement } from "./elements/search-element.ts"; customElements.define("bibliotope-search", SearchElement)`,
    most: 9000,
  },
  {
    name: "binder by tokens, beside client and search box",
    code: `export { bindTokens } from "./fill/fill.ts"`,
    without: [/client\/client/, /search\/box/],
    most: 3000,
  },
  {
    name: "binder with all rules, beside client and search box",
    code: `export { bind } from "./form/bind.ts"`,
    without: [/client\/client/, /search\/box/, /core\/geodesic/],
    most: 14_000,
  },
  {
    name: "map",
    code: `export { InteractiveMap } from "./map/interactive-map.ts"`,
    without: [/relief-view/],
    most: 45_000,
  },
];

/** Bytes of a piece as it is sent: minified, brotli. */
async function sizeOf({ code, without = [] }: (typeof PIECES)[number]): Promise<number> {
  const entry = join(HERE, "measured.ts");
  const output = (await build({
    configFile: false,
    logLevel: "silent",
    root: join(HERE, ".."),
    resolve: { conditions: ["source"] },
    plugins: [
      {
        name: "measured",
        resolveId: (id) => (id === entry ? id : undefined),
        load: (id) => (id === entry ? code : undefined),
      },
    ],
    build: {
      write: false,
      target: "es2022",
      lib: { entry, formats: ["es"] },
      rolldownOptions: { external: without, output: { minify: true } },
    },
  })) as Rolldown.RolldownOutput | Rolldown.RolldownOutput[];
  const [{ output: files }] = Array.isArray(output) ? output : [output];
  // what comes later by itself, such as the relief, is not part of the piece
  return files
    .filter((file) => file.type === "chunk" && !file.isDynamicEntry)
    .reduce((sum, file) => sum + brotliCompressSync((file as Rolldown.OutputChunk).code).length, 0);
}

describe("what the kit weighs", { timeout: 60_000 }, () => {
  it("stays within its limits, and docs/kit.md tells it", async () => {
    const sizes = await Promise.all(PIECES.map(sizeOf));
    const grown = PIECES.flatMap(({ name, most }, i) => (sizes[i] > most ? [`${name}: ${sizes[i]} of ${most}`] : []));
    expect(grown).toEqual([]);
    const kB = (bytes: number) => `${(bytes / 1000).toFixed(1)} kB`;
    const rows = PIECES.map(({ name, most }, i) => `| ${name} | ${kB(sizes[i])} | ${kB(most)} |`);
    const table = ["| piece | size, brotli | limit |", "| --- | --- | --- |", ...rows].join("\n");
    const docs = readFileSync(DOCS, "utf8");
    const [before, rest] = docs.split("<!-- sizes -->\n");
    const after = rest.slice(rest.indexOf("<!-- end -->"));
    if (process.env.UPDATE_DOCS) writeFileSync(DOCS, `${before}<!-- sizes -->\n${table}\n${after}`);
    else for (const { name } of PIECES) expect(docs).toContain(`| ${name} |`);
  });
});
