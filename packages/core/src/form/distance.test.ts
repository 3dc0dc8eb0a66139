import { describe, expect, it } from "vitest";
import { DISTANCE_UNITS, distanceIn } from "./distance.ts";
import {
  addField,
  addressesOf,
  type ButtonTask,
  checkDefinition,
  type FormDefinition,
  problemsOf,
  questionFor,
  startingField,
} from "./index.ts";

describe("distanceIn", () => {
  it.each([
    [0, "km", "0.00 km"],
    [850, "km", "0.85 km"],
    [850, "m", "850 m"],
    [12_345, "km", "12.3 km"],
    [12_345, "m", "12\u2009345 m"],
    [99_960, "km", "100 km"],
    [9_996, "km", "10.0 km"],
    [1_234_567, "km", "1\u2009235 km"],
    [16_093.44, "mi", "10.0 mi"],
    [18_520, "nautical mi", "10.0 nautical mi"],
  ] as const)("tells %d m in %s", (metres, unit, words) => {
    expect(distanceIn(metres, unit)).toBe(words);
  });

  it("tells the same length in every unit", () => {
    const metres = 101_234.5;
    for (const [unit, length] of Object.entries(DISTANCE_UNITS)) {
      const words = distanceIn(metres, unit as keyof typeof DISTANCE_UNITS);
      const told = Number(words.replace(unit, "").replaceAll("\u2009", ""));
      expect(Math.abs(told - metres / length)).toBeLessThanOrEqual(0.5);
    }
  });
});

describe("fields of two addresses", () => {
  const button = (task?: ButtonTask) => ({
    name: "go",
    kind: "button" as const,
    label: "Go",
    ...(task ? { task } : {}),
  });
  const form = (task?: ButtonTask): FormDefinition => ({
    title: "From and to",
    fields: [
      { name: "from", kind: "search", label: "From", address: "from" },
      { name: "to", kind: "search", label: "To", address: "to" },
      { ...button(task), ...(task === "exchange" ? {} : { address: "to" }) },
      { name: "far", kind: "distance", label: "How far" },
    ],
  });

  it("belong to neither, so that a form has no third", () => {
    expect(addressesOf(form("exchange"))).toEqual(["from", "to"]);
    expect(checkDefinition(form("exchange"))).toEqual([]);
    expect(problemsOf(form("exchange"), [])).toEqual([]);
  });

  it("are not where it is said what came of a lookup", () => {
    expect(startingField(form("exchange"), "to")).toBe("to");
    const fields = form("locate").fields.filter(({ kind }) => kind !== "search");
    expect(startingField({ title: "", fields }, "to")).toBe("go");
    const typed = { name: "town", kind: "text" as const, label: "Town", binding: "{town}", address: "to" };
    const never = { title: "", fields: [typed], addresses: [{ name: "to", start: { on: "never" as const } }] };
    expect(startingField(never, "to")).toBe("town");
    expect(startingField({ title: "", fields: [] }, "")).toBeUndefined();
  });

  it("are a problem in a form that has not two", () => {
    const one = addField(
      { title: "", fields: [{ name: "find", kind: "search", label: "Find" }] },
      "distance",
    ).definition;
    expect(checkDefinition(one)).toEqual([]);
    expect(problemsOf(one, [])).toMatchObject([{ field: "distance", kind: "needs two addresses" }]);
  });

  it("and buttons that look nothing up start no lookup", () => {
    const values = { from: "Tidewell", to: "Samphwick" };
    const pressed = { did: "pressed", field: "go" } as const;
    expect(questionFor(form(), values, pressed)).toMatchObject({ address: "to", q: "Samphwick" });
    expect(questionFor(form("locate"), values, pressed)).toBeUndefined();
    expect(questionFor(form("exchange"), values, pressed)).toBeUndefined();
  });
});
