import { readFileSync, renameSync, writeFileSync } from "node:fs";
import { monitorEventLoopDelay } from "node:perf_hooks";
import { isMainThread } from "node:worker_threads";

// Loaded before a server: notes how long its event loop stood still, at the most, how much of that was not spent waiting for a
// core, for how long its own thread ran in one pause at the most (Linux tells both), and how much memory the process has. Time
// that another guest of the same machine took counts as run: Linux tells it for all threads together (steal).

/** Nanoseconds for which this thread has run, and for which it was ready to run and had no core. */
const schedule = () => readFileSync("/proc/thread-self/schedstat", "utf8").split(" ").map(Number);
const EVERY = 5;
/** Milliseconds of running from which a pause is noted by itself, and how many are kept. */
const [LONG, KEPT] = [50, 1000];

const file = process.env.BIBLIOTOPE_TEST_LOOP;
if (file && isMainThread) {
  const delays = monitorEventLoopDelay({ resolution: EVERY });
  delays.enable();
  // what it loads at its start is no answer to anybody
  setTimeout(() => {
    delays.reset();
    longestOwn = longestRun = 0;
    pauses.length = 0;
  }, 15_000).unref();
  let longestOwn = 0;
  let longestRun = 0;
  const pauses = [];
  let before = [performance.now(), ...schedule()];
  setInterval(() => {
    const now = [performance.now(), ...schedule()];
    const late = now[0] - before[0] - EVERY;
    const withoutCore = (now[2] - before[2]) / 1e6;
    longestOwn = Math.max(longestOwn, late - withoutCore);
    // between two looks that came in time it ran for other reasons, a little each
    const ran = late > EVERY ? (now[1] - before[1]) / 1e6 : 0;
    longestRun = Math.max(longestRun, ran);
    before = now;
    if (ran <= LONG) return;
    if (pauses.push({ at: Date.now(), ran }) > KEPT) pauses.shift();
    note();
  }, EVERY).unref();
  const note = () => {
    const [longest, high] = [delays.max, delays.percentile(99.99)].map((nanoseconds) => nanoseconds / 1e6);
    const { rss } = process.memoryUsage();
    writeFileSync(
      `${file}.next`,
      JSON.stringify({ longest, longestOwn, longestRun, high, rss: rss / 2 ** 20, pauses }),
    );
    renameSync(`${file}.next`, file);
  };
  setInterval(note, 1000).unref();
}
