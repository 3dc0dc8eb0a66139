import { readdirSync, readFileSync } from "node:fs";
import { extname, join } from "node:path";
import { fileURLToPath } from "node:url";
import ts from "typescript";
import { describe, expect, it } from "vitest";

const root = fileURLToPath(new URL("../..", import.meta.url));
const BUILT = new Set(["node_modules", "dist", "dist-web", "dist-types", "dist-package"]);

function sourcesIn(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return BUILT.has(entry.name) ? [] : sourcesIn(path);
    return /^\.tsx?$/.test(extname(entry.name)) && !/\.test\.tsx?$/.test(entry.name) ? [path] : [];
  });
}
const SOURCES = readdirSync(join(root, "packages")).flatMap((name) => sourcesIn(join(root, "packages", name, "src")));

/** Phrases that docs/glossary.md strikes out, where people read them. */
const STRUCK: readonly RegExp[] = [
  /\b[Bb]ring (?:a|the|your) file\b/,
  /\bbrought\b/,
  /\bTake (?:the|these) lines\b/,
  /\bTake out\b/,
  /\b[Tt]hrow away\b/,
  /\b[Kk]ept to\b/,
  /\bLetters a choice\b/,
  /\bFound (?:several|none)\b/,
  /\bof 100 within\b/,
  /\b[Hh]alf as broad\b/,
  /\bWords (?:above it|on its button)\b/,
  /\bTo look at\b/,
  /\bIt is shown$/,
  /\bOf the address\b/,
  /\bBeside another setting\b/,
  /\bCopy the way\b/,
  /\b[Bb]egin anew\b/,
  /\bExchange\b/,
  /\bWhere I stand\b/,
  /\b[Pp]ress (?:the map|a house)\b/,
  /\bWhat was live\b/,
  /\bWhat happened\b/,
  /\bin hand\b/,
  /\bcome along\b/,
  /\bNobody (?:is signed in|has allowed)\b/,
  /\bbroke on our side\b/,
  /\bAsk again\b/,
  /\bis held\b/,
];

const SQL = /^(?:create|select|insert|update|delete|analyze|alter|with|drop) /;

/** Texts of a source that people may read: strings with a space in them, and the text of JSX. */
function textsOf(path: string): string[] {
  const source = ts.createSourceFile(path, readFileSync(path, "utf8"), ts.ScriptTarget.Latest, true);
  const texts: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node)) return;
    if (ts.isJsxText(node) || ts.isStringLiteralLike(node)) texts.push(node.text);
    else if (ts.isTemplateHead(node) || ts.isTemplateMiddleOrTemplateTail(node)) texts.push(node.text);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return texts.map((text) => text.replace(/\s+/g, " ").trim()).filter((text) => text.includes(" ") && !SQL.test(text));
}

/** Names of code that were replaced. Former names on the wire are in `former-params` and in the `formerly` of calls. */
const GONE =
  /\b(?:\w*Asking|Furniture|Sheet(?:Kind|Style|Feature|Map|Cutter|Tiles|Part|Look|Layer)|SHEETS|setSheet|bt-sheets?|csrfToken)\b/;

/** Words of code that say nothing, and how often they may stand in ten thousand lines. */
const VAGUE = /\b(?:held|asked|asking|its|theirs|stands|Asking|House|Furniture|Wanted|Manner|Standing)\b/g;
const MOST = 120;

/** Words that have a plain use too ("look up", "typed letters"), and how often they may stand in ten thousand lines. */
const SELDOM = /\b(?:look|told|says|whole|letters)\b/g;
const MOST_SELDOM = 35;

/** How often something stands in ten thousand lines of the sources. */
function frequencyOf(words: RegExp): number {
  let [lines, found] = [0, 0];
  for (const path of SOURCES) {
    const text = readFileSync(path, "utf8");
    lines += text.split("\n").length - 1;
    found += text.match(words)?.length ?? 0;
  }
  return Math.round((10_000 * found) / lines);
}

describe("words", () => {
  it("that are struck out do not come back where people read them", { tags: ["long"] }, () => {
    const found = SOURCES.flatMap((path) =>
      textsOf(path).flatMap((text) =>
        STRUCK.filter((phrase) => phrase.test(text)).map((phrase) => `${path.slice(root.length)}: ${phrase}: ${text}`),
      ),
    );
    expect(found).toEqual([]);
  });

  it("that were replaced in code do not come back", () => {
    const found = SOURCES.flatMap((path) => {
      const name = GONE.exec(readFileSync(path, "utf8"))?.[0];
      return name ? [`${path.slice(root.length)}: ${name}`] : [];
    });
    expect(found).toEqual([]);
  });

  it("that say nothing become rarer in code, and not more frequent", () => {
    expect(frequencyOf(VAGUE)).toBeLessThanOrEqual(MOST);
    expect(frequencyOf(SELDOM)).toBeLessThanOrEqual(MOST_SELDOM);
  });

  it("of the glossary are each defined once", () => {
    const rows = readFileSync(join(root, "docs/glossary.md"), "utf8")
      .split("\n")
      .filter((line) => line.startsWith("| ") && !/^\| (?:---|term)/.test(line));
    const terms = rows.map((row) => row.split("|")[1].trim());
    expect(rows.every((row) => row.split("|").length === 5 && row.split("|")[3].trim())).toBe(true);
    expect(terms.filter((term, i) => terms.indexOf(term) !== i)).toEqual([]);
    expect(terms.length).toBeGreaterThan(40);
  });
});
