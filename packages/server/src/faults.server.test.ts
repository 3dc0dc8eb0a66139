import { setTimeout as wait } from "node:timers/promises";
import { afterAll, beforeAll, expect, it } from "vitest";
import { FAULTS } from "../testing/faults/faults.ts";
import { Random } from "../testing/faults/random.ts";
import { Rig } from "../testing/faults/rig.ts";
import { Workload } from "../testing/faults/workload.ts";

/** Minutes of faults; `npm run test:faults` sets ten. */
const MINUTES = Number(process.env.BIBLIOTOPE_FAULTS ?? 0.2);
const SEED = Number(process.env.BIBLIOTOPE_SEED ?? (process.env.BIBLIOTOPE_FAULTS ? Date.now() % 1_000_000 : 20261130));
/** Seconds between two faults, at least and at most. */
const PAUSE = [0.5, 4] as const;
/** How much longer than the faults a run may take, in milliseconds. */
const MORE = 420_000;

let rig: Rig;
beforeAll(async () => {
  rig = await Rig.start("faults");
}, 180_000);
afterAll(() => rig?.end(), 60_000);

it("nothing that was acknowledged is lost, whatever goes wrong", {
  tags: ["long"],
  timeout: MINUTES * 60_000 + MORE,
}, async () => {
  const random = new Random(SEED);
  const load = await Workload.begin(rig);
  const possible = FAULTS.filter((fault) => !fault.whyNot?.(rig));
  for (const fault of FAULTS) {
    const why = fault.whyNot?.(rig);
    if (why) console.log(`  left out: ${fault.name}, since ${why}`);
  }
  const done: Record<string, number> = {};
  // each once at the least, in an order of its own
  const first = [...possible].sort(() => random.next() - 0.5);
  for (const end = Date.now() + MINUTES * 60_000; Date.now() < end; ) {
    const fault = first.pop() ?? random.of(possible);
    done[fault.name] = (done[fault.name] ?? 0) + 1;
    const mend = await fault.begin(rig, random);
    await wait(1000 * random.between(...fault.lasts));
    await mend?.();
    await wait(1000 * random.between(...PAUSE));
  }
  await load.end();
  await rig.ready(120_000);
  const wrong = await load.check();
  const counts = Object.entries(load.counts).map(
    ([what, { asked: count, acknowledged }]) => `${acknowledged} of ${count} ${what}`,
  );
  console.log(
    [
      `  seed ${SEED}, ${MINUTES} minutes`,
      ...Object.entries(done).map(([name, times]) => `  ${times} × ${name}`),
      `  acknowledged: ${counts.join(", ")}`,
      `  longest time without lookups: ${(load.longestGap / 1000).toFixed(1)} s`,
    ].join("\n"),
  );
  expect(wrong).toEqual([]);
});
