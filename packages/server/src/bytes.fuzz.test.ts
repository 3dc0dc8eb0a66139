import { describe, expect, it } from "vitest";
import { fuzz } from "../testing/fuzz/guided.ts";
import { TARGETS } from "../testing/fuzz/targets.ts";
import { sized } from "../testing/sizes.ts";

/** Inputs that are made for each, beside those of the corpus. */
const INPUTS = Number(process.env.BIBLIOTOPE_FUZZ ?? sized(15, 1000));
const SEED = Number(process.env.BIBLIOTOPE_SEED ?? sized(20261130, Date.now() % 1_000_000));

/** What reads bytes from outside says what is wrong with them, and nothing else goes wrong. */
describe("bytes from outside", { timeout: 1_200_000 }, () => {
  it.each(TARGETS.map((target) => [target.name, target] as const))("%s", async (name, target) => {
    const { inputs, kept, faults } = await fuzz(target, INPUTS, SEED, process.env.BIBLIOTOPE_FUZZ !== undefined);
    if (INPUTS > 1000) console.info(`  ${name}: ${inputs} inputs, ${kept} went a new way, seed ${SEED}`);
    expect(faults).toEqual([]);
    // the seeds alone are never all that there is
    expect(inputs).toBeGreaterThan(INPUTS);
  });
});
