import { readFileSync, writeFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import type { Position } from "@bibliotope/core/geo";
import { movedByHalf, type WeightName, withWeights } from "./moves.ts";
import { answerOf, type Pool } from "./pool.ts";

/** A question that comes out right, and would not if a weight were moved by a half. */
export interface Example {
  of: "world" | "islands";
  call: "forward" | "suggest";
  q: string;
  near?: Position;
  /** See `answerOf`. */
  answer: string;
}

type Kept = Partial<Record<WeightName, Example[]>>;
/** Where examples are kept: one a line, each with its weight. */
const FILE = fileURLToPath(new URL("./examples.jsonl", import.meta.url)).replace("/bench/dist/", "/bench/");

export function readExamples(): Kept {
  const kept: Kept = {};
  for (const line of readFileSync(FILE, "utf8").trim().split("\n")) {
    const { weight, ...example }: Example & { weight: WeightName } = JSON.parse(line);
    kept[weight] = [...(kept[weight] ?? []), example];
  }
  return kept;
}

export function writeExamples(kept: Kept): void {
  const lines = Object.entries(kept).flatMap(([weight, its = []]) =>
    its.map((one) => JSON.stringify({ weight, ...one })),
  );
  writeFileSync(FILE, `${lines.join("\n")}\n`);
}

/** What no question of the pool tells, but a test of its own. */
export const HELD_BY_HAND: ReadonlySet<WeightName> = new Set<WeightName>([
  "MENDED.begunMisspelt",
  "ORDER.tenfold",
  "ORDER.spelt",
  "TRUST.country",
  "VERDICT.factor",
]);

/**
 * Moves that change no answer of the pool, since what the weight parts lies far from it on that side: no word weighs
 * between 0.1 and 0.15, nor between 0.2 and 0.3 in the middle of a name, none between 0.25 and 0.5.
 */
const FREE: ReadonlyMap<WeightName, "up" | "down"> = new Map<WeightName, "up" | "down">([
  ["TELLS.nothing", "up"],
  ["TELLS.inOrder", "up"],
  ["TELLS.ofName", "down"],
]);

/** The moves that examples of a weight must notice. */
export const movesOf = (name: WeightName): number[] => {
  const [down, up] = movedByHalf(name);
  const free = FREE.get(name);
  if (free === "up") return [down];
  return free === "down" ? [up] : movedByHalf(name);
};

/** True when all examples of a weight come out as they should, and each move of it is noticed by one. */
export function holds(name: WeightName, examples: readonly Example[], engines: Pool["engines"]): boolean {
  const isRight = (example: Example) => answerOf(engines[example.of], example) === example.answer;
  const isNoticed = (value: number) => !withWeights(new Map([[name, value]]), () => examples.every(isRight));
  return examples.every(isRight) && movesOf(name).every(isNoticed);
}
