import { namesIn, type Pattern, type PatternNode, parsePattern } from "../pattern/index.ts";

/** Adds a name to a binding: alone when there was none, else behind what is there. Nothing changes when it is there already. */
export function bindName(binding: string | undefined, name: string): string {
  const parsed = parsePattern(binding ?? "");
  if (!binding?.trim() || !parsed.ok) return `{${name}}`;
  return namesIn(parsed.pattern).includes(name) ? binding : `${binding} {${name}}`;
}

/** Takes a name out of a binding; undefined when nothing is left. Groups lose it too, and vanish when they are empty. */
export function unbindName(binding: string, name: string): string | undefined {
  const parsed = parsePattern(binding);
  if (!parsed.ok) return undefined;
  const kept = without(parsed.pattern.nodes, name);
  const pattern: Pattern = { source: "", nodes: kept };
  return namesIn(pattern).length
    ? write(kept)
        .replace(/ {2,}/g, " ")
        .replace(/^[\s,]+|[\s,]+$/g, "")
    : undefined;
}

function without(nodes: readonly PatternNode[], name: string): PatternNode[] {
  return nodes.flatMap((node): PatternNode[] => {
    if (node.type === "text") return [node];
    if (node.type === "group") {
      const inner = without(node.nodes, name);
      return inner.some((n) => n.type !== "text") ? [{ type: "group", nodes: inner }] : [];
    }
    const names = node.names.filter((existing) => existing !== name && existing.split(".")[0] !== name);
    return names.length ? [{ ...node, names }] : [];
  });
}

function write(nodes: readonly PatternNode[]): string {
  return nodes
    .map((node) => {
      if (node.type === "text") return node.text.replace(/[\\[\]{}]/g, "\\$&");
      if (node.type === "group") return `[${write(node.nodes)}]`;
      return `{${[node.names.join(" or "), ...node.changes].join(":")}}`;
    })
    .join("");
}
