import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";

const ROOT = join(import.meta.dirname, "../../..");
const PAGES = ["docs/kit.md", "docs/services.md", "docs/picker.md", "packages/kit/README.md", "README.md"];

/** What a reader has around a snippet: names that it uses and does not declare. */
const AROUND: Readonly<Record<string, string>> = {
  client: "declare const client: import('@bibliotope/kit/client').Client;",
  element: "declare const element: HTMLElement;",
  map: "declare const map: import('@bibliotope/kit/map').InteractiveMap;",
  branches:
    "declare const branches: { at: { lat: number; lon: number }; name: string; rent: number; visits: number }[];",
  definition: "declare const definition: Parameters<typeof import('@bibliotope/kit/form').renderForm>[1];",
  renderForm: 'import { renderForm } from "@bibliotope/kit/form";',
  InteractiveMap: 'import { InteractiveMap } from "@bibliotope/kit/map";',
  stands: "declare const stands: import('@bibliotope/kit/testing').StandIn;",
  page: "declare const page: import('@playwright/test').Page;",
  expect: 'import { expect } from "@playwright/test";',
  createServer: 'import { createServer } from "node:http";',
  settings: "declare const settings: { webKey: string };",
};

interface Snippet {
  /** Page and line. */
  at: string;
  language: string;
  code: string;
}

/** The snippets of a page of Markdown, with the line at which each begins. */
function snippetsOf(path: string): Snippet[] {
  const found: Snippet[] = [];
  let open: { line: number; language: string; indent: number; lines: string[] } | undefined;
  for (const [i, line] of readFileSync(join(ROOT, path), "utf8").split("\n").entries()) {
    const fence = /^( *)```(\w*)/.exec(line);
    if (fence && open) {
      found.push({ at: `${path}:${open.line}`, language: open.language, code: open.lines.join("\n") });
      open = undefined;
    } else if (fence) open = { line: i + 1, language: fence[2], indent: fence[1].length, lines: [] };
    else open?.lines.push(line.slice(open.indent));
  }
  return found;
}

const declares = (code: string, name: string) =>
  new RegExp(
    `(?:const|let|function|class) (?:\\{[^}]*)?\\b${name}\\b|import \\{[^}]*\\b${name}\\b[^}]*\\}|import ${name}\\b`,
  ).test(code);

/** A snippet as a module of its own, with what a reader has around it. */
function moduleOf(code: string): string {
  const needed = Object.entries(AROUND).filter(
    ([name]) => new RegExp(`(?<![\\w.#"'/-])${name}\\b(?!["'/-])`).test(code) && !declares(code, name),
  );
  return [...needed.map(([, line]) => line), code, "export {};"].join("\n");
}

const SNIPPETS = PAGES.flatMap(snippetsOf);
const ofLanguage = (...languages: string[]) => SNIPPETS.filter(({ language }) => languages.includes(language));

let folder: string;
beforeAll(() => {
  execFileSync(process.execPath, ["scripts/pack-kit.mjs"], { cwd: ROOT });
  const home = join(ROOT, ".bibliotope");
  const tarball = join(home, readdirSync(home).find((file) => /^bibliotope-kit-.*\.tgz$/.test(file))!);
  folder = mkdtempSync(join(home, "snippets-"));
  const kit = join(folder, "node_modules/@bibliotope/kit");
  mkdirSync(kit, { recursive: true });
  execFileSync("tar", ["xzf", tarball, "--strip-components=1", "-C", kit]);
}, 180_000);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** What the compiler says of a module beside the installed package. */
function complaintsOf(files: Readonly<Record<string, string>>, isStrict = true): string {
  for (const [name, text] of Object.entries(files)) writeFileSync(join(folder, name), text);
  const compilerOptions = {
    ...{ strict: isStrict, noEmit: true, skipLibCheck: true, target: "es2022", module: "esnext" },
    ...{ moduleResolution: "bundler", lib: ["es2023", "dom", "dom.iterable"], types: ["node"] },
  };
  writeFileSync(join(folder, "tsconfig.json"), JSON.stringify({ compilerOptions, files: Object.keys(files) }));
  try {
    execFileSync(process.execPath, [join(ROOT, "node_modules/typescript-7/bin/tsc"), "-p", "."], {
      cwd: folder,
      encoding: "utf8",
    });
    return "";
  } catch (error) {
    return (error as { stdout: string }).stdout;
  }
}

describe("snippets of the documentation", () => {
  it("are found: a page that has none any more is noticed", () => {
    expect(ofLanguage("ts", "js").length).toBeGreaterThan(7);
    expect(ofLanguage("html").length).toBeGreaterThan(3);
    expect(ofLanguage("json").length).toBeGreaterThan(2);
  });

  it("compile as they are printed, with the package as it is installed", () => {
    for (const language of ["ts", "js"]) {
      const modules = ofLanguage(language).map(({ at, code }) => [`${at.replace(/\W+/g, "-")}.ts`, moduleOf(code)]);
      expect(complaintsOf(Object.fromEntries(modules), language === "ts")).toBe("");
    }
  }, 120_000);

  it("would be noticed when they name what is not there", () => {
    const wrong = 'import { Client } from "@bibliotope/kit/client";\nnew Client({ address: "x" });\n';
    expect(complaintsOf({ "wrong.ts": moduleOf(wrong) })).toContain("address");
  }, 120_000);

  it("are JSON where they claim to be", () => {
    for (const { at, code } of ofLanguage("json")) expect(() => JSON.parse(code), at).not.toThrow();
  });

  it("use attributes of elements that the elements have", () => {
    const manifest = JSON.parse(
      readFileSync(join(folder, "node_modules/@bibliotope/kit/custom-elements.json"), "utf8"),
    ) as { modules: { declarations: { tagName?: string; attributes?: { name: string }[] }[] }[] };
    const elements = new Map(
      manifest.modules.flatMap(({ declarations }) =>
        declarations.flatMap(({ tagName, attributes }) =>
          tagName ? [[tagName, new Set(attributes?.map(({ name }) => name))] as const] : [],
        ),
      ),
    );
    let checked = 0;
    for (const { at, code } of ofLanguage("html", "jsx"))
      for (const [, tag, attributes] of code.matchAll(
        /<(bibliotope-[\w-]+)((?:\s+[\w-]+(?:=(?:"[^"]*"|\{[^>]*?\}(?=[\s/>])))?)*)/g,
      )) {
        expect(elements.has(tag), `${at}: ${tag}`).toBe(true);
        for (const [, name] of attributes.replace(/"[^"]*"/g, '""').matchAll(/(?:^|\s)([a-z][\w-]*)(?==|\s|$)/g)) {
          if (/^(?:on|id$|class$|style$|slot$)/.test(name)) continue;
          expect([...elements.get(tag)!], `${at}: ${tag} ${name}`).toContain(name);
          checked++;
        }
      }
    expect(checked).toBeGreaterThan(4);
  });
});
