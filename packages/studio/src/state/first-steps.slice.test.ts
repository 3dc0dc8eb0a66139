import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { answers } from "./answer.slice.ts";
import { type FirstSteps, firstSteps, firstStepsReducer, readFirstSteps, STEPS } from "./first-steps.slice.ts";

type Action = Parameters<typeof firstStepsReducer>[1];
const after = (...actions: Action[]) => actions.reduce<FirstSteps | undefined>(firstStepsReducer, undefined)!;
const load = (originalArgs: object, how = "fulfilled") =>
  ({ type: `api/executeMutation/${how}`, meta: { arg: { endpointName: "makeLoad", originalArgs } } }) as Action;

describe("the first steps", () => {
  it("are done by doing them, each once", () => {
    const filled = answers.filled({} as never);
    expect(after(filled, filled, firstSteps.did("taken"), load({})).done).toEqual(["tried", "taken", "imported"]);
  });

  it("are not done by a trial, nor by what failed", () => {
    expect(after(load({ isTrial: true }), load({}, "rejected"), { type: "other" }).done).toEqual([]);
  });

  it("are put away for good", () => {
    expect(after(firstSteps.hidden(), firstSteps.did("tried"))).toEqual({ done: ["tried"], isHidden: true });
  });

  it("are read as they were kept, and whatever else is stored is none", () => {
    const kept = fc.record({ done: fc.subarray([...STEPS]), isHidden: fc.boolean() });
    fc.assert(
      fc.property(kept, (state) => {
        expect(readFirstSteps(JSON.stringify(state))).toEqual(state);
      }),
    );
    const odd = fc.oneof(
      fc.constant(null),
      fc.string(),
      fc.json(),
      fc.jsonValue().map((done) => JSON.stringify({ done })),
    );
    fc.assert(
      fc.property(odd, (stored) => {
        const { done, isHidden } = readFirstSteps(stored);
        expect(STEPS).toEqual(expect.arrayContaining(done));
        expect(typeof isHidden).toBe("boolean");
      }),
    );
  });
});
