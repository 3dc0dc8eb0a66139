import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { apiReference } from "../../../scripts/lib/api-reference.mjs";
import { CALLS, type Call, openApi } from "./index.ts";

const DOCS = join(import.meta.dirname, "../../../docs/api-reference.md");
const reference: string = apiReference(openApi("1"));

describe("the reference of the HTTP API", () => {
  it("is what the OpenAPI document says", () => {
    if (process.env.UPDATE_DOCS) writeFileSync(DOCS, reference);
    expect(readFileSync(DOCS, "utf8")).toBe(reference);
  });

  it("has every call, with each of its parameters, and leads nowhere else", () => {
    for (const { path, methods, asks } of Object.values(CALLS) as Call[]) {
      const section = reference.split(`### ${methods.join(", ")} ${path}\n`)[1]?.split("\n### ")[0];
      expect(section, path).toBeDefined();
      const names = Object.keys((asks as { shape?: object } | undefined)?.shape ?? {});
      for (const name of names) expect(section, `${path} ${name}`).toContain(`\`${name}\``);
      expect(section).toMatch(/\nResponse 2\d\d, `/);
    }
    const headings = new Set([...reference.matchAll(/^### (\w+)$/gm)].map(([, name]) => `#${name.toLowerCase()}`));
    for (const [, target] of reference.matchAll(/\]\((#[^)]*)\)/g)) expect(headings).toContain(target);
    expect(reference).not.toMatch(/undefined|\[object|any value or/);
  });
});
