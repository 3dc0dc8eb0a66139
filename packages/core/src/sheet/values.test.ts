import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { numberIn, valueScale } from "./index.ts";

describe("numbers as people write them", () => {
  it.each([
    ["1250", 1250],
    ["1,250.50", 1250.5],
    ["1.250,50", 1250.5],
    ["1 250,5", 1250.5],
    ["€ 320", 320],
    ["320 EUR", 320],
    ["12 %", 12],
    ["-3.5", -3.5],
    ["1'000", 1000],
    ["2e3", 2000],
  ])("%s", (text, value) => {
    expect(numberIn(text)).toBe(value);
  });

  it.each(["", "n/a", "1-2", "12b", "1.2.3", "ten", "€"])("are not %j", (text) => {
    expect(numberIn(text)).toBe(undefined);
  });
});

describe("a scale of values", () => {
  it("has steps with as many numbers each, from light to dark, and says what each holds", () => {
    const scale = valueScale(Array.from({ length: 100 }, (_, i) => String(i + 1)));
    expect(scale.kind).toBe("numbers");
    expect(scale.steps.map(({ words, count }) => [words, count])).toEqual([
      ["1 to 20", 20],
      ["21 to 40", 20],
      ["41 to 60", 20],
      ["61 to 80", 20],
      ["81 to 100", 20],
    ]);
    expect([scale.mean, scale.least, scale.most]).toEqual([50.5, 1, 100]);
  });

  it("has words where they are none, the commonest first, and the rest together", () => {
    const scale = valueScale(["b", "a", "b", null, "", ..."cdefghij"]);
    expect(scale.kind).toBe("words");
    expect(scale.steps[0]).toMatchObject({ words: "b", count: 2 });
    expect(scale.steps.at(-1)).toMatchObject({ words: "4 others", count: 4 });
    expect(scale.missing).toBe(2);
    expect(scale.of.slice(3, 5)).toEqual([-1, -1]);
  });

  it("counts every value once, in one step or as missing, whatever they be", () => {
    const value = fc.option(
      fc.oneof(fc.float({ noNaN: true }).map(String), fc.string({ maxLength: 5 }), fc.constantFrom("1", "1", "a")),
    );
    fc.assert(
      fc.property(fc.array(value, { maxLength: 80 }), (values) => {
        const { steps, of, missing } = valueScale(values);
        expect(of).toHaveLength(values.length);
        expect(of.filter((step) => step === -1)).toHaveLength(missing);
        expect(steps.map(({ count }, i) => count - of.filter((step) => step === i).length)).toEqual(steps.map(() => 0));
        expect(new Set(steps.map(({ colour }) => colour)).size).toBe(steps.length);
      }),
    );
  });

  it("puts no lower number into a higher step", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 1, maxLength: 60 }), (numbers) => {
        const { of } = valueScale(numbers.map(String));
        for (let i = 0; i < numbers.length; i++)
          for (let j = 0; j < numbers.length; j++)
            if (numbers[i] < numbers[j]) expect(of[i]).toBeLessThanOrEqual(of[j]);
      }),
    );
  });
});
