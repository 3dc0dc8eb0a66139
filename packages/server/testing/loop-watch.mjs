import { writeFileSync } from "node:fs";
import { monitorEventLoopDelay } from "node:perf_hooks";
import { isMainThread } from "node:worker_threads";

// Loaded before a server: notes how long its event loop stood still, at the most, and how much memory it has.

const file = process.env.BIBLIOTOPE_TEST_LOOP;
if (file && isMainThread) {
  const delays = monitorEventLoopDelay({ resolution: 5 });
  delays.enable();
  // what it loads at its start is no answer to anybody
  setTimeout(() => delays.reset(), 15_000).unref();
  setInterval(() => {
    const [longest, high] = [delays.max, delays.percentile(99.99)].map((nanoseconds) => nanoseconds / 1e6);
    const { rss } = process.memoryUsage();
    writeFileSync(file, JSON.stringify({ longest, high, rss: rss / 2 ** 20 }));
  }, 1000).unref();
}
