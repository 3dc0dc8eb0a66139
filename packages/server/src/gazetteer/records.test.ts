import fc from "fast-check";
import { expect, it } from "vitest";
import { parentsFirst } from "./records.repository.ts";

it("areas come after the one around them, whatever their order", () => {
  const parents = fc.array(fc.nat(), { minLength: 1, maxLength: 60 });
  fc.assert(
    fc.property(parents, fc.nat(), (list, turn) => {
      // each area lies in one that was made before it, or in none
      const areas = list.map((parent, i) => ({ identity: i, parent: i && parent % 4 ? parent % i : null }));
      const turned = [...areas.slice(turn % areas.length), ...areas.slice(0, turn % areas.length)];
      const ordered = parentsFirst(turned);
      expect(ordered.map(({ identity }) => identity).sort((a, b) => a - b)).toEqual(
        areas.map(({ identity }) => identity),
      );
      const met = new Set<number | null>([null]);
      for (const { identity, parent } of ordered) {
        expect(met.has(parent)).toBe(true);
        met.add(identity);
      }
    }),
  );
});

it("a country may have three hundred thousand towns", () => {
  const towns = Array.from({ length: 300_000 }, (_, i) => ({ identity: i + 1, parent: 0 }));
  expect(parentsFirst([...towns, { identity: 0, parent: null }]).length).toBe(300_001);
});
