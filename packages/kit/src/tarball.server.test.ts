import { execFileSync } from "node:child_process";
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { brotliCompressSync } from "node:zlib";
import { checkPackage, createPackageFromTarballData } from "@arethetypeswrong/core";
import { nodeResolve } from "@rollup/plugin-node-resolve";
import * as esbuild from "esbuild";
import { publint } from "publint";
import { rollup } from "rollup";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import webpack from "webpack";

const ROOT = join(import.meta.dirname, "../../..");
const DOCS = join(ROOT, "docs/kit.md");

const BESIDE = `import { Client } from "@bibliotope/kit/client"; import { SearchBox } from "@bibliotope/kit/search"; console.log(Client, SearchBox);`;

/** What may not grow: code of an application, code whose bytes are counted elsewhere, and the most bytes of the difference. */
const PIECES: { name: string; code: string; beside?: string; most: number }[] = [
  { name: "client", code: `import { Client } from "@bibliotope/kit/client"; console.log(Client);`, most: 2500 },
  // esbuild keeps what the client shares with pieces that are not used
  {
    name: "the same, from the root",
    code: `import { Client } from "@bibliotope/kit"; console.log(Client);`,
    most: 4000,
  },
  {
    name: "search element, with the client",
    code: `import { SearchElement } from "@bibliotope/kit/elements"; customElements.define("bibliotope-search", SearchElement);`,
    most: 9000,
  },
  {
    name: "the same, from its own entry",
    code: `import { SearchElement } from "@bibliotope/kit/elements/search"; customElements.define("bibliotope-search", SearchElement);`,
    most: 9000,
  },
  {
    name: "binder by tokens, beside client and search box",
    code: `${BESIDE} import { bindTokens } from "@bibliotope/kit/fill"; console.log(bindTokens);`,
    beside: BESIDE,
    most: 3000,
  },
  {
    name: "binder with all rules, beside client and search box",
    code: `${BESIDE} import { bind } from "@bibliotope/kit/form"; console.log(bind);`,
    beside: BESIDE,
    most: 13_000,
  },
  {
    name: "map",
    code: `import { InteractiveMap } from "@bibliotope/kit/map"; console.log(InteractiveMap);`,
    most: 42_000,
  },
];

/** Ways of finding a module that attw tells of and that are not offered. */
const LEFT: ReadonlySet<string> = new Set(["node10", "node16-cjs"]);

let folder: string;
let tarball: string;
/** The package as it is installed. */
let kit: string;
beforeAll(() => {
  execFileSync(process.execPath, ["scripts/pack-kit.mjs"], { cwd: ROOT });
  const home = join(ROOT, ".bibliotope");
  tarball = join(home, readdirSync(home).find((file) => /^bibliotope-kit-.*\.tgz$/.test(file))!);
  folder = mkdtempSync(join(tmpdir(), "bibliotope-tarball-"));
  kit = join(folder, "node_modules/@bibliotope/kit");
  mkdirSync(kit, { recursive: true });
  execFileSync("tar", ["xzf", tarball, "--strip-components=1", "-C", kit]);
}, 180_000);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const weightOf = (code: string | Uint8Array) => brotliCompressSync(code).length;

/** Bytes of what a page loads at first, minified and by brotli, as three bundlers make it; what comes later by itself is not counted. */
const BUNDLERS: Record<string, (entry: string, out: string) => Promise<number>> = {
  async Rollup(entry) {
    const bundle = await rollup({ input: entry, plugins: [nodeResolve({ browser: true })], logLevel: "silent" });
    const { output } = await bundle.generate({ format: "es" });
    const chunks = new Map(output.flatMap((file) => (file.type === "chunk" ? [[file.fileName, file] as const] : [])));
    const first = new Set<string>();
    const walk = (name: string) => {
      const chunk = chunks.get(name);
      if (!chunk || first.has(name)) return;
      first.add(name);
      for (const other of chunk.imports) walk(other);
    };
    for (const [name, { isEntry }] of chunks) if (isEntry) walk(name);
    let sum = 0;
    for (const name of first)
      sum += weightOf((await esbuild.transform(chunks.get(name)!.code, { minify: true, format: "esm" })).code);
    return sum;
  },
  async esbuild(entry, out) {
    const { metafile, outputFiles } = await esbuild.build({
      ...{ entryPoints: [entry], outdir: out, bundle: true, minify: true, splitting: true, format: "esm" },
      ...{ target: "es2022", write: false, metafile: true, legalComments: "none", logLevel: "silent" },
    });
    const outputs = metafile!.outputs;
    const first = new Set<string>();
    const walk = (name: string) => {
      if (first.has(name)) return;
      first.add(name);
      for (const { path, kind } of outputs[name].imports) if (kind === "import-statement") walk(path);
    };
    for (const [name, { entryPoint }] of Object.entries(outputs)) if (entryPoint?.endsWith("entry.js")) walk(name);
    return outputFiles!
      .filter(({ path }) => [...first].some((name) => path.endsWith(name.split("/").pop()!)))
      .reduce((sum, { contents }) => sum + weightOf(contents), 0);
  },
  async webpack(entry, out) {
    const stats = await new Promise<webpack.Stats>((resolve, reject) => {
      const compiler = webpack({
        ...{ mode: "production", context: folder, entry, devtool: false, target: ["web", "es2022"] },
        output: { path: out, filename: "[name].js", module: true, clean: true },
        experiments: { outputModule: true },
        performance: false,
      });
      compiler?.run((error, result) => compiler.close(() => (error || !result ? reject(error) : resolve(result))));
    });
    const { entrypoints, errors } = stats.toJson({ all: false, entrypoints: true, errors: true });
    expect(errors).toEqual([]);
    return entrypoints!.main.assets!.reduce((sum, { name }) => sum + weightOf(readFileSync(join(out, name))), 0);
  },
};

const sized = new Map<string, Promise<number>>();
function sizeBy(bundler: string, code: string): Promise<number> {
  const name = `${bundler} ${code}`;
  const size = sized.get(name) ?? build(bundler, code);
  sized.set(name, size);
  return size;
}

async function build(bundler: string, code: string): Promise<number> {
  const work = mkdtempSync(join(folder, "app-"));
  const entry = join(work, "entry.js");
  writeFileSync(entry, code);
  return BUNDLERS[bundler](entry, join(work, "out"));
}

describe("the package as it is installed", { timeout: 180_000 }, () => {
  it("weighs no more than it may, by one bundler or by every one, and docs/kit.md tells it", async () => {
    const isDocumented = Boolean(process.env.UPDATE_DOCS);
    const bundlers = process.env.BIBLIOTOPE_LONG || isDocumented ? Object.keys(BUNDLERS) : ["esbuild"];
    const rows: string[] = [];
    const grown: string[] = [];
    const kB = (bytes: number) => `${(bytes / 1000).toFixed(1)} kB`;
    for (const { name, code, beside, most } of PIECES) {
      const sizes: number[] = [];
      for (const bundler of bundlers) {
        const size = (await sizeBy(bundler, code)) - (beside ? await sizeBy(bundler, beside) : 0);
        if (size > most) grown.push(`${name}, ${bundler}: ${size} of ${most}`);
        sizes.push(size);
      }
      rows.push(`| ${name} | ${sizes.map(kB).join(" | ")} | ${kB(most)} |`);
    }
    const table = [
      `| piece | ${bundlers.join(" | ")} | limit |`,
      `| --- |${" --- |".repeat(bundlers.length + 1)}`,
      ...rows,
    ].join("\n");
    console.info(table);
    const docs = readFileSync(DOCS, "utf8");
    const [before, rest] = docs.split("<!-- sizes -->\n");
    const after = rest.slice(rest.indexOf("<!-- end -->"));
    if (isDocumented) writeFileSync(DOCS, `${before}<!-- sizes -->\n${table}\n${after}`);
    else for (const { name } of PIECES) expect(docs).toContain(`| ${name} |`);
    expect(grown).toEqual([]);
  });

  it("is free of what publint and attw know to go wrong", { tags: ["long"] }, async () => {
    expect((await publint({ pkgDir: kit, strict: true })).messages).toEqual([]);
    const result = await checkPackage(createPackageFromTarballData(readFileSync(tarball)), {
      excludeEntrypoints: ["./custom-elements.json", "./package.json"],
    });
    // what cannot read "exports" is no place for ES modules; TypeScript that compiles to CommonJS takes them by import()
    expect(result.types).not.toBe(false);
    const problems = result.types ? result.problems : [];
    expect(problems.filter((problem) => !("resolutionKind" in problem && LEFT.has(problem.resolutionKind)))).toEqual(
      [],
    );
  });

  it("is no larger than it need be: no source map of what others wrote, no file twice", () => {
    const files = readdirSync(kit, { recursive: true, withFileTypes: true }).filter((file) => file.isFile());
    const bytes = files.reduce((sum, { parentPath, name }) => sum + statSync(join(parentPath, name)).size, 0);
    expect(bytes / 1e6).toBeLessThan(5);
  });

  it("brings what a page does on the client alone to React's server components, and says so", () => {
    const react = readFileSync(join(kit, "modules/react.js"), "utf8");
    expect(react.replace(/^\s*(\/\*.*?\*\/|\/\/[^\n]*\n)\s*/s, "")).toMatch(/^"use client";/);
  });

  it("has its components compiled for production, whoever packs it", () => {
    const components = readFileSync(join(kit, "modules/kit/src/react/components.js"), "utf8");
    expect(components).toContain('from "react/jsx-runtime"');
  });

  it("can be had by require too", () => {
    writeFileSync(join(folder, "main.cjs"), 'console.log(typeof require("@bibliotope/kit/client").Client);');
    const said = execFileSync(process.execPath, ["main.cjs"], { cwd: folder, encoding: "utf8", stdio: "pipe" });
    expect(said).toBe("function\n");
  });

  it("has what its exports name", () => {
    const { exports } = JSON.parse(readFileSync(join(kit, "package.json"), "utf8")) as { exports: object };
    const named = JSON.stringify(exports).match(/\.\/[^"]+\.\w+/g)!;
    for (const file of named) expect(existsSync(join(kit, file)), file).toBe(true);
  });
});
