import { join } from "node:path";
import { root } from "./lib/places.mjs";
import { must, show } from "./lib/run.mjs";
import { command } from "./lib/say.mjs";
import { withServer } from "./lib/with-server.mjs";

/** Measures, and prints one table. */
await command(() =>
  withServer("bench", 5070, async (folder) => {
    await must("Compiling the benchmarks", join(root, "node_modules/.bin/tsc"), ["-b", "bench"], { cwd: root });
    return show(process.execPath, ["bench/dist/main.js", join(folder, "server", "ready.json")], { cwd: root });
  }),
);
process.exit();
