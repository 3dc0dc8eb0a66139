import { join } from "node:path";
import { chromiumProgram } from "./lib/debian.mjs";
import { home, makeFolder, root } from "./lib/places.mjs";
import { must, show } from "./lib/run.mjs";
import { command, say } from "./lib/say.mjs";
import { startServer } from "./lib/server.mjs";
import { prepare } from "./lib/setup.mjs";

await command(async () => {
  const database = await prepare("bench", chromiumProgram);
  const serverHome = makeFolder(join(home, "bench", "server"));
  const server = startServer({ ...database, serverHome, port: 5070, quiet: true });
  try {
    await must("Compiling the benchmarks", join(root, "node_modules/.bin/tsc"), ["-b", "bench"], { cwd: root });
    say("Starting a server for the benchmarks");
    await server.ready;
    return await show(process.execPath, ["bench/dist/main.js", join(serverHome, "ready.json")], { cwd: root });
  } finally {
    await server.stop();
    await database.stop();
  }
});
process.exit();
