import type { Engine } from "@bibliotope/core/search";
import { beforeAll, describe, expect, it } from "vitest";
import { townEngine } from "../town-engine.ts";
import { type Example, HELD_BY_HAND, movesOf, readExamples } from "./examples.ts";
import { allWeights, movedByHalf, type WeightName, withWeights } from "./moves.ts";
import { answerOf, makePool } from "./pool.ts";

let engines: ReturnType<typeof makePool>["engines"];
beforeAll(() => {
  engines = makePool(1).engines;
});
const kept = readExamples() as Record<WeightName, Example[]>;
const comesOut = (example: Example) => answerOf(engines[example.of], example) === example.answer;

/** Towns by their importance. */
const townsOf = (towns: Readonly<Record<string, number>>) =>
  townEngine(Object.entries(towns).map(([name, importance]) => ({ name, importance, lat: 41, lon: -90 })));

const firstOf = (engine: Engine, q: string) => engine.suggest({ q }).suggestions[0]?.line;

/** What comes out right, by weight, and no more when it is moved. */
const BY_HAND: Record<string, () => boolean> = {
  // too little for a whole text; too much beside a whole word with an error
  "MENDED.begunMisspelt": () =>
    firstOf(townsOf({ Kalstotten: 0.5 }), "kalstat") === "Kalstotten" &&
    firstOf(townsOf({ Kalstotten: 0.5, Kalstad: 0.5 }), "kalstat") === "Kalstad",
  "ORDER.tenfold": () =>
    firstOf(townsOf({ Patayanoo: 0.3, Pattaya: 0.4 }), "pataya") === "Patayanoo" &&
    firstOf(townsOf({ Patayanoo: 0.3, Pattaya: 0.46 }), "pataya") === "Pattaya",
  "ORDER.spelt": () =>
    firstOf(townsOf({ Tomoto: 0.5, Tōmoto: 0.4 }), "tōmoto") === "Tōmoto" &&
    firstOf(townsOf({ Tomoto: 0.55, Tōmoto: 0.4 }), "tōmoto") === "Tomoto",
  "TRUST.country": () =>
    answerOf(engines.islands, { call: "forward", q: "12 Harbour Row, Tidewell, Ovarde" }).startsWith(
      "differs | 0.862 12 Harbour Row, Tidewell",
    ),
};

describe("the weights of the search", { tags: ["long"] }, () => {
  it("all have questions that hold them", () => {
    expect(Object.keys(kept)).toEqual(allWeights().filter((name) => !HELD_BY_HAND.has(name)));
  });

  it.each(Object.keys(kept) as WeightName[])("%s: its questions come out right, and not when it is moved", (name) => {
    for (const example of kept[name]) expect(answerOf(engines[example.of], example)).toBe(example.answer);
    for (const value of movesOf(name))
      expect(withWeights(new Map([[name, value]]), () => kept[name].every(comesOut))).toBe(false);
  });

  it.each(Object.keys(BY_HAND) as WeightName[])(
    "%s: what hangs on it comes out right, and not when it is moved",
    (name) => {
      expect(BY_HAND[name]()).toBe(true);
      for (const value of movedByHalf(name))
        expect(withWeights(new Map([[name, value]]), () => BY_HAND[name]())).toBe(false);
    },
  );
});
