import { readFileSync } from "node:fs";
import { syncBuiltinESMExports } from "node:module";
import threads from "node:worker_threads";

// Loaded before a server that is ill-treated: its clock can be set, and its threads ended, from outside.

/** A file with the milliseconds that the clock is off by. */
const CLOCK = process.env.BIBLIOTOPE_TEST_CLOCK;
/** Milliseconds between two looks at it. */
const LOOK_EVERY = 200;

if (CLOCK) {
  const Real = Date;
  let off = 0;
  const look = () => {
    try {
      off = Number(readFileSync(CLOCK, "utf8")) || 0;
    } catch {
      off = 0;
    }
  };
  look();
  setInterval(look, LOOK_EVERY).unref();
  globalThis.Date = class extends Real {
    constructor(...given) {
      if (given.length) super(...given);
      else super(Real.now() + off);
    }
    static now() {
      return Real.now() + off;
    }
  };
}

if (threads.isMainThread) {
  const running = new Set();
  threads.Worker = class extends threads.Worker {
    constructor(...given) {
      super(...given);
      running.add(this);
      this.once("exit", () => running.delete(this));
    }
  };
  syncBuiltinESMExports();
  process.on("SIGUSR2", () => void [...running].at(-1)?.terminate());
}
