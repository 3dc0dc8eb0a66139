import { describe, expect, it } from "vitest";
import { townEngine } from "./town-engine.ts";
import { isWithinOne, makeTowns, measureFound, type Town } from "./towns.ts";

const engineOf = (towns: readonly Town[]) =>
  townEngine(towns.map((town) => ({ ...town, importance: Math.log(1 + town.population) / Math.log(4e7) })));

const towns = makeTowns(10_000);

describe("a list of towns", () => {
  it("has namesakes as in life, and names of many lengths", () => {
    const names = new Set(towns.map(({ name }) => name));
    expect(names.size / towns.length).toBeGreaterThan(0.87);
    expect(names.size / towns.length).toBeLessThan(0.93);
    expect(makeTowns(10_000)).toEqual(towns);
  });

  it("is found by whole names, by beginnings and with an error, as well as anybody could", {
    tags: ["long"],
  }, async () => {
    const engine = engineOf(towns);
    const measured = measureFound(towns, 400, async (call, q) => {
      const asked = { q, kinds: ["town" as const] };
      return call === "suggest" ? engine.suggest(asked).suggestions[0]?.at : engine.forward(asked).candidates[0]?.at;
    });
    for await (const { measure, value, target, beside } of measured)
      expect(value, `${measure}: ${beside}`).toBeGreaterThanOrEqual(target);
  });
});

describe("towns of one beginning", () => {
  const at = (name: string, population: number, lon: number): Town => ({ name, population, lat: 41, lon: -lon });
  const found = (all: readonly Town[], q: string) => {
    const { suggestions } = engineOf(all).suggest({ q });
    return suggestions.map(({ line }) => line);
  };

  it("a city with a slip in its name comes before the hamlet that the text is the beginning of", () => {
    const hamlet = at("Patayanoo", 300, 90);
    expect(found([hamlet, at("Pattaya", 97_000, 91)], "pataya")[0]).toBe("Pattaya");
    // not when it is hardly larger
    expect(found([hamlet, at("Pattaya", 900, 91)], "pataya")[0]).toBe("Patayanoo");
    // nor while a word is so short that it may become anything
    expect(found([at("Sotnik", 300, 90), at("Soton", 97_000, 91)], "sotn")[0]).toBe("Sotnik");
  });

  it("the very letters that were typed come first, but before what is far larger", () => {
    expect(found([at("Tomoto", 900, 90), at("Tōmoto", 500, 91)], "tōmoto")).toEqual(["Tōmoto", "Tomoto"]);
    expect(found([at("Tōmoto", 900, 90), at("Tomoto", 500, 91)], "tomoto")).toEqual(["Tomoto", "Tōmoto"]);
    expect(found([at("Tōmoto", 90_000, 90), at("Tomoto", 500, 91)], "tomoto")).toEqual(["Tōmoto", "Tomoto"]);
  });
});

describe("one error", () => {
  it.each([
    ["tutuby", "tutuby", true],
    ["tutuby", "tutby", true],
    ["tutuby", "tuttuby", true],
    ["tutuby", "tutubi", true],
    ["tutuby", "tuutby", true],
    ["tutuby", "tuutb", false],
    ["tutuby", "tut", false],
  ])("between %s and %s: %s", (one, other, is) => {
    expect(isWithinOne(one, other)).toBe(is);
    expect(isWithinOne(other, one)).toBe(is);
  });
});
