import { describe, expect, it } from "vitest";
import { countIn, type InARow } from "./second-tries.ts";

describe("second tries", () => {
  it("are counted in a row: a run without one begins anew", () => {
    let held: InARow = {};
    const counts = [["a", "b"], ["a"], ["a", "b"], [], ["a"]].map((names) => {
      held = countIn(held, names);
      return held;
    });
    expect(counts).toEqual([{ a: 1, b: 1 }, { a: 2 }, { a: 3, b: 1 }, {}, { a: 1 }]);
  });
});
