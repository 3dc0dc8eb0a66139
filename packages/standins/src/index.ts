import { landRegister } from "./land-register.ts";
import { loanCourier } from "./loan-courier.ts";
import { type Running, run } from "./stand-in.ts";
import { survey } from "./survey.ts";
import { tideTable } from "./tide-table.ts";

export { FAULTS, type Fault } from "./faults.ts";

/** The services of the reading network that are none, by their names. */
export const STAND_INS = { register: landRegister, courier: loanCourier, tides: tideTable, survey } as const;
export type StandInName = keyof typeof STAND_INS;

/** Starts all of them on this machine, each on a free port. @returns their addresses, and what ends them */
export async function startStandIns(): Promise<{ urls: Record<StandInName, string>; stop: () => Promise<void> }> {
  const names = Object.keys(STAND_INS) as StandInName[];
  const running = await Promise.all(names.map((name): Promise<Running> => run(STAND_INS[name]())));
  return {
    urls: Object.fromEntries(names.map((name, i) => [name, running[i].url])) as Record<StandInName, string>,
    stop: async () => void (await Promise.all(running.map((one) => one.stop()))),
  };
}
