import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { colourOfMean, DAY, NIGHT, numberIn, valueScale, valueSizes } from "./index.ts";

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

describe("the colour of a mean", () => {
  it("is that of the step it lies in, and of the nearest where it lies beyond", () => {
    const scale = valueScale(Array.from({ length: 100 }, (_, i) => String(i + 1)));
    const colours = scale.steps.map(({ colour }) => colour);
    expect([0, 1, 20.5, 21, 99, 1000].map((mean) => colourOfMean(scale, mean))).toEqual(
      [0, 0, 0, 1, 4, 4].map((step) => colours[step]),
    );
    expect(colourOfMean(valueScale(["a", "b"]), 1)).toBe(undefined);
  });
});

describe("sizes", () => {
  it("grow with their numbers, from the smallest to the largest, in few steps", () => {
    void fc.assert(
      fc.property(fc.array(fc.integer({ min: -1e6, max: 1e6 }), { minLength: 1, maxLength: 80 }), (numbers) => {
        const { of, least, most, smallest, largest } = valueSizes(numbers.map(String))!;
        expect([least, most]).toEqual([Math.min(...numbers), Math.max(...numbers)]);
        expect(new Set(of).size).toBeLessThanOrEqual(9);
        for (const [i, size] of of.entries()) {
          expect(size).toBeGreaterThanOrEqual(smallest);
          expect(size).toBeLessThanOrEqual(largest + 1e-9);
          for (const [j, other] of numbers.entries()) if (numbers[i] < other) expect(size).toBeLessThanOrEqual(of[j]);
        }
        if (least < most) expect([of[numbers.indexOf(least)], of[numbers.indexOf(most)]]).toEqual([smallest, largest]);
      }),
    );
  });

  it("are of numbers alone; what is missing is small", () => {
    expect(valueSizes(["a", "1", "2"])).toBe(undefined);
    expect(valueSizes([null, ""])).toBe(undefined);
    expect(valueSizes(["1", null, "9"])?.of[1]).toBe(0.7);
  });
});

describe("the colours of numbers", () => {
  /** Relative luminance (WCAG 2). */
  const luminance = (colour: string) =>
    [1, 3, 5]
      .map((at) => Number.parseInt(colour.slice(at, at + 2), 16) / 255)
      .map((part) => (part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4))
      .reduce((sum, part, i) => sum + part * [0.2126, 0.7152, 0.0722][i], 0);
  const contrast = (a: string, b: string) => {
    const [low, high] = [luminance(a), luminance(b)].sort((one, other) => one - other);
    return (high + 0.05) / (low + 0.05);
  };

  it("fall in lightness from step to step, and stand off the papers of day and night", () => {
    const colours = valueScale(Array.from({ length: 100 }, (_, i) => String(i))).steps.map(({ colour }) => colour);
    const lightness = colours.map((colour) => 116 * Math.cbrt(luminance(colour)) - 16);
    for (let i = 1; i < lightness.length; i++) expect(lightness[i - 1] - lightness[i]).toBeGreaterThan(5);
    for (const colour of colours) {
      for (const paper of [DAY.land, DAY.sea]) expect(contrast(colour, paper)).toBeGreaterThan(1.3);
      for (const paper of [NIGHT.land, NIGHT.sea]) expect(contrast(colour, paper)).toBeGreaterThan(2.5);
    }
  });
});
