import { readdirSync, readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { expect, it } from "vitest";

const root = fileURLToPath(new URL("../..", import.meta.url));

it("a note of a change names packages of ours, once each: the changelog cannot be made otherwise", () => {
  const ours = readdirSync(`${root}packages`).map((folder) => `@bibliotope/${folder}`);
  const notes = readdirSync(`${root}.changeset`).filter((file) => file.endsWith(".md") && file !== "README.md");
  for (const note of notes) {
    const [, head, text] = /^---\n(.*?)\n---\n(.*)$/s.exec(readFileSync(`${root}.changeset/${note}`, "utf8")) ?? [];
    expect(text?.trim(), note).toBeTruthy();
    const names = head.split("\n").map((line) => /^"(@bibliotope\/\w+)": (?:major|minor|patch)$/.exec(line)?.[1]);
    expect(ours, note).toEqual(expect.arrayContaining(names));
    expect(new Set(names).size, note).toBe(names.length);
  }
});
