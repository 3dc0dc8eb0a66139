import { join } from "node:path";
import { chromiumProgram } from "./lib/debian.mjs";
import { home, makeFolder, root } from "./lib/places.mjs";
import { show } from "./lib/run.mjs";
import { command, say } from "./lib/say.mjs";
import { startServer } from "./lib/server.mjs";
import { prepare } from "./lib/setup.mjs";

/** Takes the pictures of docs/screenshots from the demo data. */
await command(async () => {
  const database = await prepare("shots", chromiumProgram);
  const server = startServer({
    ...database,
    serverHome: makeFolder(join(home, "shots", "server")),
    port: 5270,
    quiet: true,
  });
  try {
    say("Starting a server for the pictures");
    await server.ready;
    const env = { ...process.env, BIBLIOTOPE_TEST_HOME: join(home, "shots") };
    return await show(
      join(root, "node_modules/.bin/playwright"),
      ["test", "--config", "e2e/shots/playwright.config.ts"],
      { cwd: root, env },
    );
  } finally {
    await server.stop();
    await database.stop();
  }
});
process.exit();
