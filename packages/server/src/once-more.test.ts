import { setTimeout as wait } from "node:timers/promises";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { onceMore } from "./once-more.ts";

describe("work that is done once more", () => {
  it("begins after it was requested, whoever asks when, and never twice at a time", async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.nat(4), { minLength: 1, maxLength: 12 }), async (pauses) => {
        let [published, live, atOnce, runs] = [0, 0, 0, 0];
        const refresh = onceMore(async () => {
          expect(++atOnce).toBe(1);
          runs++;
          const seen = published;
          await wait(1);
          live = seen;
          atOnce--;
        });
        const requests = pauses.map(async (pause) => {
          await wait(pause);
          const mine = ++published;
          await refresh();
          expect(live).toBeGreaterThanOrEqual(mine);
        });
        await Promise.all(requests);
        expect(runs).toBeLessThanOrEqual(pauses.length);
      }),
      { numRuns: 30 },
    );
  });

  it("goes on after a failure, which is told to those who requested that run", async () => {
    let isFailing = true;
    const work = onceMore(async () => {
      await wait(1);
      if (isFailing) throw new Error("not now");
    });
    const [first, second] = [work(), work()];
    await expect(first).rejects.toThrow("not now");
    isFailing = false;
    await second;
    await work();
  });
});
