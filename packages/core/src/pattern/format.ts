import { type Change, namesIn, type Pattern, type PatternNode } from "./parse.ts";

/** Gives the text of a name, a list of texts, or undefined when there is none. */
export type Lookup = (name: string) => string | readonly string[] | undefined;

type TextLookup = (name: string) => string | undefined;

/**
 * Writes a pattern with values. A missing value leaves nothing behind: no "undefined", no doubled spaces, no orphaned
 * commas. Line feeds in the pattern part lines; a line with a list in it is written once for each item; empty lines
 * vanish.
 */
export function formatPattern(pattern: Pattern, lookup: Lookup): string {
  let hasList = false;
  const text = write(pattern.nodes, (name) => {
    const value = lookup(name);
    if (typeof value !== "object") return value;
    hasList = true;
    return undefined;
  }).text;
  if (!hasList) return tidy(text);
  return tidy(
    linesOf(pattern.nodes)
      .flatMap((nodes) => {
        const lengths = namesIn({ source: "", nodes })
          .map(lookup)
          .flatMap((value) => (Array.isArray(value) ? [value.length] : []));
        const count = lengths.length ? Math.max(...lengths) : 1;
        return Array.from({ length: count }, (_, i) => {
          const item: TextLookup = (name) => {
            const value = lookup(name);
            return typeof value === "object" ? value[i] : value;
          };
          return write(nodes, item).text;
        });
      })
      .join("\n"),
  );
}

/** The nodes of each line; a line feed within a group stays there. */
function linesOf(nodes: readonly PatternNode[]): PatternNode[][] {
  const lines: PatternNode[][] = [[]];
  for (const node of nodes) {
    const texts = node.type === "text" ? node.text.split("\n") : [];
    if (node.type !== "text") lines[lines.length - 1].push(node);
    texts.forEach((text, i) => {
      if (i > 0) lines.push([]);
      if (text) lines[lines.length - 1].push({ type: "text", text });
    });
  }
  return lines;
}

function write(nodes: readonly PatternNode[], lookup: TextLookup): { text: string; missing: boolean } {
  let text = "";
  let missing = false;
  for (const node of nodes) {
    if (node.type === "text") text += node.text;
    else if (node.type === "group") {
      const inner = write(node.nodes, lookup);
      if (!inner.missing) text += inner.text;
    } else {
      const value = firstValue(node.names, lookup);
      if (value === undefined) missing = true;
      else text += node.changes.reduce(apply, value);
    }
  }
  return { text, missing };
}

function firstValue(names: string[], lookup: TextLookup): string | undefined {
  for (const name of names) {
    const value = lookup(name);
    if (value !== undefined && value !== "") return value;
  }
  return undefined;
}

function apply(value: string, change: Change): string {
  if (change === "upper") return value.toLocaleUpperCase();
  if (change === "lower") return value.toLocaleLowerCase();
  return value.trim();
}

const [SPACE, COMMA, LAST_ASCII] = [32, 44, 127];

function tidy(text: string): string {
  if (isTidy(text)) return text;
  return text
    .split("\n")
    .map((line) => (isTidy(line) ? line : tidyLine(line)))
    .filter((line) => line !== "")
    .join("\n");
}

const tidyLine = (line: string) =>
  line
    .replace(/[ \t]+/g, " ")
    .replace(/ ,/g, ",")
    .replace(/,(\s*,)+/g, ",")
    .replace(/^[\s,]+|[\s,]+$/g, "");

/** False where a text may have anything to tidy; seldom anything has, and to look at its letters takes least. */
function isTidy(text: string): boolean {
  // as if a comma stood before it
  let [before, beforeSpaces] = [COMMA, COMMA];
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code === COMMA ? before === SPACE || beforeSpaces === COMMA : code === SPACE && (before === SPACE || i === 0))
      return false;
    if (code < SPACE || (code > LAST_ASCII && RARE_SPACE.test(text[i]))) return false;
    before = code;
    if (code !== SPACE) beforeSpaces = code;
  }
  return before !== SPACE && (before !== COMMA || text === "");
}

/** Any space but that of ASCII. */
const RARE_SPACE = /\s/;
