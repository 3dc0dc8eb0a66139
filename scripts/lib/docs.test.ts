import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { describe, expect, it } from "vitest";

const root = fileURLToPath(new URL("../..", import.meta.url));
const FOLDERS = ["packages", "e2e", "scripts", "bench", "examples"];
const SKIPPED = new Set(["node_modules", "dist", "dist-web", "dist-types", "dist-package"]);

function filesOf(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (SKIPPED.has(entry.name)) return [];
    return entry.isDirectory() ? filesOf(join(folder, entry.name)) : [entry.name];
  });
}
const names = new Set(FOLDERS.flatMap((folder) => filesOf(join(root, folder))));

describe.each(["security.md", "asvs.md"])("docs/%s", (page) => {
  const text = readFileSync(join(root, "docs", page), "utf8");

  it("names tests that are there", () => {
    const named = [...text.matchAll(/`([\w.-]+\.(?:test|spec))`/g)].map(([, name]) => name);
    expect(named.length).toBeGreaterThan(20);
    const missing = [...new Set(named)].filter((name) => !names.has(`${name}.ts`) && !names.has(`${name}.tsx`));
    expect(missing).toEqual([]);
  });

  it("leads to pages that are there", () => {
    for (const [, path] of text.matchAll(/\]\(([\w.-]+\.md)/g)) expect(readdirSync(join(root, "docs"))).toContain(path);
  });
});
