import { expect, it } from "vitest";
import { scoreText } from "./score-text.ts";

it.each([
  [1, "1.00"],
  [0.005, "0.01"],
  [0.0049, "under 0.01"],
  [0, "under 0.01"],
])("a score of %f is shown as %s", (score, text) => expect(scoreText(score)).toBe(text));
