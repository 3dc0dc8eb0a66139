import type { FormDefinition } from "@bibliotope/core/form";
import type { TraceEvent } from "@bibliotope/kit";
import type { KeptRehearsal } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import { toKeep } from "../state/keep-traces.ts";
import { overResults, resultOf, storedValues } from "./use-runs.ts";

const FORM: FormDefinition = {
  title: "A form",
  fields: [
    { name: "find", kind: "search", label: "Find it" },
    { name: "town", kind: "text", label: "Town" },
    { name: "ref", kind: "hidden", label: "Ref" },
    { name: "told", kind: "shown", label: "Told" },
    { name: "ask", kind: "button", label: "Ask" },
    { name: "place", kind: "map", label: "Map" },
  ],
};
const KEPT = { id: 1, name: "One", steps: [], situation: "normal", expected: { town: "Tidewell" } };
const rehearsal: KeptRehearsal = { ...KEPT, situation: "normal", keptAt: "2026-11-25T00:00:00Z" };

describe("a run", () => {
  it("looks at the values that a form stores", () => {
    const values = { find: "12", town: "", ref: "x", told: "far", ask: undefined };
    expect(storedValues(FORM, values)).toEqual({ find: "12", town: "", ref: "x" });
  });

  it("is kept when all fields have what was expected, and tells what differs else", () => {
    expect(resultOf(FORM, rehearsal, { town: "Tidewell", find: "anything" }, {})).toEqual({ state: "passed" });
    expect(resultOf(FORM, rehearsal, { town: "Samphwick" }, {})).toMatchObject({
      state: "changed",
      changed: [{ field: "town", expected: "Tidewell", found: "Samphwick" }],
    });
  });

  it("that was stopped leaves nothing that runs or waits, and what is over stays", () => {
    const passed = { state: "passed" } as const;
    const results = { 1: passed, 2: { state: "running", step: 1 }, 3: { state: "waiting" } } as const;
    expect(overResults(results)).toEqual({ 1: passed });
  });

  it("has changed when an address is something else than was expected", () => {
    const expecting = { ...rehearsal, states: { "": "chosen" as const } };
    expect(resultOf(FORM, expecting, { town: "Tidewell" }, { "": "chosen" })).toEqual({ state: "passed" });
    expect(resultOf(FORM, expecting, { town: "Tidewell" }, { "": "changed" })).toMatchObject({
      state: "changed",
      changedStates: [{ address: "", expected: "chosen", found: "changed" }],
    });
    // kept before states were expected: whatever it is
    expect(resultOf(FORM, rehearsal, { town: "Tidewell" }, { "": "changed" })).toEqual({ state: "passed" });
  });

  it("has changed when a step could not be done, whatever is in the fields", () => {
    const failed = { step: 2, words: "it did not come" };
    expect(resultOf(FORM, rehearsal, { town: "Tidewell" }, {}, failed)).toMatchObject({ state: "changed", failed });
  });
});

describe("a trace that is kept", () => {
  const answered = (id: number, letters: number): TraceEvent => ({
    row: "answered",
    id,
    at: id,
    status: 200,
    answer: "x".repeat(letters),
  });

  it("is kept whole when it is small", () => {
    const events = [answered(1, 10), answered(2, 20)];
    expect(toKeep({ about: "a", events })).toEqual({ about: "a", events });
  });

  it("lets go of the earliest long answers, and of nothing else", () => {
    const events: TraceEvent[] = [
      { row: "keys", at: 0, text: "1", key: "1" },
      ...Array.from({ length: 10 }, (_, i) => answered(i, 30_000)),
    ];
    const kept = toKeep({ about: "", events });
    expect(JSON.stringify(kept).length).toBeLessThan(110_000);
    expect(kept.events).toHaveLength(11);
    const whole = kept.events.map((event) => event.answer !== null);
    expect(whole).toEqual([true, ...Array(7).fill(false), true, true, true]);
  });
});
