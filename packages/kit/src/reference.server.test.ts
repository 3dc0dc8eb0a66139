import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { kitReference } from "../../../scripts/lib/kit-reference.mjs";

const DOCS = join(import.meta.dirname, "../../../docs/kit-reference.md");

it("the kit's reference is what its comments say", { timeout: 60_000 }, () => {
  const reference = kitReference();
  if (process.env.UPDATE_DOCS) writeFileSync(DOCS, reference);
  expect(readFileSync(DOCS, "utf8")).toBe(reference);
  // everything that is offered says what it is
  const silent = [...reference.matchAll(/^### (\w+)\n\n(?=###|```|- |##)/gm)]
    .map(([, name]) => name)
    .filter((name) => !/(Options|Props)$/.test(name));
  expect(silent).toEqual([]);
});

/** Names that a file of exports makes known, from its text. */
function exportedBy(file: string): string[] {
  const text = readFileSync(file, "utf8");
  const named = [...text.matchAll(/export (?:type )?\{([^}]*)\}/g)].flatMap(([, names]) =>
    names.split(",").map((name) => name.replace(/^\s*type /, "").trim()),
  );
  const all = [...text.matchAll(/export \* from "([^"]+)"/g)].flatMap(([, from]) => exportedBy(join(file, "..", from)));
  return [...named, ...all].filter(Boolean);
}

it("the kit's reference has all that the kit makes known, with what is taken over from others", () => {
  const SRC = import.meta.dirname;
  const told = new Set([...readFileSync(DOCS, "utf8").matchAll(/^### (\w+)$/gm)].map(([, name]) => name));
  const entries = readdirSync(SRC, { recursive: true, encoding: "utf8" }).filter((path) =>
    /^(\w+\/)?index\.ts$/.test(path),
  );
  const inside = ["relief", "locate"];
  const exported = entries
    .filter((path) => !inside.some((folder) => path.startsWith(folder)))
    .flatMap((path) => exportedBy(join(SRC, path)));
  expect(new Set(exported).size).toBeGreaterThan(60);
  expect(exported.filter((name) => !told.has(name))).toEqual([]);
  const marker = readFileSync(DOCS, "utf8").split("### Marker\n")[1].split("\n### ")[0];
  expect(marker).toContain("- `label?: string`");
});
