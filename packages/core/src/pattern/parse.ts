/** What a pattern is made of. */
export type PatternNode =
  | { type: "text"; text: string }
  /** One value, or the first of several that is there, then changed as requested. */
  | { type: "value"; names: string[]; changes: Change[] }
  /** Vanishes completely when a value in it is missing. */
  | { type: "group"; nodes: PatternNode[] };

/** A change applied to a value: `{town:upper}`. */
export type Change = "upper" | "lower" | "trim";

/** A pattern that can be formatted. */
export interface Pattern {
  source: string;
  nodes: PatternNode[];
}

/** What is wrong with a pattern, and where. */
export interface PatternError {
  /** One-based column, in UTF-16 units. */
  column: number;
  message: string;
}

export type ParsedPattern = { ok: true; pattern: Pattern } | { ok: false; error: PatternError };

/** A part, a fact or a value of a service, a fact of the data's own, or a field of the form. */
const NAME = /^([a-z]+(\.[a-z]+)?|fact\.[a-z][a-z0-9_]{0,39}|field\.[A-Za-z][\w-]{0,39})$/;
const CHANGES: readonly string[] = ["upper", "lower", "trim"];

/**
 * Reads a pattern: literal text; `{street}`, `{country.code}`; a fall-back `{town or district}`; a change
 * `{town:upper}`; a group in `[ … ]` that vanishes when a value in it is missing. `\` takes the next character literally.
 * @returns the pattern, or what is wrong with the column where it is wrong
 */
export function parsePattern(source: string): ParsedPattern {
  const stack: { nodes: PatternNode[]; column: number }[] = [{ nodes: [], column: 0 }];
  const fail = (index: number, message: string): ParsedPattern => ({
    ok: false,
    error: { column: index + 1, message },
  });
  for (let i = 0; i < source.length; i++) {
    const unit = source[i];
    const top = stack[stack.length - 1];
    if (unit === "\\") {
      if (i + 1 >= source.length) return fail(i, "a character must follow the backslash");
      addText(top.nodes, source[++i]);
    } else if (unit === "[") {
      stack.push({ nodes: [], column: i });
    } else if (unit === "]") {
      if (stack.length === 1) return fail(i, "this ] closes no group");
      stack.pop();
      stack[stack.length - 1].nodes.push({ type: "group", nodes: top.nodes });
    } else if (unit === "{") {
      const close = source.indexOf("}", i);
      if (close < 0) return fail(i, "this { has no closing }");
      const value = parseValue(source.slice(i + 1, close));
      if (typeof value === "string") return fail(i + 1, value);
      top.nodes.push(value);
      i = close;
    } else if (unit === "}") {
      return fail(i, "this } opens nowhere");
    } else {
      addText(top.nodes, unit);
    }
  }
  if (stack.length > 1) return fail(stack[stack.length - 1].column, "this [ has no closing ]");
  return { ok: true, pattern: { source, nodes: stack[0].nodes } };
}

function addText(nodes: PatternNode[], text: string) {
  const last = nodes[nodes.length - 1];
  if (last?.type === "text") last.text += text;
  else nodes.push({ type: "text", text });
}

function parseValue(inside: string): PatternNode | string {
  const [left, ...changes] = inside.split(":").map((piece) => piece.trim());
  const names = left.split(/\s+or\s+/);
  for (const name of names) {
    if (!NAME.test(name)) return name === "" ? "a name is missing between { and }" : `“${name}” is not a name`;
  }
  for (const change of changes) {
    if (!CHANGES.includes(change)) return `“${change}” is not a change; known are ${CHANGES.join(", ")}`;
  }
  return { type: "value", names, changes: changes as Change[] };
}

/** The names a pattern asks for, each once, in order. */
export function namesIn(pattern: Pattern): string[] {
  const names = new Set<string>();
  const walk = (nodes: PatternNode[]) => {
    for (const node of nodes) {
      if (node.type === "value") for (const name of node.names) names.add(name);
      if (node.type === "group") walk(node.nodes);
    }
  };
  walk(pattern.nodes);
  return [...names];
}

const patterns = new Map<string, Pattern>();

/**
 * Reads a pattern that is known to be right, once; for data that ships with the product.
 * @throws Error with the column when it is not right
 */
export function knownPattern(source: string): Pattern {
  const known = patterns.get(source);
  if (known) return known;
  const parsed = parsePattern(source);
  if (!parsed.ok) throw new Error(`pattern ${source}, column ${parsed.error.column}: ${parsed.error.message}`);
  patterns.set(source, parsed.pattern);
  return parsed.pattern;
}
