import { readFileSync, writeFileSync } from "node:fs";
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
