import { readFileSync } from "node:fs";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import type { Random } from "./random.ts";
import { type Rig, send } from "./rig.ts";

/** Something that goes wrong for a while. */
export interface Fault {
  name: string;
  /** Does it; what is returned makes it good again. */
  begin: (rig: Rig, random: Random) => Promise<(() => Promise<void> | void) | undefined>;
  /** Seconds that it lasts, at least and at most. */
  lasts: readonly [number, number];
  /** Why it cannot be done here; undefined where it can. */
  whyNot?: (rig: Rig) => string | undefined;
}

const HOUR = 3_600_000;
/** The cluster may be ill-treated only where no other test uses it. */
const isAlone = () => (process.env.BIBLIOTOPE_FAULTS ? undefined : "other tests use the same database");

export const FAULTS: readonly Fault[] = [
  {
    name: "the server is killed",
    lasts: [0, 0],
    begin: async (rig) => {
      rig.signal("SIGKILL");
      return undefined;
    },
  },
  {
    name: "the server fails",
    lasts: [0, 0],
    begin: async (rig) => {
      rig.signal("SIGABRT");
      return undefined;
    },
  },
  {
    name: "the server stands still",
    lasts: [0.5, 4],
    begin: async (rig) => {
      const pid = rig.now()?.pid;
      if (!pid) return undefined;
      send(pid, "SIGSTOP");
      return () => void send(pid, "SIGCONT");
    },
  },
  {
    name: "a thread of the server ends",
    lasts: [0, 0],
    begin: async (rig) => {
      rig.signal("SIGUSR2");
      return undefined;
    },
  },
  {
    name: "the database is away",
    lasts: [0.5, 5],
    begin: async (rig) => {
      await rig.shutDoor();
      return () => rig.openDoor();
    },
  },
  {
    name: "connections to the database are cut",
    lasts: [0, 0],
    begin: async (rig) => {
      rig.door.cut();
      return undefined;
    },
  },
  {
    name: "the database is slow",
    lasts: [1, 6],
    begin: async (rig, random) => {
      rig.door.delay = random.between(20, 300);
      return () => {
        rig.door.delay = 0;
      };
    },
  },
  {
    name: "connections to the database are open at one end",
    lasts: [1, 8],
    begin: async (rig) => {
      rig.door.delay = Number.POSITIVE_INFINITY;
      return () => {
        rig.door.delay = 0;
        rig.door.cut();
      };
    },
  },
  {
    name: "the clock is set",
    lasts: [1, 6],
    begin: async (rig, random) => {
      rig.setClock(random.of([-HOUR, HOUR, 26 * HOUR, -26 * HOUR]));
      return () => rig.setClock(0);
    },
  },
  {
    name: "the disk is full",
    lasts: [1, 6],
    whyNot: (rig) => (rig.hasDisk ? undefined : "no right to mount a disk of its own"),
    begin: async (rig) => {
      rig.fillDisk();
      return () => rig.freeDisk();
    },
  },
  {
    name: "the database fails",
    lasts: [0, 0],
    whyNot: isAlone,
    begin: async () => {
      const folder = process.env.BIBLIOTOPE_TEST_CLUSTER ?? "";
      const pid = Number(readFileSync(join(folder, "postmaster.pid"), "utf8").split("\n")[0]);
      process.kill(pid, "SIGKILL");
      // until npm run test:faults has it running again
      await wait(3000);
      return undefined;
    },
  },
  {
    name: "the database ends its connections",
    lasts: [0, 0],
    whyNot: isAlone,
    begin: async (rig) => {
      await rig.own.database
        .raw(
          "select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()",
        )
        .catch(() => undefined);
      return undefined;
    },
  },
];
