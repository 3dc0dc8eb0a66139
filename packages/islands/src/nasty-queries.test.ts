import { describe, expect, it } from "vitest";
import { islandsEngine } from "../testing/islands.ts";
import { NASTY_QUERIES } from "../testing/nasty-queries.ts";

const firstLine = (q: string) => islandsEngine.suggest({ q }).suggestions[0]?.line ?? "-";

describe("nasty queries", () => {
  it("lead to the line that is meant, 97 of a hundred and more", () => {
    expect(NASTY_QUERIES.length).toBeGreaterThanOrEqual(200);
    const misses = NASTY_QUERIES.filter(([typed, line]) => firstLine(typed) !== line);
    for (const [typed, line] of misses) console.info(`  missed: ${typed} is ${firstLine(typed)}, meant ${line}`);
    expect(1 - misses.length / NASTY_QUERIES.length).toBeGreaterThanOrEqual(0.97);
  });

  it("keep the right line among the first five once it was first, as more right letters are typed", () => {
    const lost: string[] = [];
    for (const [typed, line] of NASTY_QUERIES) {
      if (line === "-" || typed.toLowerCase() !== line.toLowerCase()) continue;
      let wasFirst = false;
      for (let end = 3; end <= typed.length; end++) {
        const lines = islandsEngine
          .suggest({ q: typed.slice(0, end) })
          .suggestions.map((suggestion) => suggestion.line);
        wasFirst ||= lines[0] === line;
        if (wasFirst && !lines.slice(0, 5).includes(line)) lost.push(typed.slice(0, end));
      }
    }
    expect(lost).toEqual([]);
  });
});
