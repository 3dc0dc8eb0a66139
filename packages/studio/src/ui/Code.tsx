import bash from "highlight.js/lib/languages/bash";
import csharp from "highlight.js/lib/languages/csharp";
import dart from "highlight.js/lib/languages/dart";
import go from "highlight.js/lib/languages/go";
import java from "highlight.js/lib/languages/java";
import json from "highlight.js/lib/languages/json";
import kotlin from "highlight.js/lib/languages/kotlin";
import markdown from "highlight.js/lib/languages/markdown";
import python from "highlight.js/lib/languages/python";
import swift from "highlight.js/lib/languages/swift";
import typescript from "highlight.js/lib/languages/typescript";
import xml from "highlight.js/lib/languages/xml";
import { createLowlight } from "lowlight";
import { type ReactNode, useMemo } from "react";

const lowlight = createLowlight({
  bash,
  csharp,
  dart,
  go,
  java,
  kotlin,
  python,
  swift,
  json,
  markdown,
  typescript,
  xml,
});

export type CodeLanguage =
  | "bash"
  | "csharp"
  | "dart"
  | "go"
  | "java"
  | "kotlin"
  | "python"
  | "swift"
  | "json"
  | "markdown"
  | "typescript"
  | "xml";

/** The theme's colours for what the highlighter tells apart. */
const COLOURS: Readonly<Record<string, string>> = {
  "hljs-comment": "text-quiet italic",
  "hljs-keyword": "text-plum",
  "hljs-string": "text-verdigris",
  "hljs-number": "text-ochre",
  "hljs-literal": "text-ochre",
  "hljs-attr": "text-indigo",
  "hljs-attribute": "text-indigo",
  "hljs-name": "text-madder",
  "hljs-title": "text-indigo",
  "hljs-variable": "text-ochre",
  "hljs-section": "font-semibold",
  "hljs-strong": "font-semibold",
  "hljs-code": "text-verdigris",
};

type Node = ReturnType<typeof lowlight.highlight>["children"][number];

function elementOf(node: Node, key: number): ReactNode {
  if (node.type === "text") return node.value;
  if (node.type !== "element") return null;
  const names = (node.properties.className as string[] | undefined) ?? [];
  const classes = names.flatMap((name) => COLOURS[name] ?? []).join(" ");
  return (
    <span key={key} className={classes || undefined}>
      {node.children.map(elementOf)}
    </span>
  );
}

/** Code with syntax highlighting. What is in it is only ever text. */
export function Code({ text, language }: { text: string; language: CodeLanguage }) {
  const tree = useMemo(() => lowlight.highlight(language, text), [language, text]);
  return <code>{tree.children.map(elementOf)}</code>;
}
