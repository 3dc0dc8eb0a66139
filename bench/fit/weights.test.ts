import { describe, expect, it } from "vitest";
import examples from "./examples.json" with { type: "json" };
import type { Example } from "./examples.ts";
import { allWeights, movedByHalf, type WeightName, withWeights } from "./moves.ts";
import { answerOf, makePool } from "./pool.ts";

const { engines } = makePool(1);
const held = examples as Record<WeightName, Example[]>;
const comesOut = (example: Example) => answerOf(engines[example.of], example) === example.answer;

describe("the weights of the search", () => {
  it("all have questions that hold them", () => {
    expect(Object.keys(held)).toEqual(allWeights());
  });

  it.each(allWeights())("%s: its questions come out right, and not when it is moved by a half", (name) => {
    for (const example of held[name]) expect(answerOf(engines[example.of], example)).toBe(example.answer);
    for (const value of movedByHalf(name)) {
      const values = new Map([[name, value]]);
      expect(withWeights(values, () => held[name].every(comesOut))).toBe(false);
    }
  });
});
