import type { Change, Pattern, PatternNode } from "./parse.ts";

/** Gives the text of a name, or undefined when there is none. */
export type Lookup = (name: string) => string | undefined;

/**
 * Writes a pattern with values. A missing value leaves nothing behind: no "undefined", no doubled spaces, no orphaned
 * commas. Line feeds in the pattern part lines; empty lines vanish.
 */
export function formatPattern(pattern: Pattern, lookup: Lookup): string {
  return tidy(write(pattern.nodes, lookup).text);
}

function write(nodes: PatternNode[], lookup: Lookup): { text: string; missing: boolean } {
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

function firstValue(names: string[], lookup: Lookup): string | undefined {
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

/** What asks for tidying; seldom anything does. */
const UNTIDY = /^[\s,]| {2}|[\t\n]| ,|,\s*,|[\s,]$/;

function tidy(text: string): string {
  if (!UNTIDY.test(text)) return text;
  return text
    .split("\n")
    .map((line) =>
      line
        .replace(/[ \t]+/g, " ")
        .replace(/ ,/g, ",")
        .replace(/,(\s*,)+/g, ",")
        .replace(/^[\s,]+|[\s,]+$/g, ""),
    )
    .filter((line) => line !== "")
    .join("\n");
}
