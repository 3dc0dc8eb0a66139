import fc from "fast-check";
import { expect, it } from "vitest";
import { Busy } from "../http/busy.ts";
import { InTurn } from "./in-turn.ts";

const turn = () => new Promise((resolve) => setImmediate(resolve));

it("never runs more at once than it may, does all that it took, and refuses what is too much", async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.integer({ min: 1, max: 3 }),
      fc.nat(4),
      fc.array(fc.tuple(fc.nat(3), fc.boolean()), { maxLength: 20 }),
      async (atOnce, most, jobs) => {
        const turns = new InTurn(atOnce, most);
        let running = 0;
        let done = 0;
        const all = jobs.map(([length, fails]) =>
          turns.run(async () => {
            running++;
            expect(running).toBeLessThanOrEqual(atOnce);
            for (let i = 0; i < length; i++) await turn();
            running--;
            done++;
            if (fails) throw new Error("on purpose");
          }),
        );
        const ended = await Promise.allSettled(all);
        const refused = ended.filter((one) => one.status === "rejected" && one.reason instanceof Busy).length;
        expect(refused).toBe(Math.max(0, jobs.length - atOnce - most));
        expect(done).toBe(jobs.length - refused);
        // and it goes on as before
        await turns.run(async () => undefined);
      },
    ),
  );
});
