import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { paperTables } from "./paper.ts";

const FILE = join(import.meta.dirname, "../docs/scale.md");

it("docs/scale.md has the tables that come of what was measured", () => {
  const before = readFileSync(FILE, "utf8");
  const page = before.replace(
    /<!-- tables -->.*<!-- \/tables -->/s,
    () => `<!-- tables -->\n\n${paperTables()}\n\n<!-- /tables -->`,
  );
  if (process.env.UPDATE_DOCS) writeFileSync(FILE, page);
  else expect(before).toBe(page);
});
